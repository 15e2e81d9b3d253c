import { readFile } from 'node:fs/promises';
import { dayOf } from '@kauri/core';
import {
  act,
  choose,
  expect,
  lookAt,
  openLot,
  saveTable,
  setUp,
  sheet,
  signIn,
  station,
  test,
} from './kauri';

test.use({ expected: { faults: [/409|422/] } });

test('the yard shows what stood at the ribbon’s date', async ({ isla: page }) => {
  await station(page, 'Yard');
  await page.getByTestId('places').getByText('Bench 1', { exact: true }).click();
  await expect(page.getByTestId('places')).toContainText('6 lots');
  await lookAt(page, dayOf('2026-03-15'));
  await expect(page.locator('main')).toContainText('Nothing at this date.');
  await expect(page.getByTestId('decision')).toContainText('Empty: all of it is free');
  await page.keyboard.press('.');
  await expect(page.getByTestId('decision')).toContainText('Room left');
});

test('a bed is changed, in US units too, and its answers follow', async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example');
  await station(page, 'Yard');
  await page.getByTestId('places').getByText('Bed 6, shallow trial', { exact: true }).click();
  await expect(page.getByTestId('decision')).toContainText('Raise it: a gap of 40');
  await page.getByRole('link', { name: 'Edit' }).click();
  await sheet(page).getByLabel('Air gap').fill('60');
  await sheet(page).getByRole('button', { name: 'A tier or riser on top' }).click();
  await sheet(page).getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('status').getByText('Bed 6, shallow trial kept.')).toBeVisible();
  await expect(page.getByTestId('decision')).not.toContainText('Raise it');
  await expect(page.getByTestId('bed-figures')).toContainText('290\u00a0mm');

  // Opened and saved in inches without a change, it stays to the millimetre what it was.
  await page.getByRole('button', { name: /Units: metric/ }).click();
  await expect(page.getByTestId('bed-figures')).toContainText('11.4\u00a0in');
  await page.getByRole('link', { name: 'Edit' }).click();
  await sheet(page).getByRole('button', { name: 'Save' }).click();
  await expect(sheet(page)).toHaveCount(0);
  const { rows } = await own.database.query(
    `select design->>'lengthMm' as length, version from place where name = 'Bed 6, shallow trial'`,
  );
  expect(rows).toEqual([{ length: '2400', version: 3 }]);
});

test('a bed that cannot be built says why while it is typed', async ({ isla: page }) => {
  await station(page, 'Yard');
  await page.getByRole('link', { name: 'Add bed' }).click();
  const form = sheet(page);
  await form.getByTestId('bed-more').click();
  await form.getByLabel('Filled to below the rim').fill('900');
  await expect(form).toContainText('Filled that far below the rim, the bed holds no medium.');
  await form.getByLabel('Filled to below the rim').fill('30');
  await form.getByRole('textbox', { name: /^Width/ }).fill('wide');
  await expect(form).toContainText('nothing is left inside');
  await form.getByRole('textbox', { name: /^Width/ }).fill('1200');
  await choose(form.getByLabel('Stands on'), 'Weedy ground');
  await expect(form).toContainText('The gap is too small over this ground: 250\u00a0mm are needed');
  await form.getByRole('textbox', { name: 'East' }).fill('6');
  await form.getByRole('textbox', { name: 'North' }).fill('20');
  await expect(form).toContainText(/and Bed 7 stand on the same ground\./);
  // What was typed is there again when the sheet is opened anew.
  await page.keyboard.press('Escape');
  await expect(form).toHaveCount(0);
  await page.getByRole('link', { name: 'Add bed' }).click();
  await expect(form.getByLabel('Stands on')).toHaveAttribute('data-value', 'weeds');
});

