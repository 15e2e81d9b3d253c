import { readFile } from 'node:fs/promises';
import type { Locator, Page } from '@playwright/test';
import { dayOf } from '../core/src/calendar/day';
import {
  act,
  choose,
  expect,
  fill,
  lookAt,
  openLot,
  saveTable,
  seedPart,
  sheet,
  signIn,
  speaking,
  station,
  test,
} from './kauri';

/** Chooses in the open sheet. */
const pick = (page: Page, label: string, words: string | RegExp) =>
  choose(sheet(page).getByLabel(label, { exact: true }), words);

async function receive(page: Page, fields: Record<string, string>, species: string) {
  await seedPart(page, 'Store');
  await page.getByRole('link', { name: 'Receive seed' }).click();
  await pick(page, 'Species', new RegExp(species));
  await fill(page, fields);
  await act(page, 'Receive it');
  await expect(sheet(page)).toHaveCount(0);
}

test('from a bag of seed to a verdict on its treatments', async ({ page, own, expected }) => {
  // An address of labels that is none is refused.
  expected.faults.push(/422/);
  await signIn(page, own, 'isla@withybeck.example');

  await test.step('receive a bag, test it, and know how alive it is', async () => {
    await receive(
      page,
      { Code: 'S-TRIAL', 'Received on': '2025-10-01', 'Collected on': '2025-09-12', Mass: '200' },
      'Rowan, ',
    );
    await expect(page.getByText('S-TRIAL', { exact: true }).last()).toBeVisible();
    await expect(page.getByTestId('seed-held')).toHaveText(/^200/);
    await page.getByRole('button', { name: 'Test', exact: true }).click();
    await act(page, 'Add a day’s count');
    await act(page, 'Add a day’s count');
    await fill(page, {
      'Day of count 1': '8',
      'Newly germinated 1': '12',
      'Day of count 2': '15',
      'Newly germinated 2': '23',
    });
    await sheet(page).getByLabel('Day', { exact: true }).fill('2025-11-05');
    await act(page, 'Record the test');
    await expect(page.getByTestId('seed-tests')).toContainText('35 of 50 germinated, 70 %');
    // What was tested has left the bag.
    await expect(page.getByTestId('seed-moves')).toContainText('used in a test');
  });

  await test.step('split it into three arms', async () => {
    await page.getByRole('button', { name: 'Treat', exact: true }).click();
    await act(page, 'leaf-filled tub outdoors: cold, moist 120 d');
    await act(page, 'sown fresh in autumn: cold, moist 120 d');
    await fill(page, {
      'Mass 1': '5',
      'Mass 2': '5',
      'Mass 3': '5',
      'Warmer than outdoors by 2': '3',
      'Name of arm 2': 'Tub, trial',
      'Name of arm 1': 'Bag, trial',
    });
    await sheet(page).getByLabel('Day', { exact: true }).fill('2025-11-20');
    await act(page, 'Begin');
    await expect(page.getByRole('heading', { name: 'Bag, trial', level: 1 })).toBeVisible();
    await expect(page.getByTestId('phases')).toContainText('120 of 120 days that count');
  });

  await test.step('follow the clock to a radicle alarm in a mild winter', async () => {
    await lookAt(page, dayOf('2026-02-20'));
    await page.getByTestId('batches').getByText('Tub, trial', { exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Tub, trial', level: 1 })).toBeVisible();
    await expect(page.getByTestId('decision')).toContainText('Ready');
    await page.getByRole('button', { name: 'Look for radicles' }).click();
    for (let i = 0; i < 3; i++) await sheet(page).getByRole('button', { name: 'One more' }).click();
    await sheet(page).getByLabel('Day', { exact: true }).fill('2026-02-19');
    await act(page, 'Record the look');
    await expect(page.getByTestId('decision')).toContainText('Radicles are out: sow at once');
    await station(page, 'Today');
    await page.getByRole('link', { name: /Sow rowan, “Tub, trial” at once/ }).click();
    await expect(page.getByRole('heading', { name: 'Tub, trial', level: 1 })).toBeVisible();
  });

  await test.step('sow each arm to a target with odds, into a bed and into cells', async () => {
    for (const [arm, code, where] of [
      ['Tub, trial', 'TRIAL-TUB', 'bed'],
      ['Sown fresh', 'TRIAL-OUT', 'bed'],
      ['Bag, trial', 'TRIAL-BAG', 'cells'],
    ]) {
      await seedPart(page, 'Dormancy');
      await page.getByTestId('batches').getByText(arm, { exact: true }).first().click();
      await expect(page.getByRole('heading', { name: arm, level: 1 })).toBeVisible();
      await page.getByRole('link', { name: 'Sow it' }).click();
      await page.getByLabel('Good trees wanted').fill('150');
      await expect(page.getByTestId('decision')).toContainText(/% chance of 150 good trees/);
      await expect(page.getByTestId('one-more-test')).toContainText('One more germination test of 50');
      if (where === 'cells') {
        await page.getByRole('tab', { name: 'Into cells' }).click();
        await expect(page.getByTestId('cells-answer')).toContainText(/seeds? a cell/);
      } else await expect(page.getByTestId('bed-answer')).toContainText(/rows, a seed every/);
      await page.getByRole('button', { name: 'Sow it' }).click();
      await expect(sheet(page).getByLabel('Batch')).toHaveAttribute('data-value', /./);
      if (where === 'bed') {
        await pick(page, 'Place', /^Bed 7$/);
        await fill(page, {
          'Area of bed': '0.6',
          'Patch from': arm === 'Tub, trial' ? '0' : '600',
          Rows: '6',
        });
        await sheet(page)
          .getByRole('textbox', { name: /^to / })
          .fill(arm === 'Tub, trial' ? '600' : '1200');
      } else {
        await pick(page, 'Place', /^Bench 3$/);
        await fill(page, { Trays: '2' });
      }
      await fill(page, { Code: code, 'Seeds sown': '400' });
      await sheet(page).getByLabel('Sown on').fill('2026-04-02');
      await act(page, 'Sow it');
      await expect(page.getByRole('status').getByText(`${code} sown.`)).toBeVisible();
    }
  });

  await test.step('the rows of the bed are never nameless', async () => {
    await page.keyboard.press('.');
    await station(page, 'Yard');
    await page.getByTestId('places').getByText('Bed 7', { exact: true }).click();
    const rows = page.getByRole('region', { name: 'What is this row?' });
    await expect(rows).toContainText('TRIAL-TUB Rowan, sown 2 Apr 2026: 0 mm to 600 mm, 6 rows');
    await expect(rows).toContainText('TRIAL-OUT');
  });

  await test.step('print labels', async () => {
    await seedPart(page, 'Labels');
    await page.getByRole('button', { name: 'Another address' }).click();
    const address = page.getByLabel('Kauri’s address, as phones reach it');
    await address.fill('kauri.example/yard');
    await page.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByText(/An address as https:\/\/kauri.example/).first()).toBeVisible();
    await address.fill('https://kauri.example');
    await page.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByText('Codes lead to https://kauri.example.')).toBeVisible();
    await choose(page.getByLabel('Labels of'), 'Bags of seed');
    await expect(page.getByTestId('label-lots').getByRole('checkbox').first()).toBeVisible();
    await choose(page.getByLabel('Labels of'), 'Lots');
    await page.getByLabel('Among them').fill('trial-');
    for (const box of await page.getByTestId('label-lots').getByRole('checkbox').all()) await box.check();
    await page.getByLabel('Labels of TRIAL-TUB').fill('4');
    const sheets = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Print 6 labels' }).click();
    const pdf = await readFile(await (await sheets).path());
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pdf.length).toBeGreaterThan(10_000);
    const one = page.waitForEvent('download');
    await page.getByRole('button', { name: 'One label of TRIAL-BAG' }).click();
    expect((await one).suggestedFilename()).toBe('label-TRIAL-BAG.pdf');
    // And where one is lost, the row is found by its leaf.
    await page.getByLabel('Its leaf').fill('feathered');
    await choosePlace(page, 'Bed 7');
    await expect(page.getByTestId('candidates').getByRole('listitem').first()).toContainText('TRIAL-');
  });

  await test.step('count what comes up, and read the verdict', async () => {
    for (const [code, counted, multi] of [
      ['TRIAL-TUB', '260', '13'],
      ['TRIAL-OUT', '150', '9'],
      ['TRIAL-BAG', '270', '5'],
    ]) {
      await seedPart(page, 'Coming up');
      await page.getByTestId('rising').getByText(code, { exact: true }).click();
      await expect(page.getByRole('heading', { name: code, level: 1 })).toBeVisible();
      await page.getByRole('button', { name: 'Count', exact: true }).click();
      if (code === 'TRIAL-TUB') await countInPatches(page, 180, 80);
      else await fill(page, { 'Seedlings standing now': counted });
      await fill(page, { 'Of them with several stems': multi });
      await sheet(page).getByLabel('Day', { exact: true }).fill('2026-05-28');
      await act(page, 'Keep the count');
      await expect(sheet(page)).toHaveCount(0);
      await expect(page.getByTestId('rising')).toContainText(`${counted} up of 400`);
    }
    const arms = page.getByTestId('arms');
    await expect(arms.getByRole('row')).toHaveCount(4);
    await expect(arms).toContainText('68 %');
    await expect(page.getByTestId('verdict').filter({ hasText: 'Sown fresh' })).toContainText(
      '“Bag, trial” does better than “Sown fresh”',
    );
    // Close arms are not called.
    await expect(page.getByTestId('verdict').filter({ hasText: 'Tub, trial' })).not.toContainText(
      'does better',
    );
    await page.reload();
    await expect(page.getByTestId('verdict')).toHaveCount(2);
  });
});

