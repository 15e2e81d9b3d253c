import type { Locator } from '@playwright/test';
import { choose, expect, sheet, signIn, station, test } from './kauri';

// Refusals are part of these.
test.use({ expected: { faults: [/409/, /422/] } });

test('a bed is lifted by grade, lies where it was put, is sent in part, loses some, and is found again everywhere', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/lift');
  await page.getByTestId('lots').getByText('26-ACA-01').click();
  await expect(page.getByRole('heading', { name: '26-ACA-01', level: 1 })).toBeVisible();

  await test.step('two grades in words of one’s own, which may not overlap', async () => {
    await choose(page.getByLabel('Graded by'), 'words of my own, or not at all');
    await page.getByLabel('Lifted, good').fill('60');
    await page
      .getByLabel(/^Grade/)
      .first()
      .fill('30–60');
    await page.getByRole('button', { name: 'Another grade' }).click();
    await page.getByLabel('Lifted, good').nth(1).fill('40');
    await page.getByLabel('Grade 2').fill('under 40');
    await page.getByLabel('They lie in').fill('Heel-in bay 2');
    await page.getByRole('button', { name: 'Keep the lift' }).click();
    await expect(page.getByText('Two grades overlap: a tree would belong to both.').first()).toBeVisible();
    // What was typed stays, through a reload too.
    await page.reload();
    await expect(page.getByLabel('Grade 2')).toHaveValue('under 40');
    await page.getByLabel('Grade 2').fill('under 30');
    await expect(page.getByTestId('trench-wanted')).toContainText(
      /1\.4\s*m of trench; Heel-in bay 2 has 10\.8\s*m left/,
    );
    await page.getByRole('button', { name: 'Keep the lift' }).click();
    await expect(page.getByText('100 lifted', { exact: false }).first()).toBeVisible();
    await page.getByRole('link', { name: '100 still here' }).click();
  });
  const bay = page.getByTestId('lying-Heel-in bay 2');
  await expect(bay).toContainText('Field maple, 30–60 cm');
  await expect(bay).toContainText('2 bundles of 25 and 10');
  const taller = bay.getByRole('listitem').filter({ hasText: '30–60' });

  await test.step('the bay says what its trench takes, by the nursery’s own count of it', async () => {
    const room = page.getByRole('region', { name: 'Heel-in bay 2' }).getByTestId('bay-room');
    await expect(room).toContainText(/1\.4\s*m of 10\.8\s*m of trench taken, 9\.4\s*m left/);
    await room.getByRole('button', { name: 'How closely they lie' }).click();
    const perM = sheet(page).getByLabel(/^30–60/);
    await perM.fill('0');
    await sheet(page).getByRole('button', { name: 'Keep them' }).click();
    await expect(
      sheet(page)
        .getByText(/Trees a metre: .* 0\.5/)
        .first(),
    ).toBeVisible();
    await perM.fill('5');
    await sheet(page).getByRole('button', { name: 'Keep them' }).click();
    await expect(sheet(page)).toHaveCount(0);
    await expect(room).not.toContainText('By rules of thumb.');
    await expect(room).toContainText(
      /12\.4\s*m of trench wanted where there are 10\.8\s*m: 1\.6\s*m too much/,
    );
    await room.getByRole('button', { name: 'How closely they lie' }).click();
    await sheet(page).getByRole('button', { name: 'Back to the rules of thumb' }).click();
    await sheet(page).getByRole('button', { name: 'Keep them' }).click();
    await expect(room).toContainText(/9\.4\s*m left\. By rules of thumb\./);
  });

  await test.step('put elsewhere, and back by an undo', async () => {
    await taller.getByRole('button', { name: 'Put elsewhere' }).click();
    await sheet(page).getByLabel('They lie in').fill('Cold store');
    await sheet(page).getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByTestId('lying-Cold store')).toContainText('30–60');
    await page.getByRole('button', { name: 'Undo' }).last().click();
    await expect(bay.getByRole('listitem')).toHaveCount(2);
  });

  await test.step('sent for a line: no more than it wants, and never twice', async () => {
    await taller.getByRole('button', { name: 'Send' }).click();
    const line = sheet(page).getByLabel('For', { exact: true });
    await choose(line, /Carr Lane school: 40 Field maple/);
    await sheet(page).getByLabel('26-ACA-01, 30–60 cm').fill('45');
    await expect(sheet(page).getByTestId('leaving')).toContainText('5 fewer than that');
    await sheet(page).getByRole('button', { name: 'Send them' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('the line still wants 40');
    await sheet(page).getByLabel('26-ACA-01, 30–60 cm').fill('25');
    await sheet(page).getByRole('button', { name: 'Send them' }).click();
    await expect(sheet(page)).toHaveCount(0);
    await expect(taller).toContainText('35');
    await expect(page.getByTestId('sendings').getByRole('listitem').first()).toContainText(
      'Carr Lane school: 25 of 26-ACA-01, 30–60 cm',
    );
  });

  await test.step('some rot where they lie', async () => {
    await taller.getByRole('button', { name: 'Take out' }).click();
    await sheet(page).getByLabel('How many are gone').fill('36');
    await sheet(page).getByRole('button', { name: 'Take them out' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('Fewer lie there than that');
    await sheet(page).getByLabel('How many are gone').fill('3');
    await sheet(page).getByRole('button', { name: 'Take them out' }).click();
    await expect(taller).toContainText('32');
  });

  await test.step('a delivery note is on paper', async () => {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Delivery note' }).first().click();
    expect((await download).suggestedFilename()).toBe('delivery-2026-11-24.pdf');
  });

  await test.step('the order says what is left, and lifted trees can be promised', async () => {
    await station(page, 'Plan');
    await page.getByTestId('orders').getByText('Carr Lane school').last().click();
    await expect(page.getByTestId('lines')).toContainText('25 sent');
    await page.getByRole('link', { name: 'Send them' }).click();
    await expect(sheet(page).getByTestId('leaving')).toContainText('the line then wants 15 more');
    await page.keyboard.press('Escape');
    await page.goBack();
    await page.getByRole('link', { name: 'What else could be promised of these' }).click();
    await page.getByLabel('On', { exact: true }).fill('2026-12-01');
    await expect(page.getByTestId('from-lots').or(page.getByTestId('other-lots')).first()).toContainText(
      '26-ACA-01, 30–60 lifted',
    );
  });

  await test.step('some come back, dead among them: the rest lie apart, and the line wants them again', async () => {
    await page.goto(`${own.url}/lift/lifted`);
    const first = page.getByTestId('sendings').getByRole('listitem').first();
    await first.getByRole('button', { name: 'Came back …' }).click();
    await sheet(page).getByLabel('Came back').fill('30');
    await sheet(page).getByLabel('The living lie in').fill('Shed');
    await sheet(page).getByRole('button', { name: 'Write it down' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('only 25 of them are still out');
    await sheet(page).getByLabel('Came back').fill('6');
    await sheet(page).getByLabel('Dead of them').fill('2');
    await sheet(page).getByRole('button', { name: 'Write it down' }).click();
    await expect(page.getByTestId('lying-Shed')).toContainText('sent, and came back');
    await expect(page.getByTestId('returned')).toContainText('6 came back, 2 of them dead; wanted again');
    // What came back holds the sending: it is taken back first.
    await expect(first.getByRole('button', { name: 'Take back' })).toHaveCount(1);
    await page.getByTestId('returned').getByRole('button', { name: 'Take back' }).click();
    await expect(page.getByTestId('lying-Shed')).toHaveCount(0);
  });

  await test.step('a sending taken back is as if it had not been', async () => {
    await page.goto(`${own.url}/lift/lifted`);
    await page.getByTestId('sendings').getByRole('button', { name: 'Take back' }).first().click();
    await expect(taller).toContainText('57');
    await station(page, 'Plan');
    await page.getByTestId('orders').getByText('Carr Lane school').last().click();
    await expect(page.getByTestId('lines')).not.toContainText('25 sent');
  });
});

test('small ones are held over in a bed as a lot of their own, and taken back by an undo', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/lift/lifted');
  const parcel = page
    .getByTestId('lying-Heel-in bay 1')
    .getByRole('listitem')
    .filter({ hasText: 'up to 30 cm' });
  await expect(parcel).toContainText('26');
  await parcel.getByRole('button', { name: 'Hold over' }).click();
  const dialog = sheet(page);
  await dialog.getByLabel('Trees set apart').fill('30');
  await expect(dialog.getByText('Only 26 are there.')).toBeVisible();
  await dialog.getByLabel('Trees set apart').fill('20');
  await expect(dialog.getByText('6 stay in 25-CBE-01')).toBeVisible();
  await dialog.getByLabel('Heights of some').fill('18 22 20,5');
  await dialog.getByLabel('Density').fill('150');
  await dialog.getByLabel(/^Area/).fill('0.13');
  await dialog.getByRole('button', { name: 'Set them apart' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/^25-CBE-/);
  await expect(page.getByTestId('ground-line')).toBeVisible();
  await page.getByRole('tab', { name: 'Ledger' }).click();
  await expect(page.getByTestId('balances')).toContainText('standing20');
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await page.goto(`${own.url}/lift/lifted`);
  await expect(parcel).toContainText('26');
});

test('rows of lifted trees stay where they are while what is known of them comes', async ({ page, demo }) => {
  let letGo!: () => void;
  const released = new Promise<void>((resolve) => (letGo = resolve));
  let answer!: () => void;
  const answered = new Promise<void>((resolve) => (answer = resolve));
  await page.route('**/forecast.worker*', async (route) => {
    await released;
    await route.continue();
  });
  await page.route('**/api/nurseries/*/grading', async (route) => {
    await answered;
    await route.continue();
  });
  await signIn(page, demo, 'isla@withybeck.example', '/lift/lifted');
  const rows = page.getByTestId('lying-Heel-in bay 1').getByRole('listitem');
  // Room of a bay stands above its rows, and needs to know how closely trees lie.
  await expect(page.getByRole('status').filter({ hasText: 'Looking what lies there' })).toBeVisible();
  await expect(rows).toHaveCount(0);
  answer();
  await expect(page.getByTestId('bay-room').first()).toBeVisible();
  const places = () =>
    page
      .getByRole('button', { name: 'Send', exact: true })
      .evaluateAll((acts) => acts.map((act) => Math.round(act.getBoundingClientRect().top)));
  const before = await places();
  expect(before.length).toBeGreaterThan(1);
  await expect(page.getByTestId('keeps')).toHaveCount(0);
  letGo();
  await expect(page.getByTestId('keeps').first()).toBeVisible();
  await expect(page.getByTestId('coming')).toHaveCount(0);
  expect(await places()).toEqual(before);
});

test('two people send the same trees at once: only what lies there leaves', async ({
  page,
  own,
  browser,
}) => {
  await signIn(page, own, 'isla@withybeck.example');
  const other = await (await browser.newContext({ locale: 'en-GB' })).newPage();
  await signIn(other, own, 'isla@withybeck.example');
  for (const one of [page, other]) {
    await one.goto(`${own.url}/lift/lifted`);
    const parcel = one
      .getByTestId('lying-Heel-in bay 1')
      .getByRole('listitem')
      .filter({ hasText: 'up to 30 cm' });
    await parcel.getByRole('button', { name: 'Send' }).click();
    await sheet(one).getByLabel('To', { exact: true }).fill('Hill Top farm');
    await sheet(one).getByRole('button', { name: 'All of them' }).click();
  }
  await sheet(page).getByRole('button', { name: 'Send them' }).click();
  await expect(sheet(page)).toHaveCount(0);
  await sheet(other).getByRole('button', { name: 'Send them' }).click();
  await expect(sheet(other).getByRole('alert')).toContainText('Fewer lie there than that');
  // What was typed for it stays until it is left out.
  await expect(sheet(other).getByTestId('gone')).toContainText('typed for what lies there no more');
  await sheet(other).getByRole('button', { name: 'Leave it out' }).click();
  await expect(sheet(other).getByTestId('gone')).toHaveCount(0);
  await other.context().close();
});

test('lifted trees are set aside for an order, listed as one walks, loaded and sent', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/plan');
  await page.getByTestId('orders').getByText('Dale hedging').first().click();

  await test.step('set aside: no more than it wants, and others are told', async () => {
    await expect(page.getByTestId('line-aside')).toContainText('15 lifted trees set aside');
    await page.getByRole('button', { name: /^Set aside from/ }).click();
    await expect(sheet(page).getByLabel('25-CBE-01, 30–50 cm')).toHaveValue('15');
    await sheet(page).getByLabel('25-CBE-01, 30–50 cm').fill('28');
    await sheet(page).getByRole('button', { name: 'Set them aside' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('Fewer lie free there than that');
    await sheet(page).getByLabel('25-CBE-01, 30–50 cm').fill('20');
    await sheet(page).getByRole('button', { name: 'Set them aside' }).click();
    await expect(page.getByTestId('line-aside')).toContainText('20 lifted trees set aside');
    await station(page, 'Lift');
    await page.getByRole('link', { name: 'Lifted', exact: true }).click();
    await expect(page.getByTestId('aside')).toHaveText('20 set aside for Dale hedging');
    await page.getByTestId('lying-Heel-in bay 1').getByRole('button', { name: 'Send' }).first().click();
    await sheet(page).getByLabel('To', { exact: true }).fill('Somebody else');
    await sheet(page).getByLabel('25-CBE-01, 30–50 cm').fill('8');
    await sheet(page).getByRole('button', { name: 'Send them' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('set aside for orders');
    await page.keyboard.press('Escape');
  });

  await test.step('what was seen there is written down, and Today rests', async () => {
    await page.getByRole('button', { name: 'What was seen' }).click();
    await sheet(page).getByText('Mould', { exact: true }).click();
    await sheet(page).getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByTestId('lying-Heel-in bay 1').locator('..')).toContainText('mould');
  });

  await test.step('loaded place by place, on paper too, through a reload', async () => {
    await page.getByRole('link', { name: 'To load' }).click();
    await expect(page.getByTestId('stops')).toContainText('1. Heel-in bay 1');
    for (const [act, name] of [
      ['Pick list', 'to-load-2026-11-24.pdf'],
      ['Bundle labels', 'labels-2026-11-24.pdf'],
    ]) {
      const download = page.waitForEvent('download');
      await page.getByRole('button', { name: act }).click();
      expect((await download).suggestedFilename()).toBe(name);
    }
    // Weighed and in crates, for whom it is.
    await expect(page.getByTestId('packing')).toContainText(/20\s*1 crate/);
    // A label that is read ticks what it stands on; one of something else is said.
    await page.getByRole('button', { name: 'Read labels while loading' }).click();
    const label = async (text: string) => {
      await page.getByLabel('Or type its code').fill(text);
      await page.getByRole('button', { name: 'Look it up' }).click();
    };
    await label('26-QPE-01');
    await expect(page.getByText('That is not to be loaded')).toBeVisible();
    const [code] = (await page.getByTestId('stops').innerText()).match(/\d\d-[A-Z]{3}-\d\d/)!;
    await label(code.toLowerCase());
    await expect(page.getByTestId('stops').getByRole('checkbox')).toBeChecked();
    await page.reload();
    await expect(page.getByTestId('stops').getByRole('checkbox')).toBeChecked();
    await page.getByRole('button', { name: 'Send the 20 trees loaded' }).click();
    await expect(page.getByRole('heading', { name: 'Nothing is set aside' })).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).last().click();
    await expect(page.getByTestId('stops')).toContainText('20');
  });

  await test.step('a movement record says what the nursery wants it to', async () => {
    await page.getByRole('link', { name: 'Lifted', exact: true }).click();
    await page.getByRole('button', { name: 'What movement records say of us' }).click();
    await expect(sheet(page).getByLabel('says')).toHaveValue('WB 0417');
    await sheet(page).getByRole('button', { name: 'Another line' }).click();
    await sheet(page).getByLabel('Line 2', { exact: true }).fill('Inspector');
    await sheet(page).getByLabel('says').last().fill('North office');
    await sheet(page).getByRole('button', { name: 'Keep them' }).click();
    await expect(sheet(page)).toHaveCount(0);
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Movement record', exact: true }).first().click();
    expect((await download).suggestedFilename()).toBe('movement-2026-11-20.pdf');
  });
});

test('a visitor sees what lies there, and is offered nothing to change', async ({ page, demo }) => {
  await signIn(page, demo, 'wren@withybeck.example', '/lift/lifted');
  await expect(page.getByTestId('lying-Heel-in bay 1')).toContainText('Hornbeam');
  await expect(page.getByRole('button', { name: /^Send|^Take|^Put/ })).toHaveCount(0);
});

test('lots are lifted in the order their buds ask for, and more hands help where they are too few', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/lift/order');
  const decision = page.getByTestId('decision');
  await expect(decision).toContainText('All of them can be out in time');
  const days = page.getByTestId('lifting-days').getByRole('listitem');
  await expect(days.first()).toContainText('26-SCA-01');
  // A quarter of an hour a day is not enough for anybody.
  await page.getByLabel('Hours a day').fill('0.25');
  await page.getByLabel('People').fill('1');
  await expect(decision).toContainText(/lots will hardly be out in time/);
  await expect(page.getByTestId('lifting-order').getByText('not in time').first()).toBeVisible();
  await page.getByLabel('Hours a day').fill('none');
  await expect(page.getByText('Say how many people')).toBeVisible();
  // Kept for the nursery, and on days off nobody lifts.
  const kept = page.waitForResponse((answer) => answer.url().endsWith('/lifting-plan') && answer.ok());
  await page.getByLabel('Hours a day').fill('6');
  await kept;
  await page.reload();
  await expect(page.getByLabel('People')).toHaveValue('1');
  await page.getByText('Wed', { exact: true }).click();
  await expect(days.first()).not.toContainText('26-SCA-01');
  await expect(days.nth(1)).toContainText('26-SCA-01');
});

test('a block of the week is moved by keys and by pointer, said to others, and taken back', async ({
  page,
  own,
  browser,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/lift/order');
  const day = (iso: string) => page.locator(`[data-day="${Math.round(Date.parse(iso) / 86_400_000)}"]`);
  const block = (where: Locator) => where.locator('[data-lot]').filter({ hasText: '26-SCA-01' });
  await expect(block(day('2026-11-25'))).toBeVisible();
  await block(day('2026-11-25')).getByRole('button').press('Enter');
  await page.locator(`[data-to="${Math.round(Date.parse('2026-12-02') / 86_400_000)}"]`).click();
  await expect(block(day('2026-12-02'))).toContainText('moved by hand');
  await expect(block(day('2026-11-25'))).toHaveCount(0);

  await block(day('2026-12-02')).dragTo(day('2026-11-27'));
  await expect(block(day('2026-11-27'))).toContainText('moved by hand');
  const tam = await browser.newContext();
  const crew = await tam.newPage();
  await signIn(crew, own, 'tam@withybeck.example', '/lift/order');
  const theirs = crew.locator('[data-lot]').filter({ hasText: '26-SCA-01' }).first();
  await expect(theirs).toContainText('moved by hand');

  await page.keyboard.press('u');
  await expect(block(day('2026-12-02'))).toContainText('moved by hand');
  await page.getByRole('button', { name: /back in the order/ }).click();
  await expect(block(day('2026-11-25'))).toBeVisible();
  await expect(theirs).not.toContainText('moved by hand');
  await tam.close();
});

test('a bed says what it will give by grade, is tallied at the bed against the air, and keeps why trees were culled', async ({
  page,
  own,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await signIn(page, own, 'isla@withybeck.example', '/lift');
  await page.getByTestId('lots').getByText('26-ACA-01').click();
  await expect(page.getByRole('heading', { name: '26-ACA-01', level: 1 })).toBeVisible();
  const ahead = page.getByTestId('grades-ahead');

  await test.step('by the scheme thought of first for its species; another is written, and may not overlap', async () => {
    await expect(ahead.getByRole('rowheader', { name: '20–40 cm collar 3 mm' })).toBeVisible();
    await page.getByRole('button', { name: 'Change the grades' }).click();
    await sheet(page).getByRole('button', { name: 'Another scheme' }).click();
    await sheet(page).getByLabel('Name', { exact: true }).fill('Carr Lane sizes');
    await sheet(page).getByLabel('Heights cm', { exact: true }).fill('30–50');
    await sheet(page).getByLabel('Heights 2').fill('45+');
    await sheet(page).getByRole('button', { name: 'Keep them' }).click();
    await expect(sheet(page).getByText('Two grades overlap').first()).toBeVisible();
    await sheet(page).getByLabel('Heights 2').fill('50+');
    await sheet(page).getByRole('button', { name: 'Keep them' }).click();
    await expect(sheet(page)).toHaveCount(0);
    await choose(page.getByLabel('By the grades of'), 'Carr Lane sizes');
    await expect(ahead.getByRole('row').nth(2)).toContainText('50+ cm');
  });

  await test.step('tallied by taps; the last is taken back, and a reload loses none', async () => {
    await choose(page.getByLabel('Graded by'), 'Carr Lane sizes');
    await page.getByRole('link', { name: 'Tally at the bed' }).click();
    const good = page.getByRole('group', { name: 'Lifted, good' });
    const culls = page.getByRole('group', { name: 'Culled for' });
    await expect(good.getByRole('button', { name: '30–50 cm' })).toBeVisible();
    await page.keyboard.press('a');
    await page.getByText('25', { exact: true }).click();
    await good.getByRole('button', { name: '50+ cm' }).click();
    await culls.getByRole('button', { name: 'roots' }).click();
    await culls.getByRole('button', { name: 'too thin' }).click();
    await expect(page.getByTestId('tallied')).toContainText('26 lifted, 2 culled');
    await page.getByRole('button', { name: 'Back: 1 too thin' }).click();
    await page.reload();
    await expect(page.getByTestId('tallied')).toContainText('26 lifted, 1 culled');
  });

  await test.step('roots in the air are timed, and past what they stand it says so', async () => {
    const clock = page.getByTestId('exposure-clock');
    await expect(clock).toHaveAttribute('data-state', 'covered');
    await page.clock.install();
    await clock.getByRole('button', { name: 'Roots out' }).click();
    await expect(clock).toHaveAttribute('data-state', 'out');
    await page.clock.runFor('03:00:00');
    await expect(clock).toHaveAttribute('data-state', 'over');
    await expect(clock.getByRole('alert')).toContainText('Past what fine roots stand');
    await clock.getByRole('button', { name: 'Covered' }).click();
    await expect(clock).toHaveAttribute('data-state', 'covered');
  });

  await test.step('kept: parcels by grade, why they were culled, and an undo of the whole', async () => {
    await page.getByLabel('They lie in').fill('Heel-in bay 2');
    await page.getByRole('button', { name: 'Keep the lift' }).click();
    await expect(page.getByTestId('lifts')).toContainText('culled (roots 1)');
    await page.getByRole('link', { name: '26 still here' }).click();
    const bay = page.getByTestId('lying-Heel-in bay 2');
    await expect(bay).toContainText('Field maple, 50 cm and over');
    await expect(bay).toContainText('1 bundle of 25');
    await page.getByRole('button', { name: 'Undo' }).last().click();
    await expect(bay).toHaveCount(0);
  });
});