test('a first bed is three fields, and Enter', async ({ page, empty }) => {
  await setUp(page, empty);
  await station(page, 'Yard');
  await page.getByRole('link', { name: 'Add a bed' }).click();
  const form = sheet(page);
  await expect(form.getByLabel('Name', { exact: true })).toHaveValue('Bed 1');
  await expect(form.getByLabel('Filled with')).toBeHidden();
  await form.getByRole('textbox', { name: /^Length/ }).fill('3000');
  await form.getByRole('textbox', { name: /^Width/ }).fill('1000');
  await form.getByRole('textbox', { name: /^Width/ }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Bed 1', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: 'Add bed' }).click();
  await expect(form.getByLabel('Name', { exact: true })).toHaveValue('Bed 2');
});

test('a bed is not called empty before its lots are worked out', async ({ page, demo }) => {
  let letGo!: () => void;
  const released = new Promise<void>((resolve) => (letGo = resolve));
  await page.route('**/forecast.worker*', async (route) => {
    await released;
    await route.continue();
  });
  await signIn(page, demo, 'isla@withybeck.example', '/yard');
  await expect(page.getByRole('status').filter({ hasText: 'Working out the lots' })).toBeVisible();
  await expect(page.getByTestId('places')).toHaveCount(0);
  letGo();
  await expect(page.getByTestId('places')).toContainText('6 lots');
});

test('places come in as a table, all or none, and out as one; what stands already is left as it is', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/yard');
  const places = page.getByTestId('places');
  await expect(places).toBeVisible();
  await page.getByRole('button', { name: 'Tables in and out' }).click();
  const rows = sheet(page).getByLabel('Or lines pasted, with their headings');
  // As a spreadsheet gives them: tabs, a decimal comma, one that stands already, one that makes no sense.
  await rows.fill(
    [
      'Name\tkind\tlength_m\twidth_m\tlike',
      'Long bed\tbed\t6,5\t1,2\tBed 1',
      'Side bench\tbench\t4\t1\t',
      'Bed 1\tbed\t3\t1\t',
      'Odd\tshed\t3\t1\t',
    ].join('\n'),
  );
  await expect(sheet(page).getByRole('status')).toContainText('2 places can be taken, 1 line cannot');
  await expect(sheet(page)).toContainText('they stand already: Bed 1.');
  await expect(sheet(page)).toContainText('Line 5: kind: “shed”');
  await act(page, 'Take 2 places');
  await expect(sheet(page)).toHaveCount(0);
  for (const name of ['Long bed', 'Side bench'])
    await expect(places.getByText(name, { exact: true })).toBeVisible();
  await page.reload();
  await places.getByText('Long bed', { exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Long bed' })).toBeVisible();
  await page.getByRole('button', { name: 'Tables in and out' }).click();
  const saved = page.waitForEvent('download');
  await saveTable(sheet(page).getByRole('button', { name: 'Every place' }));
  const table = await readFile(await (await saved).path(), 'utf8');
  expect(table).toMatch(/Long bed,bed,6\.5,1\.2,/);
  // The same table again adds nothing.
  await rows.fill(table);
  await expect(sheet(page).getByRole('status')).toContainText('0 places can be taken. Nothing');
});

test('a tub that was found is a bed: what it holds and weighs, kept and sown in', async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example');
  await station(page, 'Yard');
  await page.getByRole('link', { name: 'Add bed' }).click();
  const form = sheet(page);
  await form.getByLabel('Name', { exact: true }).fill('Tub 1');
  await form.getByTestId('bed-more').click();
  await form.getByText('A round tub or pot').click();
  // Wider at its floor than at its rim: said while it is typed, and again by the server.
  await form.getByLabel('Across, at the rim').fill('560');
  await form.getByLabel('Across, at the floor').fill('600');
  await expect(form).toContainText('A floor is as large as the rim or smaller');
  await form.getByRole('button', { name: 'Add the bed' }).click();
  await expect(form.getByRole('alert')).toContainText('turn it over');
  await form.getByLabel('Across, at the floor').fill('440');
  await form.getByLabel(/^Height/).fill('380');
  await form.getByLabel('Density asked about').fill('200');
  // 540 mm across inside at the rim, 420 at the floor: a frustum of 350 of its 380 mm.
  const figures = form.getByTestId('bed-figures');
  await expect(figures).toContainText(/Medium to buy, loose\s*62\sL/);
  await expect(figures).toContainText(/Trees at 200\s?\/m²\s*35/);
  await expect(figures).toContainText(/Weight, watered\s*48\skg/);
  await form.getByRole('button', { name: 'Add the bed' }).click();
  await expect(page.getByRole('heading', { name: 'Tub 1', level: 1 })).toBeVisible();
  await expect(page.locator('main')).toContainText(/round tub, 0\.56\sm across/);
  await page.reload();
  await expect(page.getByTestId('places')).toContainText('round tub');
  // A place comes where a person counts it: Bed 2 before Bed 10.
  const names = (await page.getByTestId('places').locator('li').allTextContents()).map((words) =>
    words.slice(0, 6),
  );
  expect(names.indexOf('Bed 2')).toBeLessThan(names.findIndex((name) => name.startsWith('Bed 10')));
  const { rows } = await own.database.query(
    `select design->'found'->>'shape' as shape, design->'tiers' as tiers from place where name = 'Tub 1'`,
  );
  expect(rows).toEqual([{ shape: 'round', tiers: [] }]);
});

test('a whole bed is held or emptied by what its trees are worth, and what else its ground could earn', async ({
  isla: page,
}) => {
  await station(page, 'Yard');
  await page.getByTestId('places').getByText('Bed 1', { exact: true }).click();
  await page.getByTestId('bed-hold-open').click();
  const hold = page.getByTestId('bed-hold');
  await expect(hold.getByTestId('bed-hold-answer')).toContainText('Hold it');
  await expect(hold).toContainText('26-QPE-01');
  await expect(hold).toContainText(/on each 1\sm² of it/);
  await expect(hold).toContainText('Prices are Kauri’s starting values');
  // Another bed's seasons are not shown as this one's.
  await page.getByTestId('places').getByText('Bed 10', { exact: true }).click();
  await expect(page.getByTestId('bed-hold')).toHaveCount(0);
});

test('the find box reaches lots, places and acts, and says when there is none', async ({ isla: page }) => {
  const find = page.getByRole('combobox', { name: /Find/ });
  await find.fill('bench 2');
  await page.getByRole('option', { name: /Bench 2/ }).click();
  await expect(page.getByRole('heading', { name: 'Bench 2', level: 1 })).toBeVisible();
  await find.fill('scots');
  await page.getByRole('option', { name: /26-PSY-04/ }).click();
  await expect(page.getByRole('heading', { name: '26-PSY-04', level: 1 })).toBeVisible();
  await find.fill('zebra');
  await expect(page.getByText('Nothing by that name.')).toBeVisible();
  await find.fill('weather');
  await page.getByRole('option', { name: /Weather: import/ }).click();
  await expect(page.getByRole('heading', { name: 'Records in and out' })).toBeVisible();
});

test('a lot’s journal says who did what, and a record taken back is gone from its records', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'tam@withybeck.example');
  await openLot(page, '26-TCO-01');
  await page.keyboard.press('m');
  await page.keyboard.type('44');
  await page.keyboard.press('Enter');
  await sheet(page).getByRole('button', { name: 'Keep 1 plant' }).click();
  const line = page.getByTestId('records').getByRole('row').filter({ hasText: '44.0' });
  await expect(line).toHaveCount(1);
  await line.getByRole('button', { name: 'Take back' }).click();
  await expect(line).toHaveCount(0);
  await page.getByRole('tab', { name: 'Journal' }).click();
  await expect(page.getByRole('tabpanel')).toContainText('Tam: take back');
  await expect(page.getByRole('tabpanel')).toContainText('Tam: measure');
});