/** Counts two parts of a lot apart, the second by taps. */
async function countInPatches(page: Page, north: number, south: number) {
  await sheet(page).getByRole('button', { name: 'Count it in patches' }).click();
  await fill(page, { 'Name of the patch': 'North end', 'Standing in North end': String(north) });
  await sheet(page).getByRole('button', { name: 'Patch 2' }).click();
  for (let n = 0; n < south / 10; n++) await sheet(page).getByRole('button', { name: 'Ten more' }).click();
  await expect(sheet(page).getByTestId('patch-total')).toContainText(`In all ${north + south}`);
}

async function choosePlace(page: Page, name: string) {
  await choose(page.getByLabel('Where it stands'), name);
}

test('cuttings from a stock bed to a target; a layer made, looked at, severed', async ({
  page,
  own,
  expected,
}) => {
  // Cuttings of one node are refused.
  expected.faults.push(/422/);
  await signIn(page, own, 'isla@withybeck.example');
  await test.step('take cuttings to a target, and stick them', async () => {
    await seedPart(page, 'Cuttings');
    await page.getByTestId('stock-beds').getByText('Osier stools').click();
    await expect(page.getByRole('heading', { name: 'Osier stools', level: 1 })).toBeVisible();
    await expect(page.getByTestId('stock-gives')).toContainText('cuttings at a cut');
    await page.getByLabel('Plants wanted').fill('300');
    await expect(page.getByTestId('cutting-answer')).toContainText(/Take \d+ cuttings/);
    await expect(page.getByTestId('rooting')).toContainText('half have roots by');
    await page.getByRole('button', { name: 'Take cuttings' }).click();
    await fill(page, { 'Cuttings taken': '360', Nodes: '1' });
    await expect(sheet(page).getByText('two nodes at least', { exact: false })).toBeVisible();
    await act(page, 'Write it down');
    await expect(sheet(page).getByRole('alert')).toContainText('two nodes');
    await fill(page, { Nodes: '4', Hormone: 'IBA 0.3 %', Medium: 'coarse sand' });
    await act(page, 'Write it down');
    await expect(
      page.getByText('bundles of 25, hormone: IBA 0.3 %, into coarse sand', { exact: false }),
    ).toBeVisible();
    await expect(page.getByText('360 taken since autumn')).toBeVisible();
    await page.getByRole('button', { name: 'Stick them' }).click();
    await expect(sheet(page).getByLabel('Begun from')).toHaveAttribute('data-value', 'cuttings');
    await pick(page, 'Place', /^Bed 8$/);
    await fill(page, { Density: '60', 'Area of bed': '1', Code: 'STICKS', 'Cuttings stuck': '340' });
    await act(page, 'Sow it');
    await expect(page.getByRole('status').getByText('STICKS sown.')).toBeVisible();
    await seedPart(page, 'Coming up');
    await expect(page.getByTestId('rising')).toContainText('STICKS');
  });
  await test.step('make a layer; a ring longer than the branch is refused', async () => {
    await seedPart(page, 'Air layers');
    await page.getByRole('button', { name: 'Make a layer' }).click();
    await pick(page, 'Species', /Small-leaved lime/);
    await fill(page, { 'Tree and branch': 'Lime of this test', Branch: '20', 'Clear length': '30' });
    await sheet(page).getByLabel('Made on').fill('2026-05-10');
    await expect(sheet(page).getByTestId('layer-season')).toContainText('A good time to begin');
    await expect(sheet(page).getByText('longer than the 30 mm')).toBeVisible();
    await fill(page, { 'Clear length': '300' });
    await act(page, 'Write it down');
    await expect(page.getByRole('heading', { name: 'Lime of this test', level: 1 })).toBeVisible();
    await expect(page.getByText('ring 40 mm', { exact: false }).first()).toBeVisible();
    await page.getByRole('button', { name: 'many', exact: true }).click();
    await expect(page.getByTestId('looks')).toContainText('many roots');
    await page.getByRole('button', { name: 'Sever, or give up' }).click();
    await expect(sheet(page).getByLabel('Follow it as a lot of its own')).toBeChecked();
    await fill(page, { Code: 'LIME-POT', 'Height of the plant': '55' });
    await act(page, 'Write it down');
    await expect(page.getByTestId('decision')).toContainText('Severed and potted');
    await page.getByRole('link', { name: 'LIME-POT' }).click();
    await expect(page.getByRole('heading', { name: 'LIME-POT', level: 1 })).toBeVisible();
    await expect(page.getByTestId('records')).toContainText('height 55');
    await page.goBack();
    await expect(page.getByTestId('takes')).toContainText(/from your \d+ and the starting value/);
  });
});

