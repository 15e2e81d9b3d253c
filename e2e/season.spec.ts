import { dayOf, isoOf } from '@kauri/core';
import type { BodyInputOf } from '@kauri/core/contract';
import type { Page } from '@playwright/test';
import { v7 as newId } from 'uuid';
import {
  act,
  bedAt,
  benchAt,
  choose,
  expect,
  fill,
  type Kauri,
  openLot,
  seedPart,
  sheet,
  signIn,
  station,
  stationTable,
  test,
  write,
  yardPart,
} from './kauri';

/*
 * A season on three lots of alder, in a bed, in small cells and in large pots: from a bag of seed to a verdict on the roots, day
 * after day as they come, each step told by Today before it was too late; then the bed lot is lifted, sent, planted and walked
 * a year on, and every one of its trees is found.
 */
const OWNER = { email: 'rowan@testing.example', password: 'a long password' };

async function setUp(page: Page, kauri: Kauri): Promise<string> {
  const nursery = newId();
  await write(
    page,
    kauri,
    'setup',
    {},
    {
      nursery: {
        id: nursery,
        name: 'Season Yard',
        placeName: 'Somewhere',
        latitudeDeg: 54.6,
        longitudeDeg: -2.4,
        elevationM: 185,
        timeZone: 'Europe/London',
        units: 'metric',
      },
      person: { id: newId(), name: 'Rowan', ...OWNER },
    },
  );
  const catalogue = await (await page.request.get(`${kauri.url}/api/nurseries/${nursery}/catalogue`)).json();
  const at = { nursery };
  const bed = newId();
  const bench = newId();
  await write(page, kauri, 'addPlace', at, { id: bed, place: bedAt('Bed', 0, 300) });
  await write(page, kauri, 'addPlace', at, { id: bench, place: benchAt('Bench', 5, 4000) });
  const speciesId = catalogue.species.find((s: { code: string }) => s.code === 'ALN').id;
  const container = (name: string) =>
    catalogue.containers.find((c: { values: { name: string } }) => c.values.name === name).id;
  const table = stationTable(10).split('\n');
  // What the station wrote up to sowing; later days come from the station itself.
  const before = table.filter(
    (line, i) => i === 0 || line.split(';')[2].split('/').reverse().join('-') < '2026-04-10',
  );
  const query = 'check=false&dateOrder=day-first&date=2&tMin=3&tMax=1&rain=0&temperature=F&rainUnit=in';
  const imported = await page.request.post(`${kauri.url}/api/nurseries/${nursery}/weather/import?${query}`, {
    data: before.join('\n'),
    headers: { origin: kauri.url, 'content-type': 'text/csv' },
  });
  expect(await imported.text()).toContain('"stored":true');
  const bag = newId();
  await write(page, kauri, 'receiveSeed', at, {
    id: bag,
    code: 'S-BAG',
    speciesId,
    collectedOn: '2025-10-20',
    receivedOn: '2026-02-01',
    seedsPerKg: 770_000,
    moisturePct: null,
    store: 'fridge',
    storeTempC: 3,
    price: null,
    provenance: {
      place: 'Beck wood',
      latitudeDeg: null,
      longitudeDeg: null,
      altitudeM: null,
      zone: '',
      collector: '',
      parents: null,
    },
    note: '',
    grams: 10,
    seeds: null,
  });
  await write(page, kauri, 'addOrders', at, {
    id: newId(),
    orders: [
      {
        id: newId(),
        buyer: 'Beck school',
        reach: '',
        note: '',
        lines: [
          {
            id: newId(),
            speciesId,
            provenance: '',
            form: 'bare-root',
            fromCm: 30,
            toCm: 60,
            count: 80,
            sent: 0,
            on: '2026-12-15',
            until: '2027-02-28',
            goesTo: '',
            price: null,
            state: 'promised',
          },
        ],
      },
    ],
  });
  const sow = (code: string, seeds: number, targetHeightCm: number, stage: BodyInputOf<'sowLot'>['stage']) =>
    write(page, kauri, 'sowLot', at, {
      id: newId(),
      seedLotId: code === 'BED' ? bag : null,
      code,
      speciesId,
      sownOn: '2026-04-10',
      seedState: 'ready',
      targetHeightCm,
      seeds,
      stage,
    });
  await sow('BED', 400, 45, { kind: 'bed', id: newId(), placeId: bed, densityPerM2: 200, areaM2: 1 });
  await sow('CELL', 260, 25, {
    kind: 'container',
    id: newId(),
    placeId: bench,
    containerTypeId: container('Tube 110 mL, racked'),
    trays: 3,
  });
  await sow('POT', 120, 40, {
    kind: 'container',
    id: newId(),
    placeId: bench,
    containerTypeId: container('Ribbed vented pot 2 L'),
    trays: 10,
  });
  return nursery;
}

