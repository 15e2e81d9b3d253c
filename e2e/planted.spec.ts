import { choose, expect, saveTable, sheet, signIn, station, test } from './kauri';

// Refusals are part of these, and a network that is gone.
test.use({ expected: { faults: [/409/, /422/, /ERR_INTERNET_DISCONNECTED/] } });

test('lifted trees are planted, walked one by one, counted, and what died is written into Plan', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example');
  await station(page, 'Planted');

  await test.step('a planting in rows', async () => {
    await page.getByRole('link', { name: 'Add a planting' }).click();
    await sheet(page).getByLabel('Name', { exact: true }).fill('Weir bank');
    await sheet(page).getByLabel('Rows', { exact: true }).fill('2');
    await sheet(page).getByLabel('Trees a row').fill('10');
    await sheet(page).getByLabel('Between rows').fill('2');
    await sheet(page).getByLabel('Between trees').fill('1,5');
    await sheet(page).getByRole('button', { name: 'Keep it' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('already a planting with that name');
    await sheet(page).getByLabel('Name', { exact: true }).fill('School hedge');
    await sheet(page).getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByRole('heading', { name: 'School hedge', level: 1 })).toBeVisible();
    await expect(page.getByTestId('decision')).toContainText('Nothing is planted here yet');
  });

  await test.step('no more than its rows hold; what was typed stays', async () => {
    await page.getByRole('button', { name: 'Plant trees here' }).click();
    await sheet(page).getByLabel('25-CBE-01, 30–50 cm').fill('27');
    await sheet(page).getByLabel('Day').fill('2026-11-20');
    await sheet(page).getByLabel('Planted by').fill('The school');
    await sheet(page).getByRole('button', { name: 'Planted', exact: true }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('have 20 places');
    await sheet(page).getByLabel('25-CBE-01, 30–50 cm').fill('12');
    await sheet(page).getByRole('button', { name: 'Planted', exact: true }).click();
    await expect(sheet(page)).toHaveCount(0);
    await expect(page.getByTestId('planted-parts')).toContainText('by The school');
    await page.getByRole('button', { name: 'Undo' }).last().click();
    await expect(page.getByTestId('planted-parts')).toHaveCount(0);
    await page.getByRole('button', { name: 'Plant trees here' }).click();
    await sheet(page).getByLabel('25-CBE-01, 30–50 cm').fill('12');
    await sheet(page).getByLabel('Planted by').fill('The school');
    await sheet(page).getByLabel('Day').fill('2026-11-20');
    await sheet(page).getByRole('button', { name: 'Planted', exact: true }).click();
    await expect(page.getByTestId('planted-parts')).toContainText('Hornbeam');
  });

  await test.step('walked by keys alone, a wrong one taken back, through a reload', async () => {
    await page.getByRole('button', { name: 'Walk it' }).click();
    await sheet(page).getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByTestId('tree')).toHaveText('Row 1, tree 1');
    for (const key of ['a', 'a', 'd', 'Backspace', 'a', 'd', 'l']) await page.keyboard.press(key);
    await expect(page.getByTestId('tree')).toHaveText('Row 1, tree 6');
    await page.keyboard.press('d');
    await page.getByTestId('cause').getByRole('button', { name: 'voles' }).click();
    await expect(page.getByTestId('unsent')).toHaveCount(0);
    await page.reload();
    await expect(page.getByTestId('walked')).toHaveText('6 of 12');
    for (let i = 0; i < 6; i++) await page.keyboard.press('a');
    await expect(page.getByText('Every tree was looked at.')).toBeVisible();
    await page.getByRole('button', { name: 'End the walk' }).click();
    await expect(page.getByTestId('living')).toContainText('10 of 12 trees alive, each looked at');
    await expect(page.getByTestId('walks')).toContainText('9 alive, 1 leader dead, 2 dead: voles 1');
  });

  await test.step('what died stands in its place, and is asked for in Plan', async () => {
    await page.getByText('Where they stood').click();
    await expect(page.getByText('Row 1: trees 4, 6')).toBeVisible();
    await page.getByTestId('replace').getByRole('button', { name: 'Write into Plan' }).click();
    await expect(page.getByTestId('replace')).toContainText('in Plan');
    await station(page, 'Plan');
    await page
      .getByTestId('orders')
      .getByText(/line, \d trees to come/)
      .first()
      .click();
    await expect(page.getByRole('main')).toContainText('School hedge');
  });

  await test.step('a tree found dead is asked about before it lives again', async () => {
    await station(page, 'Planted');
    await page.getByTestId('plantings').getByText('School hedge').click();
    await page.getByRole('button', { name: 'Walk it' }).click();
    await sheet(page).getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByTestId('tree')).toHaveText('Row 1, tree 1');
    for (let i = 0; i < 4; i++) await page.keyboard.press('a');
    await expect(page.getByRole('alertdialog')).toContainText('found dead before');
    await page.getByRole('button', { name: 'It lives' }).click();
    await expect(page.getByTestId('tree')).toHaveText('Row 1, tree 5');
  });

  await test.step('the lot and the comparison know of it', async () => {
    await page.goto(`${own.url}/planted/lived`);
    await choose(page.getByLabel('Compare by'), 'who planted them');
    await expect(page.getByTestId('lived').getByRole('row', { name: /The school/ })).toContainText(
      '10 of 12',
    );
    await page.goto(`${own.url}/planted`);
    for (const [act, name] of [
      ['Plantings as a table', 'plantings-2026-11-24.csv'],
      ['Walks as a table', 'walks-2026-11-24.csv'],
    ]) {
      const download = page.waitForEvent('download');
      await saveTable(page.getByRole('button', { name: act }));
      expect((await download).suggestedFilename()).toBe(name);
    }
    await page.getByTestId('plantings').getByText('School hedge').click();
    await page.getByTestId('planted-parts').getByRole('link', { name: '25-CBE-01' }).click();
    await page.getByRole('tab', { name: 'Ledger' }).click();
    await expect(page.getByTestId('balances')).toContainText('School hedge: 10 of 12 alive');
  });
});

