import { choose, expect, sheet, station, stationTable, test } from './kauri';

/*
 * The whole job from an empty nursery, by hand: weather in, a bed and a bench, a lot sown in each,
 * counted, measured, pulled, seen ready, lifted, and every tree accounted for.
 */
test.use({ expected: { faults: [/409|422/] } });

test('a nursery from nothing to lifted trees', async ({ page, empty }) => {
  await page.goto(empty.url);

  await test.step('set up', async () => {
    await page.getByLabel('Nursery').fill('Beckside <b>Trees</b>');
    await page.getByLabel('Place').fill('Upper Dale');
    await page.getByLabel('Latitude °').fill('2° 24′ W');
    await expect(page.getByText(/counted N or S, not W. Are the two changed over/)).toBeVisible();
    await page.getByLabel('Latitude °').fill('54° 36′ N');
    await page.getByLabel('Longitude °').fill('−2.4');
    await page.getByLabel('Height, m').fill('high');
    await page.getByLabel('Time zone').fill('Europe/London');
    await page.getByLabel('Your name').fill('Rowan');
    await page.getByLabel('E-mail').fill('rowan@beckside.example');
    await page.getByLabel('Password').fill('a sound password');
    await page.getByRole('button', { name: 'Open the yard' }).click();
    await expect(page.getByRole('alert')).toContainText(/Height above sea: a number from −100 to 4.500 m\./);
    await expect(page.getByLabel('Height, m')).toBeFocused();
    await page.getByLabel('Height, m').fill('185');
    await page.getByRole('button', { name: 'Open the yard' }).click();
    await expect(page.getByText('Beckside <b>Trees</b>', { exact: true })).toBeVisible();
    const first = page.getByTestId('first-hour');
    await expect(first.getByText(/Upper Dale, 54.6° north, 185\sm up/)).toBeVisible();
    await expect(first.getByRole('listitem').filter({ hasText: 'done' })).toHaveCount(1);
  });

  await test.step('weather from a station’s table', async () => {
    await page.getByRole('link', { name: /Season/ }).click();
    await page
      .getByLabel('Choose a table')
      .first()
      .setInputFiles({ name: 'station.csv', mimeType: 'text/csv', buffer: Buffer.from(stationTable(6)) });
    await expect(page.getByLabel('Temperatures in')).toHaveAttribute('data-value', 'F');
    await expect(page.getByLabel('Dates are').first()).toHaveAttribute('data-value', 'day-first');
    await page.getByRole('button', { name: 'Check every line' }).click();
    await expect(page.getByTestId('report')).toContainText('every line reads well');
    await page.getByRole('button', { name: /^Take 2.193 days$/ }).click();
    await expect(page.getByTestId('report')).toContainText(/2.193 days taken, 22 Nov 2020 to 23 Nov 2026/);
  });

  await test.step('a bed', async () => {
    await station(page, 'Yard');
    await page.getByRole('link', { name: 'Add a bed' }).click();
    await sheet(page).getByLabel('Name', { exact: true }).fill('Long bed');
    await sheet(page)
      .getByRole('textbox', { name: /^Length/ })
      .fill('400000');
    await sheet(page).getByRole('button', { name: 'Add the bed' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText(/Bed length: a number from 200 to 30.000 mm/);
    await sheet(page)
      .getByRole('textbox', { name: /^Length/ })
      .fill('3000');
    const figures = sheet(page).getByTestId('bed-figures');
    await expect(figures).toContainText('10 mm less than their names add up to');
    await expect(figures).toContainText('288 mm');
    await sheet(page).getByRole('button', { name: 'Add the bed' }).click();
    await expect(page.getByRole('heading', { name: 'Long bed', level: 1 })).toBeVisible();
    await expect(page.getByTestId('plan').getByRole('button', { name: /Long bed/ })).toBeVisible();
  });

  await test.step('a bench', async () => {
    await page.getByRole('link', { name: 'Add bench' }).click();
    await sheet(page).getByLabel('Name', { exact: true }).fill('Bench A');
    await choose(sheet(page).getByLabel('For example, in'), 'Tube 150 mL, racked');
    // 3.0 × 1.5 m takes trays of 610 × 305 mm: four ranks of four, and nine turned in what is left.
    await expect(sheet(page).getByTestId('fits')).toContainText(/Takes \d+ trays, .* cells/);
    await sheet(page).getByRole('button', { name: 'Add the bench' }).click();
    await expect(page.getByRole('heading', { name: 'Bench A', level: 1 })).toBeVisible();
  });

  await test.step('sow the bed lot, asking how many', async () => {
    await page.keyboard.press('n');
    const form = sheet(page);
    await choose(form.getByLabel('Species'), 'Common alder, Alnus glutinosa');
    await form.getByLabel('Sown on').fill('2026-04-10');
    await choose(form.getByLabel('Place'), 'Long bed');
    await form.getByLabel('Density').fill('200');
    await form.getByLabel('Area of bed').fill('1,5');
    await expect(form).toContainText('room for 300 trees');
    await form.getByLabel('Good trees wanted').fill('250');
    const advised = Number(
      (await form.getByTestId('seeds-advised').locator('b').innerText()).replace(/\D/g, ''),
    );
    expect(advised).toBeGreaterThan(400);
    await form.getByRole('button', { name: /^Use/ }).click();
    await expect(form.getByTestId('seeds-outlook')).toContainText('90 % chance of 250 or more');
    await form.getByLabel('Seeds sown').fill('900');
    await form.getByLabel('Height wanted').fill('40');
    await form.getByRole('button', { name: 'Sow it' }).click();
    await expect(page.getByRole('heading', { name: '26-ALN-01', level: 1 })).toBeVisible();
  });

  await test.step('sow the container lot', async () => {
    await page.getByRole('link', { name: /New lot/ }).click();
    const form = sheet(page);
    await choose(form.getByLabel('Species'), 'Common alder, Alnus glutinosa');
    await form.getByLabel('Sown on').fill('2026-04-12');
    await choose(form.getByLabel('Place'), 'Bench A');
    await choose(form.getByLabel('Container'), 'Tube 150 mL, racked');
    await form.getByLabel('Trays').fill('4');
    await expect(form).toContainText('392 cells');
    await form.getByLabel('Seeds sown').fill('700');
    await form.getByLabel('Height wanted').fill('30');
    await form.getByRole('button', { name: 'Sow it' }).click();
    await expect(page.getByRole('heading', { name: '26-ALN-02', level: 1 })).toBeVisible();
  });

  const lot = async (code: string) => {
    await page.getByTestId('lots').getByText(code, { exact: true }).click();
    await expect(page.getByRole('heading', { name: code, level: 1 })).toBeVisible();
  };
  const count = async (standing: string, day: string) => {
    await page.keyboard.press('c');
    await sheet(page).getByLabel('Seedlings standing now').fill(standing);
    await sheet(page).getByLabel('Day').fill(day);
    await sheet(page).getByRole('button', { name: 'Keep the count' }).click();
  };
  const measure = async (values: string[], day: string) => {
    await page.keyboard.press('m');
    await expect(sheet(page).getByLabel(/Height of plant 1/)).toBeFocused();
    for (const value of values) {
      await page.keyboard.type(value);
      await page.keyboard.press('Enter');
    }
    await sheet(page).getByLabel('Day').fill(day);
    await sheet(page)
      .getByRole('button', { name: `Keep ${values.length} plants` })
      .click();
    await expect(sheet(page)).toHaveCount(0);
  };

  await test.step('count what came up, wrongly at first', async () => {
    await count('9000', '2026-05-20');
    await expect(sheet(page).getByRole('alert')).toContainText('only 700 seeds');
    await sheet(page).getByLabel('Seedlings standing now').fill('380');
    await sheet(page).getByLabel('Day').fill('2026-04-01');
    await sheet(page).getByRole('button', { name: 'Keep the count' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('was sown on 2026-04-12');
    await sheet(page).getByLabel('Day').fill('2026-05-20');
    await sheet(page).getByRole('button', { name: 'Keep the count' }).click();
    await expect(page.getByTestId('figures')).toContainText('380 of 700 sown');
    await lot('26-ALN-01');
    await count('520', '2026-05-18');
    await expect(page.getByTestId('figures')).toContainText('520 of 900 sown');
  });

  await test.step('the first hour is over', async () => {
    await station(page, 'Today');
    await expect(page.getByTestId('as-one-walks')).toBeVisible();
    await expect(page.getByTestId('first-hour')).toHaveCount(0);
    await station(page, 'Grow');
  });

  await test.step('measure until it is enough', async () => {
    await measure(['31', '28', '34,5', '30', '29', '33', '27', '32'], '2026-08-10');
    await expect(page.getByTestId('records')).toContainText(/height 30\.6.cm ± 2\.6.cm, 8 plants/);
    await lot('26-ALN-02');
    await page.keyboard.press('m');
    await page.keyboard.type('25');
    await page.keyboard.press('Enter');
    await page.keyboard.type('24');
    await page.keyboard.press('Enter');
    await expect(sheet(page).getByTestId('enough')).toHaveCount(0);
    for (const value of ['26', '25.5', '24.5', '25']) {
      await page.keyboard.type(value);
      await page.keyboard.press('Enter');
    }
    await expect(sheet(page).getByTestId('enough')).toBeVisible();
    await sheet(page).getByLabel('Day').fill('2026-08-12');
    await sheet(page).getByRole('button', { name: 'Keep 6 plants' }).click();
    await expect(page.getByTestId('records')).toContainText('6 plants');
  });

  const decision = page.getByTestId('decision');
  await test.step('pull and score plugs; the decision follows', async () => {
    const before = await decision.innerText();
    await page.keyboard.press('r');
    for (const key of ['2', '2', '3']) await page.keyboard.press(key);
    await expect(sheet(page).getByTestId('scores')).toContainText('read as fill 0.83');
    await sheet(page).getByLabel('Plants spoiled by pulling').fill('1');
    await sheet(page).getByRole('button', { name: 'Keep the scores' }).click();
    await expect(page.getByTestId('records')).toContainText('2 holds, 2 holds, 3 tight; 1 spoiled');
    await expect(decision).toContainText(/Move on by|Move it on|Ready/);
    await expect(decision).not.toHaveText(before);
    await expect(page.getByTestId('figures')).toContainText('379 of 700 sown');
  });

  await test.step('lift the container lot: more than stand is refused', async () => {
    await page.keyboard.press('l');
    await sheet(page).getByLabel('Lifted, good').fill('400');
    await expect(sheet(page).getByTestId('left')).toContainText('21 more than stand');
    await sheet(page).getByRole('button', { name: 'Keep the lift' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('379 of 26-ALN-02 stand');
    await sheet(page).getByLabel('Lifted, good').fill('340');
    await sheet(page).getByLabel('Culled').fill('39');
    await expect(sheet(page).getByTestId('left')).toContainText('0 left standing');
    await sheet(page).getByRole('button', { name: 'Keep the lift' }).click();
    await expect(
      page.getByRole('status').getByText('340 trees of 26-ALN-02 lifted, 39 culled.'),
    ).toBeVisible();
  });

  await test.step('write its seeds off; every one is accounted for', async () => {
    await page.keyboard.press('x');
    await sheet(page).getByRole('button', { name: 'All 320' }).click();
    await sheet(page).getByRole('button', { name: 'Write off' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('320 seeds leave the count');
    await sheet(page).getByRole('button', { name: 'Yes, write off 320 seeds' }).click();
    await expect(decision).toContainText('Nothing stands');
    await page.getByRole('tab', { name: 'Ledger' }).click();
    const balances = page.getByTestId('balances');
    await expect(balances).toContainText('lifted340');
    await expect(balances).toContainText('culled39');
    await expect(balances).toContainText('pulled to look at roots1');
    await expect(balances).toContainText('did not come up320');
    await expect(balances).toContainText('Sown, all accounted for700');
  });

  await test.step('lift the bed lot in its window', async () => {
    await station(page, 'Lift');
    await expect(page.getByRole('heading', { name: '26-ALN-01', level: 1 })).toBeVisible();
    await expect(decision).toContainText(/Lift between .* and /);
    await page.getByLabel('Lifted, good').fill('500');
    await page.getByLabel('Culled').fill('20');
    await page.getByRole('button', { name: 'Keep the lift' }).click();
    await expect(page.getByTestId('lifts')).toContainText('500');
    await expect(page.getByText('Nothing of this lot stands any more.')).toBeVisible();
  });

  await test.step('and an undo takes it back', async () => {
    await page.getByRole('button', { name: 'Undo' }).last().click();
    await expect(page.getByText('Taken back: ')).toBeVisible();
    await expect(page.getByTestId('left')).toContainText('520 left standing of 520');
  });
});