test('Today is listed as one walks, place by place, and stays so', async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example', '/');
  const lines = page.getByTestId('lot-act');
  await expect(page.getByTestId('when-now')).toBeVisible();
  const walk = page.getByTestId('as-one-walks');
  await walk.click();
  const stops = page.getByTestId('stop');
  await expect(stops.first()).toBeVisible();
  // Each stop once, those of the yard before what is nowhere in it.
  const names = await stops.getByRole('heading').allInnerTexts();
  expect(new Set(names).size).toBe(names.length);
  expect(names.findIndex((name) => name.startsWith('Not at a place'))).toBe(names.length - 1);
  const there = await stops.first().getByTestId('work').count();
  expect(there).toBeGreaterThan(0);
  const place = (await stops.first().getByRole('heading').innerText()).split('\n')[0];
  for (const line of await stops.first().getByRole('listitem').all()) await expect(line).toContainText(place);
  await page.reload();
  await expect(stops.first()).toBeVisible();
  await walk.click();
  await expect(page.getByTestId('when-now')).toBeVisible();
  await expect(lines.first()).toBeVisible();
});

test('Today leads to the lot, and changes when the act is done', async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example', '/');
  const act = page.getByRole('link', { name: /Decide on 26-VOP-01/ });
  await act.click();
  await expect(page.getByRole('heading', { name: '26-VOP-01', level: 1 })).toBeVisible();
  await expect(page.getByTestId('decision')).toContainText('Write it off');
  await page.keyboard.press('x');
  await sheet(page).getByRole('button', { name: /^All/ }).click();
  await sheet(page).getByRole('button', { name: 'Write off' }).click();
  await sheet(page)
    .getByRole('button', { name: /^Yes, write off/ })
    .click();
  await expect(page.getByTestId('decision')).toContainText('Nothing stands');
  await station(page, 'Today');
  await expect(page.getByRole('heading', { name: 'Standing' })).toBeVisible();
  await expect(act).toHaveCount(0);
});