test('the southern nursery has its seed seasons half a year on, and nothing of the other’s', async ({
  page,
  own,
}) => {
  await speaking(page, 'en-GB');
  await signIn(page, own, 'nahuel@piedraclara.example');
  await seedPart(page, 'Store');
  await expect(page.getByTestId('seed-lots')).toContainText('S-NPU-01');
  await expect(page.getByTestId('seed-lots')).not.toContainText('Blackthorn');
  await receive(page, { Code: 'S-SUR', 'Received on': '2026-04-10', Mass: '100' }, 'Lenga, ');
  await page.getByRole('button', { name: 'Test', exact: true }).click();
  await fill(page, { 'Seeds tried': '50', Germinated: '31' });
  await sheet(page).getByLabel('Day', { exact: true }).fill('2026-05-10');
  await act(page, 'Record the test');
  await expect(page.getByTestId('seed-tests')).toContainText('31 of 50');
  // A spring sowing there is in September: its cold begins in the southern winter.
  await seedPart(page, 'Dormancy');
  await choose(page.getByLabel('Species', { exact: true }), 'Lenga');
  await page.getByLabel('To be sown on').fill('2027-09-20');
  await choose(page.getByLabel('Where', { exact: true }), 'outdoors');
  await expect(page.getByTestId('begin')).toContainText(/(Apr|May|Jun|Jul|Aug) 2027/);
  // November is spring: a good time for a layer.
  await seedPart(page, 'Air layers');
  await page.getByRole('button', { name: 'Make a layer' }).click();
  await pick(page, 'Species', /Ñire/);
  await expect(sheet(page).getByTestId('layer-season')).toContainText('A good time to begin');
  await expect(sheet(page).getByTestId('layer-season')).toContainText(
    /sever by \w+ \d+ (Jan|Feb|Mar|Apr) 2027/,
  );
});