test('a walk goes on without network; whoever begins another is told whose walk it is', async ({
  page,
  own,
  browser,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/planted');
  await page.getByTestId('plantings').getByText('Weir bank').click();
  await expect(page.getByTestId('planting-plan')).toBeVisible();
  const other = await (await browser.newContext({ locale: 'en-GB' })).newPage();
  await signIn(other, own, 'isla@withybeck.example', '/planted');
  await other.getByTestId('plantings').getByText('Weir bank').click();
  for (const one of [page, other]) await one.getByRole('button', { name: 'Walk it' }).click();
  await sheet(page).getByText('a sample').click();
  await sheet(page).getByLabel('To know the share within').fill('10');
  await expect(sheet(page).getByTestId('sample')).toContainText(/trees, drawn by lot/);
  await sheet(page).getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByTestId('walk')).toBeVisible();
  await sheet(other).getByRole('button', { name: 'Begin' }).click();
  await expect(sheet(other).getByRole('alert')).toContainText('Isla is walking Weir bank');
  await other.context().close();

  await page.context().setOffline(true);
  for (const state of ['dying', 'missing', 'dying']) {
    const before = await page.getByTestId('walked').textContent();
    await page.getByRole('button', { name: new RegExp(`^${state}`) }).click();
    const asked = page.getByRole('button', { name: 'It lives' });
    await expect(asked.or(page.getByTestId('walked').filter({ hasNotText: before! })).first()).toBeVisible();
    if (await asked.isVisible()) await asked.click();
  }
  await expect(page.getByTestId('unsent')).toContainText('3 marks kept here');
  await page.context().setOffline(false);
  await expect(page.getByTestId('unsent')).toHaveCount(0);
  await page.getByRole('button', { name: 'End the walk here' }).click();
  await expect(page.getByTestId('walks').getByRole('listitem').first()).toContainText('2 dying');
});

test('closed tubes are told of while it gets hot, in Today and in the planting, until they are off', async ({
  page,
  own,
}) => {
  await own.stop();
  await own.startAgain('2026-07-18');
  await signIn(page, own, 'isla@withybeck.example', '/');
  const act = page.getByTestId('planted-act').filter({ hasText: 'closed tubes in Long belt' });
  await act.getByRole('link').first().click();
  await expect(page.getByTestId('decision')).toContainText('Raise, vent or take off its guards');
  const tubes = page.getByTestId('planted-parts').getByRole('listitem').filter({ hasText: 'rigid stake' });
  await expect(tubes).toHaveCount(2);
  for (let i = 0; i < 2; i++) await choose(tubes.nth(i).getByLabel('About them now'), 'none');
  await expect(page.getByTestId('decision')).not.toContainText('guards');
  await expect(tubes.first()).toContainText('closed tube at first');
  await station(page, 'Today');
  await expect(page.getByTestId('lot-act').first()).toBeVisible();
  await expect(act).toHaveCount(0);
});