test('a lot sown by mistake is taken back, one written down wrong is put right, and the bag follows', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/grow?new=1');
  const sow = async () => {
    await sheet(page).getByLabel('Code').fill('MISTAKE-1');
    await choose(sheet(page).getByLabel('Species'), 'Downy birch, Betula pubescens');
    await choose(sheet(page).getByLabel('Place'), 0);
    await sheet(page).getByLabel('Density').fill('100');
    await sheet(page).getByLabel('Area of bed').fill('0.1');
    await sheet(page).getByLabel('Seeds sown').fill('40');
    await sheet(page).getByRole('button', { name: 'Sow it' }).click();
    await expect(page.getByRole('heading', { name: 'MISTAKE-1', level: 1 })).toBeVisible();
  };
  await sow();
  await page.keyboard.press('u');
  await expect(page.getByText('Taken back: MISTAKE-1 sown.')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'MISTAKE-1', level: 1 })).toHaveCount(0);
  // The same code is free again.
  await page.keyboard.press('n');
  await sow();

  await page.getByRole('button', { name: 'Correct the sowing' }).click();
  await sheet(page).getByLabel('Code').fill('RIGHT-1');
  await sheet(page).getByLabel('Seeds sown').fill('60');
  await sheet(page).getByLabel('Sown on').fill('2026-11-02');
  await sheet(page).getByRole('button', { name: 'Keep it so' }).click();
  await expect(page.getByRole('heading', { name: 'RIGHT-1', level: 1 })).toBeVisible();
  await page.getByRole('tab', { name: 'Ledger' }).click();
  await expect(page.getByTestId('balances')).toContainText('60');
  await page.keyboard.press('u');
  await expect(page.getByRole('heading', { name: 'MISTAKE-1', level: 1 })).toBeVisible();
  await expect(page.getByTestId('balances')).toContainText('40');

  // A day after its first record is refused with a sentence, and nothing typed is lost.
  await page.keyboard.press('c');
  await sheet(page).getByLabel('Seedlings standing now').fill('5');
  await sheet(page).getByRole('button', { name: 'Keep the count' }).click();
  await expect(sheet(page)).toHaveCount(0);
  await page.getByRole('button', { name: 'Correct the sowing' }).click();
  await sheet(page).getByLabel('Seeds sown').fill('4');
  await sheet(page).getByRole('button', { name: 'Keep it so' }).click();
  await expect(sheet(page).getByRole('alert').first()).toContainText('5 of MISTAKE-1 came up or were lost');
  await sheet(page).getByRole('button', { name: 'It was never sown: take the sowing back' }).click();
  await sheet(page).getByRole('button', { name: 'Take it back' }).click();
  await expect(sheet(page).getByRole('alert').first()).toContainText('worked on since it was sown');
  await expect(sheet(page).getByLabel('Seeds sown')).toHaveValue('4');
});