test('what is wrong is said in a sentence, and what was typed stays', async ({ page, own, expected }) => {
  // Refusals are answers of the server that the browser notes by itself.
  expected.faults.push(/422|409/);
  await signIn(page, own, 'isla@withybeck.example');
  await seedPart(page, 'Store');
  await page.getByRole('link', { name: 'Receive seed' }).click();
  await pick(page, 'Species', /Rowan, /);
  await fill(page, { Mass: '100', Seeds: '12' });
  await act(page, 'Receive it');
  await expect(sheet(page).getByRole('alert')).toContainText(
    'Check the mass, the count or the seeds a kilogram.',
  );
  await expect(sheet(page).getByLabel('Mass')).toHaveValue('100');
  // A reload in the middle keeps it.
  await page.reload();
  await expect(sheet(page).getByLabel('Mass')).toHaveValue('100');
  await page.keyboard.press('Escape');

  await page.getByTestId('seed-lots').getByText('S-PSY-01').click();
  await expect(page.getByRole('heading', { name: 'Scots pine', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'Test', exact: true }).click();
  await fill(page, { 'Seeds tried': '20', Germinated: '25' });
  await act(page, 'Record the test');
  await expect(sheet(page).getByRole('alert')).toContainText('25 of 20');
  await fill(page, { Germinated: '15' });
  await sheet(page).getByLabel('Day', { exact: true }).fill('2020-01-01');
  await act(page, 'Record the test');
  await expect(sheet(page).getByRole('alert')).toContainText('before the seed was collected');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Take out or weigh' }).click();
  await fill(page, { Mass: '900' });
  await act(page, 'Write it down');
  await expect(sheet(page).getByRole('alert')).toContainText('S-PSY-01 holds');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Treat', exact: true }).click();
  await act(page, 'Add a phase');
  await fill(page, { 'Mass 1': '10', 'Days 1': '0' });
  await act(page, 'Begin');
  await expect(sheet(page).getByRole('alert')).toContainText('longer than zero days');
  await page.keyboard.press('Escape');

  // A batch that is not ready may be sown, at a cost that is stated.
  await seedPart(page, 'Dormancy');
  await page.getByTestId('batches').getByText('Warm, then cold').click();
  await expect(page.getByRole('heading', { name: 'Warm, then cold', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: 'Sow it' }).click();
  await expect(page.getByTestId('not-ready')).toContainText('is not ready');

  // A file with a bad line: the good ones can be taken, the bad one is named.
  await seedPart(page, 'Store');
  await page.getByRole('button', { name: 'Import, export' }).click();
  const csv = [
    'code,latin,received_on,grams',
    'F-1,Sorbus aucuparia,2026-10-01,50',
    'F-2,Sorbus aucuparia,2026-10-01,nought',
    'F-3,Nomen nescio,2026-10-01,5',
  ].join('\n');
  await sheet(page)
    .getByLabel('A table in either of those column sets')
    .setInputFiles({ name: 'seed.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(sheet(page).getByTestId('table-faults')).toContainText(
    'Line 3: grams: “nought” is not a number.',
  );
  await expect(sheet(page).getByTestId('table-faults')).toContainText(
    'Line 4: Nomen nescio is not in your species list',
  );
  await act(page, 'Take 1 seed lot');
  await expect(page.getByTestId('seed-lots')).toContainText('F-1');
});

test('seed lots go out as passports and come in again; species come from the library', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example');
  await seedPart(page, 'Store');
  await page.getByRole('button', { name: 'Import, export' }).click();
  const download = page.waitForEvent('download');
  await saveTable(sheet(page).getByRole('button', { name: 'Passport descriptors (MCPD)' }));
  const text = await readFile(await (await download).path(), 'utf8');
  const [header, ...lines] = text.split(/\r?\n/);
  expect(header.split(',').slice(0, 3)).toEqual(['PUID', 'INSTCODE', 'ACCENUMB']);
  expect(lines.filter(Boolean)).toHaveLength(13);
  await page.keyboard.press('Escape');
  await seedPart(page, 'Species');
  await page.getByLabel('Find a species').fill('olive');
  await page.getByRole('button', { name: 'Take Olive into your list' }).click();
  await expect(page.getByTestId('own-species')).toContainText('Olea europaea');
  // Its own figure, kept without a button and there after a reload.
  await page.getByTestId('own-species').getByText('Olive').click();
  await expect(page.getByRole('heading', { name: 'Olive', level: 1 })).toBeVisible();
  await page.getByLabel('Seeds a kilogram').fill('2300');
  await page.getByLabel('Seeds a kilogram').press('Enter');
  await expect(page.getByRole('status').getByText('Olive kept.')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Seeds a kilogram')).toHaveValue('2300');
});

test('two tabs change one bag: the later is told before it saves over the earlier', async ({
  page,
  context,
  own,
  expected,
}) => {
  expected.faults.push(/409/);
  await signIn(page, own, 'isla@withybeck.example');
  const other = await context.newPage();
  for (const [tab, note] of [
    [page, 'from the first tab'],
    [other, 'from the second tab'],
  ] as const) {
    await tab.goto(`${own.url}/seed`);
    await tab.getByTestId('seed-lots').getByText('S-ACA-01').click();
    await expect(tab.getByRole('heading', { name: 'Field maple', level: 1 })).toBeVisible();
    await tab.getByRole('button', { name: 'Change', exact: true }).click();
    await fill(tab, { Note: note });
  }
  await act(page, 'Save');
  await expect(sheet(page)).toHaveCount(0);
  await act(other, 'Save');
  await expect(sheet(other).getByRole('alert')).toContainText('Someone changed this meanwhile');
  await expect(sheet(other).getByRole('textbox', { name: 'Note' })).toHaveValue('from the second tab');
  await expect(sheet(other).getByTestId('theirs')).toContainText('note “from the first tab”');
  await act(other, 'Save');
  await expect(other.getByText('from the second tab')).toBeVisible();
  // What only one of them changed stays, and nobody is asked.
  for (const [tab, field, value] of [
    [page, 'Seed zone', 'N 12'],
    [other, 'Collected by', 'Tam'],
  ] as const) {
    await tab.goto(`${own.url}/seed`);
    await tab.getByTestId('seed-lots').getByText('S-ACA-01').click();
    await tab.getByRole('button', { name: 'Change', exact: true }).click();
    await fill(tab, { [field]: value });
  }
  await act(page, 'Save');
  await expect(sheet(page)).toHaveCount(0);
  await act(other, 'Save');
  await expect(sheet(other)).toHaveCount(0);
  await other.getByRole('button', { name: 'Change', exact: true }).click();
  await expect(sheet(other).getByLabel('Seed zone')).toHaveValue('N 12');
  await expect(sheet(other).getByLabel('Collected by')).toHaveValue('Tam');
  // Coming back, the first tab shows what stands.
  await page.reload();
  await expect(page.getByText('from the second tab')).toBeVisible();
});

test('by keyboard alone: receive a bag, test it, and back through what was looked at', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example');
  await page.keyboard.press('3');
  await expect(page.getByTestId('seed-lots')).toBeVisible();
  const tabTo = async (target: Locator) => {
    for (let i = 0; i < 90; i++) {
      if (await target.evaluate((el) => el === document.activeElement)) return;
      await page.keyboard.press('Tab');
    }
    throw new Error('It cannot be reached by Tab.');
  };
  await tabTo(page.getByRole('link', { name: 'Receive seed' }));
  await page.keyboard.press('Enter');
  await expect(sheet(page).getByLabel('Species', { exact: true })).toBeFocused();
  await page.keyboard.type('Rowan');
  await tabTo(sheet(page).getByRole('textbox', { name: 'Mass' }));
  await page.keyboard.type('50');
  await tabTo(sheet(page).getByRole('textbox', { name: 'Code' }));
  await page.keyboard.type('S-KEYS');
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toHaveCount(0);
  await expect(page.getByTestId('seed-lots')).toContainText('S-KEYS');
  // A sheet that is closed gives the keys back to what opened it.
  const test = page.getByRole('button', { name: 'Test', exact: true });
  await tabTo(test);
  await page.keyboard.press('Enter');
  await expect(sheet(page).getByLabel('Seeds tried')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toHaveCount(0);
  await expect(test).toBeFocused();
  await page.keyboard.press('Enter');
  await tabTo(sheet(page).getByRole('textbox', { name: 'Germinated' }));
  await page.keyboard.type('31');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('seed-tests')).toContainText('31 of 50');
  // Another bag, and back by the browser.
  await tabTo(page.getByTestId('seed-lots').getByRole('link', { name: /S-PSY-01/ }));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Scots pine', level: 1 })).toBeVisible();
  await page.goBack();
  await expect(page.getByTestId('seed-tests')).toContainText('31 of 50');
});

test('a past date shows the seed room as it was known', async ({ page, demo }) => {
  await signIn(page, demo, 'isla@withybeck.example');
  await seedPart(page, 'Dormancy');
  await expect(page.getByTestId('batches')).toContainText('sow at once');
  const alarm = page.getByTestId('batches').getByRole('listitem').filter({ hasText: 'Fridge' });
  // A week ago nobody had seen a radicle.
  await page.keyboard.press('[');
  await expect(alarm).not.toContainText('sow at once');
  await page.keyboard.press('.');
  await expect(alarm).toContainText('sow at once');
  // Before it went in, it is not there.
  await lookAt(page, dayOf('2026-07-01'));
  await expect(alarm).toHaveCount(0);
});

test('a flat is pricked out by size into cells', async ({ page, own, expected }) => {
  expected.faults.push(/409/);
  await signIn(page, own, 'tam@withybeck.example');
  await seedPart(page, 'Coming up');
  await page.getByTestId('rising').getByText('26-BPE-10', { exact: true }).click();
  await expect(page.getByRole('heading', { name: '26-BPE-10', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'Prick out' }).click();
  await fill(page, { 'Seedlings 1': '60', 'Seedlings 2': '9000' });
  await act(page, 'Prick out');
  await expect(sheet(page).getByRole('alert')).toContainText('9060 to prick out');
  await fill(page, { 'Seedlings 2': '40' });
  await act(page, 'Prick out');
  await expect(page.getByRole('status').getByText('100 pricked out into 2 lots.')).toBeVisible();
  await expect(page.getByText('Pricked out of 26-BPE-10: large.')).toBeVisible();
  const child = await page.getByRole('heading', { level: 1 }).innerText();
  await openLot(page, '26-BPE-10');
  await page.getByRole('tab', { name: 'Ledger' }).click();
  await expect(page.getByText('pricked out into cells').first()).toBeVisible();
  // Taken back, the lots that came of it are gone at once, and the flat holds its seedlings again.
  const born = page.getByTestId('lots').getByText(child, { exact: true });
  await expect(born).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByText('Taken back: 100 pricked out into 2 lots.')).toBeVisible();
  await expect(born).toHaveCount(0);
  await expect(page.getByRole('heading', { name: '26-BPE-10', level: 1 })).toBeVisible();
});

test('a visitor sees the seed room and is offered nothing to change', async ({ page, demo }) => {
  await signIn(page, demo, 'wren@withybeck.example');
  for (const part of ['Store', 'Dormancy', 'Coming up', 'Cuttings', 'Air layers']) {
    await seedPart(page, part);
    await expect(page.locator('main').getByRole('heading', { level: 1 })).toBeVisible();
    await expect(
      page
        .locator('main')
        .getByRole('button', {
          name: /^(Test|Take|Treat|Look for|End|Count|Prick|Write off|Keep another|Add a stock|Make a layer|Sever|many|few)/,
        })
        // What is looked at may be chosen.
        .and(page.locator(':not([aria-haspopup])')),
    ).toHaveCount(0);
    await expect(page.locator('main').getByRole('link', { name: /Receive seed|^Sow$|^Sow it/ })).toHaveCount(
      0,
    );
  }
});

test.describe('refused rows', () => {
  test.use({ expected: { faults: [/422/] } });
  test('that were pasted into seed stay there', async ({ page, own }) => {
    await signIn(page, own, 'isla@withybeck.example');
    await seedPart(page, 'Store');
    await page.getByRole('button', { name: 'Import, export' }).click();
    const pasted = sheet(page).getByLabel('Or lines pasted, with their headings');
    await pasted.fill('code,latin,received_on,grams\nP-1,Sorbus aucuparia,2026-10-01,50');
    // Somebody else took the code meanwhile, and this page has not heard of it.
    const refusal = {
      type: '/problems/invalid',
      title: 't',
      status: 422,
      detail: 'There is a seed lot P-1 already.',
    };
    await page.route('**/seed-lots/import', (route) =>
      route.fulfill({ status: 422, contentType: 'application/problem+json', body: JSON.stringify(refusal) }),
    );
    await act(page, 'Take 1 seed lot');
    await expect(sheet(page).getByRole('alert')).toContainText('P-1 already');
    await expect(pasted).toHaveValue(/P-1/);
  });
});