test('an outline is read from GeoJSON, or drawn; the wrong one is refused with a sentence', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/planted?add=1');
  await sheet(page).getByLabel('Name', { exact: true }).fill('Pond');
  await sheet(page).getByText('within an outline').click();
  const give = (corners: number[][]) =>
    sheet(page)
      .getByLabel('Or its outline from a GeoJSON file')
      .setInputFiles({
        name: 'pond.geojson',
        mimeType: 'application/geo+json',
        buffer: Buffer.from(JSON.stringify({ type: 'Polygon', coordinates: [corners] })),
      });
  const ring = (swap: boolean) =>
    [
      [-2.41, 54.61],
      [-2.409, 54.61],
      [-2.409, 54.611],
      [-2.41, 54.61],
    ].map(([x, y]) => (swap ? [y, x] : [x, y]));
  await give(ring(true));
  await expect(sheet(page).getByText('Check that longitude comes before latitude')).toBeVisible();
  await give(ring(false));
  await expect(sheet(page).getByText('m² within 3 corners')).toBeVisible();
  await sheet(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('img', { name: 'Outline of Pond, north at the top' })).toBeVisible();

  await page.goto(`${own.url}/planted?add=1`);
  await sheet(page).getByLabel('Name', { exact: true }).fill('Gore');
  await sheet(page).getByText('within an outline').click();
  const pad = sheet(page).getByTestId('outline-pad');
  const ground = pad.getByRole('group');
  const box = (await ground.boundingBox())!;
  const tap = (east: number, north: number) =>
    ground.click({
      position: { x: box.width * (0.5 + east / 100), y: box.height * (0.5 - north / 100) },
    });
  await tap(-30, -20);
  await tap(10, -20);
  await tap(10, 20);
  await expect(sheet(page).getByText(/800\sm² within 3 corners/)).toBeVisible();
  // A corner goes on by keys, and by the pointer.
  await pad.getByRole('button', { name: /^Corner 3: 10.0\sm east, 20.0\sm north/ }).press('Shift+ArrowUp');
  await expect(pad.getByRole('button', { name: /^Corner 3: 10.0\sm east, 30.0\sm north/ })).toBeFocused();
  await pad.getByRole('button', { name: 'Add a corner' }).click();
  await page.keyboard.press('Delete');
  await pad.getByRole('button', { name: /^Corner 3/ }).dragTo(ground, {
    targetPosition: { x: box.width * 0.6, y: box.height * 0.1 },
  });
  await expect(sheet(page).getByText(/1.200\sm² within 3 corners/)).toBeVisible();
  await sheet(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('img', { name: 'Outline of Gore, north at the top' })).toBeVisible();
});

test('a visitor sees how plantings fare, and is offered nothing to change', async ({ page, demo }) => {
  await signIn(page, demo, 'wren@withybeck.example', '/planted');
  await page.getByTestId('plantings').getByText('Long belt').click();
  await expect(page.getByTestId('living')).toContainText('trees alive');
  await expect(page.getByRole('button', { name: /^(Plant|Walk|Change|Take)\b/ })).toHaveCount(0);
  await expect(page.getByLabel('About them now')).toHaveCount(0);
});

test('the year adds up on the page and on paper, and roots are held against what lived', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, 'wren@withybeck.example', '/planted/year');
  await expect(page.getByTestId('year-sums')).toContainText('Lifted');
  await expect(page.getByTestId('year-orders')).toContainText('sent');
  await expect(page.getByTestId('year-species').getByRole('row').nth(1)).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Report on paper' }).click();
  expect((await download).suggestedFilename()).toBe('year-2025-11-25-2026-11-24.pdf');

  await test.step('other days, kept in the address', async () => {
    await page.getByLabel('Until').fill('2019-01-31');
    await page.getByLabel('From', { exact: true }).fill('2019-01-01');
    await expect(page.getByText('Nothing moved in these days')).toBeVisible();
    await page.getByLabel('From', { exact: true }).fill('2019-02-20');
    await expect(page.getByRole('alert')).toContainText('ends before it begins');
    expect(page.url()).toContain('from=2019-02-20');
  });

  await test.step('compared by the verdict on their roots, honestly', async () => {
    await page.getByRole('link', { name: 'What lived' }).click();
    await choose(page.getByLabel('Compare by'), 'verdict on their roots');
    await expect(page.getByTestId('roots-say')).toContainText('may be the better of them');
    await choose(page.getByLabel('Compare by'), 'season they were planted');
    await expect(page.getByTestId('lived')).toContainText('planted 20');
    await choose(page.getByLabel('Compare by'), 'size');
    const size = page.getByTestId('size-lived');
    await expect(size).toContainText(/chance \d+\s%/);
    await size.getByText('In figures').click();
    await expect(size.getByTestId('chart-table')).toBeVisible();
    // Of one species too few were walked to say anything: then it says so.
    await choose(page.getByLabel('Of', { exact: true }), 1);
    await expect(size).toContainText('nothing is said yet');
  });
});