test('a season on three lots, each step told before it was too late', async ({ page, empty, expected }) => {
  test.slow();
  // The server goes and comes back with every new day; what it refuses is part of the season.
  expected.faults.push(/ERR_CONNECTION|Failed to fetch|409|422|Failed to load resource/);
  await empty.stop();
  await empty.startAgain('2026-04-10');
  await setUp(page, empty);

  /** Goes on to a day: the server starts on it, and the grower opens Today. */
  const dayComes = async (iso: string) => {
    await page.goto('about:blank');
    await empty.stop();
    await empty.startAgain(iso);
    await signIn(page, empty, OWNER.email, '/', OWNER.password);
    await station(page, 'Today');
    await expect(page.getByRole('heading', { name: /^Today/, level: 1 })).toBeVisible();
  };
  const asked = (title: RegExp) => page.getByTestId('lot-act').filter({ hasText: title });
  /** Sums of the measured heights typed so far, so that each sample fits what the model grew. */
  const measure = async (code: string, heights: readonly number[]) => {
    await openLot(page, code);
    await page.keyboard.press('m');
    await expect(sheet(page).getByTestId('sample-plan')).toBeVisible();
    const input = sheet(page).getByLabel(/of plant/);
    for (const height of heights) {
      await input.fill(String(height));
      await input.press('Enter');
    }
    await act(page, `Keep ${heights.length} plants`);
    await expect(page.getByTestId('records')).toContainText('height');
  };

  await test.step('weather comes in from a station', async () => {
    await dayComes('2026-05-10');
    await yardPart(page, 'Weather');
    await page.getByRole('button', { name: 'Add a station' }).click();
    await page.getByLabel('Its name').fill('On the shed');
    await page.getByRole('button', { name: 'Add it' }).click();
    await page.getByRole('button', { name: 'Read them now' }).click();
    await expect(page.getByTestId('stations')).toContainText('Read up to 9 May 2026');
    await expect(page.getByTestId('season-warmth')).toContainText('°C·d');
  });

  await test.step('they are counted as they come up', async () => {
    await dayComes('2026-05-18');
    for (const [code, up] of [
      ['BED', '190'],
      ['CELL', '120'],
      ['POT', '76'],
    ]) {
      await station(page, 'Today');
      await expect(asked(new RegExp(`Count ${code}`))).toBeVisible();
      await openLot(page, code);
      await page.keyboard.press('c');
      await sheet(page)
        .getByLabel(/standing|counted/i)
        .first()
        .fill(up);
      await sheet(page).getByRole('button', { name: /Keep/ }).click();
      await expect(page.getByTestId('records')).toContainText(`${up} standing`);
    }
  });

  await test.step('inoculum falls due two weeks on, and is done once for each', async () => {
    await dayComes('2026-06-02');
    await expect(asked(/Water nodule inoculum on/)).toHaveCount(3);
    for (const code of ['BED', 'CELL', 'POT']) {
      await openLot(page, code);
      await page.keyboard.press('w');
      await sheet(page).getByText('Inoculate', { exact: true }).click();
      await expect(sheet(page)).toContainText('g of nodules in');
      await act(page, 'Write it down');
      await expect(page.getByTestId('records')).toContainText('nodule inoculum watered on');
    }
    await station(page, 'Today');
    await expect(asked(/Water nodule inoculum on/)).toHaveCount(0);
  });

  await test.step('measure runs sharpen heights; a slip of the hand is asked about', async () => {
    await dayComes('2026-06-20');
    await openLot(page, 'CELL');
    await page.keyboard.press('m');
    const input = sheet(page).getByLabel(/of plant/);
    for (const height of [8, 7, 9, 8.5, 7.5, 80]) {
      await input.fill(String(height));
      await input.press('Enter');
    }
    await expect(sheet(page).getByTestId('asking')).toContainText('far from the others');
    await act(page, 'Type it anew');
    for (const height of [8, 9.5, 6.5, 8, 7]) {
      await input.fill(String(height));
      await input.press('Enter');
    }
    await expect(sheet(page).getByTestId('enough')).toBeVisible();
    await act(page, 'Keep 10 plants');
    await measure('BED', [9, 10, 8, 11, 9, 8, 12, 9]);
    await measure('POT', [10, 11, 9, 12, 10, 9, 11, 12]);
  });

  await test.step('spreading is told before leaves meet, and done', async () => {
    await station(page, 'Today');
    await expect(asked(/Spread CELL/)).toBeVisible();
    await openLot(page, 'CELL');
    const meet = page.getByTestId('odds').getByRole('row', { name: /Leaves meet/ });
    await page.getByTestId('what-if-open').click();
    await expect(sheet(page).getByTestId('gained')).toContainText('days later');
    await page.keyboard.press('Escape');
    await page.keyboard.press('w');
    await sheet(page).getByText('Spread', { exact: true }).click();
    await act(page, 'Write it down');
    await expect(meet).toContainText('set apart, 2 × the room');
    await station(page, 'Today');
    await expect(asked(/Spread CELL/)).toHaveCount(0);
  });

  let firstHold = '';
  await test.step('windows move with the evidence of pulled plugs', async () => {
    await dayComes('2026-08-04');
    await openLot(page, 'CELL');
    const bound = page.getByTestId('odds').getByRole('row', { name: /Root-bound/ });
    firstHold = (await bound.getByRole('cell').nth(1).textContent()) ?? '';
    await page.keyboard.press('r');
    for (const score of ['3', '3', '2', '3']) await page.keyboard.press(score);
    await act(page, 'Keep the scores');
    await expect(page.getByTestId('records')).toContainText('3 tight, 3 tight');
    await expect(bound.getByRole('cell').nth(1)).not.toHaveText(firstHold);
  });

  await test.step('Today asks for the small cells to be moved while they can still wait', async () => {
    await station(page, 'Today');
    await expect(asked(/Move CELL on/)).toBeVisible();
    await openLot(page, 'CELL');
    await page.keyboard.press('s');
    await choose(sheet(page).getByLabel('Container'), 'Ribbed vented pot 2 L');
    await expect(sheet(page).getByTestId('bought')).toBeVisible();
    await fill(page, { Trays: '16', 'Lost in moving': '2' });
    await act(page, 'Move it on');
    await expect(page.getByTestId('records')).toContainText('moved on');
    await station(page, 'Today');
    await expect(asked(/Move CELL on/)).toHaveCount(0);
  });

  await test.step('the bed reaches its lid, and is told in time', async () => {
    await measure('BED', [24, 26, 22, 28, 25, 23, 27, 24]);
    await station(page, 'Today');
    const lid = asked(/Raise the lid over BED/);
    await expect(lid).toBeVisible();
    await lid.getByRole('button', { name: /^Done/ }).click();
    await sheet(page)
      .getByLabel(/Time it took/)
      .fill('25');
    await act(page, 'Done');
    await expect(asked(/Raise the lid over BED/)).toHaveCount(0);
    await page.getByRole('button', { name: /done or skipped/ }).click();
    await expect(page.getByTestId('hidden-acts')).toContainText('Raise the lid over BED');
  });

  const look = async (code: string, good: boolean, n: number) => {
    await station(page, 'Roots');
    await page.getByTestId('root-lots').getByText(code, { exact: true }).click();
    await expect(page.getByRole('heading', { name: code, level: 1 })).toBeVisible();
    for (let i = 0; i < n; i++) {
      await page.keyboard.press('r');
      await sheet(page).getByText('At a glance', { exact: true }).click();
      if (!good) {
        await sheet(page).getByText('one-sided', { exact: true }).click();
        await sheet(page).getByText('mostly turned', { exact: true }).click();
        await sheet(page).getByText('matted', { exact: true }).click();
      }
      await act(page, 'Keep the plant');
      await expect(page.getByTestId('rosette-form')).toHaveCount(0);
      await expect(sheet(page)).toHaveCount(0);
    }
  };
  await test.step('roots are pulled to an accept and to a reject', async () => {
    await dayComes('2026-11-12');
    await look('POT', true, 9);
    await expect(page.getByTestId('decision')).toContainText('Accept');
    await look('CELL', false, 3);
    await expect(page.getByTestId('decision')).toContainText('Reject');
    await station(page, 'Today');
    await expect(
      page.getByTestId('roots-act').filter({ hasText: 'Deal with the roots of CELL' }),
    ).toBeVisible();
    await expect(page.getByTestId('roots-act').filter({ hasText: 'POT' })).toHaveCount(0);
  });

  await test.step('the bed is lifted in its window, which Today has named', async () => {
    await dayComes('2026-12-20');
    const lift = asked(/Lift BED/);
    await expect(lift).toBeVisible();
    const by = await lift.textContent();
    expect(by).toMatch(/Best before \d+ \w+/);
    expect(isoOf(dayOf('2026-12-20'))).toBe('2026-12-20');
    await yardPart(page, 'Weather');
    await page.getByRole('button', { name: 'Read them now' }).click();
    await expect(page.getByTestId('stations')).toContainText('Read up to 19 Dec 2026');
  });

  await test.step('lifted in two sizes and some culled, they lie where they were put', async () => {
    await station(page, 'Lift');
    await page.getByTestId('lots').getByText('BED', { exact: true }).click();
    await expect(page.getByTestId('left')).toContainText('190');
    await page.getByLabel('Lifted, good').fill('120');
    await page
      .getByLabel(/^Grade/)
      .first()
      .fill('30–60');
    await page.getByRole('button', { name: 'Another grade' }).click();
    await page.getByLabel('Lifted, good').nth(1).fill('55');
    await page.getByLabel('Grade 2').fill('under 30');
    await page.getByLabel('Culled', { exact: true }).fill('15');
    await page.getByLabel('They lie in').fill('Sand box');
    await page.getByRole('button', { name: 'Keep the lift' }).click();
    await page.getByRole('link', { name: '175 still here' }).click();
  });

  await test.step('part of the order is sent, and two come back', async () => {
    const taller = page.getByTestId('lying-Sand box').getByRole('listitem').filter({ hasText: '30–60' });
    await taller.getByRole('button', { name: 'Send' }).click();
    await choose(sheet(page).getByLabel('For', { exact: true }), /Beck school: 80/);
    await sheet(page).getByLabel('BED, 30–60 cm').fill('70');
    await act(page, 'Send them');
    await expect(sheet(page)).toHaveCount(0);
    await page.reload();
    await page.getByRole('button', { name: 'Came back …' }).click();
    await sheet(page).getByLabel('Came back').fill('2');
    await sheet(page).getByLabel('Dead of them').fill('2');
    await act(page, 'Write it down');
    await expect(sheet(page)).toHaveCount(0);
  });

  await test.step('the rest is planted', async () => {
    await station(page, 'Planted');
    await page.getByRole('link', { name: 'Add a planting' }).click();
    await fill(page, {
      Name: 'Beck side',
      Rows: '5',
      'Trees a row': '10',
      'Between rows': '2',
      'Between trees': '2',
    });
    await act(page, 'Keep it');
    await page.getByRole('button', { name: 'Plant trees here' }).click();
    await sheet(page).getByLabel('BED, 30–60 cm').fill('50');
    await act(page, 'Planted');
    await expect(page.getByTestId('planted-parts')).toContainText('Common alder');
  });

  await test.step('a year on it is walked, and the desk reads differently for it', async () => {
    await dayComes('2027-10-05');
    await station(page, 'Planted');
    await page.getByTestId('plantings').getByText('Beck side').click();
    await page.getByRole('button', { name: 'Walk it' }).click();
    await act(page, 'Begin');
    await expect(page.getByTestId('tree')).toHaveText('Row 1, tree 1');
    for (let tree = 0; tree < 50; tree++) await page.keyboard.press(tree % 10 === 9 ? 'm' : 'a');
    await expect(page.getByText('Every tree was looked at.')).toBeVisible();
    await page.getByRole('button', { name: 'End the walk' }).click();
    await expect(page.getByTestId('living')).toContainText('45 of 50 trees alive');
    await seedPart(page, 'Desk');
    await choose(page.getByLabel('Species', { exact: true }), /Common alder/);
    await expect(page.locator('main')).toContainText(/Of yours \d+\s% to \d+\s% live once planted/);
  });

  await test.step('every tree of it is found', async () => {
    // Nothing of it stands any more: it is found by where it was planted.
    await station(page, 'Planted');
    await page.getByTestId('plantings').getByText('Beck side').click();
    await page.getByTestId('planted-parts').getByRole('link', { name: 'BED' }).click();
    await page.getByRole('tab', { name: 'Ledger' }).click();
    await expect(page.getByTestId('balances')).toContainText('Beck side: 45 of 50 alive');
    await expect(page.getByTestId('balances')).toContainText('Sown, all accounted for');
  });
});
