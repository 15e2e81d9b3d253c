import type { Page } from '@playwright/test';
import { act, expect, fill, sheet, signIn, station, test } from './kauri';

async function openRoots(page: Page, code: string) {
  await station(page, 'Roots');
  await page.getByTestId('root-lots').getByText(code, { exact: true }).click();
  await expect(page.getByRole('heading', { name: code, level: 1 })).toBeVisible();
}
const pull = (page: Page) => page.getByRole('button', { name: /^Pull a plant/ }).click();
const decision = (page: Page) => page.getByTestId('decision');

/** Lays roots by keys: a path by its number, evenly round. */
async function lay(page: Page, path: number, roots: number) {
  const rosette = sheet(page).getByTestId('rosette');
  await rosette.focus();
  await rosette.press(String(path));
  for (let i = 0; i < roots; i++) {
    await rosette.press('Enter');
    await rosette.press('Shift+ArrowRight');
    await rosette.press('Shift+ArrowRight');
  }
}

test('plants are pulled to an accept and to a reject, and a record taken back opens it again', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'tam@withybeck.example');
  await test.step('a bed half judged is accepted after four good ones more, at a glance', async () => {
    await openRoots(page, '26-QPE-01');
    await expect(decision(page)).toContainText('Pull another: 0 of 5 fail so far');
    await expect(decision(page)).toContainText('4 good ones more');
    for (let n = 6; n <= 9; n++) {
      await pull(page);
      await sheet(page).getByText('At a glance').click();
      await expect(sheet(page).getByText('the plug is')).toHaveCount(0);
      await act(page, 'Keep the plant');
      await expect(page.getByTestId('plants')).toContainText(`Plant ${n} passes`);
    }
    await expect(decision(page)).toContainText('Accept: all 9 pass');
    await page.getByRole('status').getByRole('button', { name: 'Undo' }).last().click();
    await expect(decision(page)).toContainText('Pull another: 0 of 8 fail');
  });
  await test.step('a lot whose roots circle is rejected at the second plant, drawn by keys', async () => {
    await openRoots(page, '26-ALN-07');
    await expect(decision(page)).toContainText('Pull a plant');
    await pull(page);
    await lay(page, 4, 6);
    await expect(sheet(page).getByTestId('laterals').getByRole('button')).toHaveCount(6);
    await expect(sheet(page).getByTestId('plant-figures')).toContainText(/turned by the wall\s*100\s%/);
    await expect(sheet(page).getByTestId('plant-cards')).toContainText('Structure first: fails');
    // What is laid stays through a reload.
    await page.reload();
    await pull(page);
    await expect(sheet(page).getByTestId('laterals').getByRole('button')).toHaveCount(6);
    await act(page, 'Keep the plant');
    await expect(decision(page)).toContainText('Pull another: 1 of 1 fail');
    await pull(page);
    await lay(page, 7, 4);
    await sheet(page).getByTestId('rosette').press('Backspace');
    await expect(sheet(page).getByTestId('laterals').getByRole('button')).toHaveCount(3);
    await sheet(page).getByText('Spoiled by pulling').click();
    await act(page, 'Keep the plant');
    await expect(decision(page)).toContainText('Reject: 2 of 2 fail');
    await expect(page.getByTestId('defects')).toContainText('turned by the wall');
    await expect(page.getByTestId('root-lots')).toContainText('2 of 2 fail');
  });
  await test.step('the lot’s page has both plants among its records', async () => {
    await page.getByRole('link', { name: 'The lot’s page' }).click();
    await expect(page.getByTestId('records')).toContainText('6 laterals, 0 % straight, 100 % turned');
    await expect(page.getByTestId('records')).toContainText('spoiled');
  });
});

test('a root is laid where the pointer taps', async ({ isla: page }) => {
  await openRoots(page, '26-SOR-03');
  await pull(page);
  const rosette = sheet(page).getByTestId('rosette');
  const box = (await rosette.boundingBox())!;
  await rosette.click({ position: { x: box.width * 0.85, y: box.height / 2 } });
  await expect(sheet(page).getByTestId('laterals')).toContainText('90° straight');
  await rosette.click({ position: { x: box.width / 2, y: box.height * 0.9 } });
  await expect(sheet(page).getByTestId('laterals')).toContainText('180° straight');
  await sheet(page)
    .getByRole('button', { name: /Take away the root at 90°/ })
    .click();
  await expect(sheet(page).getByTestId('laterals').getByRole('button')).toHaveCount(1);
});

test('scorecards of the schools are the nursery’s own to change', async ({ page, own, expected }) => {
  // Terms that make no sense are refused.
  expected.faults.push(/422/);
  await signIn(page, own, 'isla@withybeck.example');
  await openRoots(page, '26-SOR-03');
  await expect(decision(page)).toContainText('1 of 4 fail');
  await page.getByText('Depth first', { exact: true }).click();
  await expect(decision(page)).toContainText('Reject');
  await page.getByText('Structure first', { exact: true }).click();
  await page.getByRole('button', { name: 'Scorecards and terms' }).click();
  await fill(page, { 'A good lot may fail': '40' });
  await act(page, 'Keep it');
  await expect(sheet(page).getByRole('alert')).toContainText('below that of a bad one');
  await fill(page, { 'A good lot may fail': '10' });
  // Nothing turned is let pass any more that turned a quarter of its roots.
  for (const what of ['turned by the wall', 'taproot sound', 'straight near the surface', 'straight'])
    await sheet(page)
      .getByTestId('criteria')
      .getByRole('listitem')
      .filter({ has: page.getByText(what, { exact: true }) })
      .getByRole('button', { name: 'Leave out' })
      .click();
  await act(page, 'Keep it');
  await expect(page.getByRole('status').getByText('scorecard kept')).toBeVisible();
  await expect(decision(page)).toContainText('0 of 4 fail');
});

test('a visitor reads the verdicts and is offered nothing to change', async ({ page, demo }) => {
  await signIn(page, demo, 'wren@withybeck.example');
  await openRoots(page, '25-ALN-02');
  await expect(decision(page)).toContainText('Reject: 3 of 4 fail');
  await expect(page.getByRole('button', { name: /Pull a plant|Scorecards/ })).toHaveCount(0);
  await page.keyboard.press('r');
  await expect(sheet(page)).toHaveCount(0);
});

test('containers are compared by the roots they gave, under each school', async ({ page, demo }) => {
  await signIn(page, demo, 'wren@withybeck.example');
  await station(page, 'Roots');
  await page.getByRole('link', { name: 'Compare', exact: true }).click();
  const table = page.getByTestId('roots-compared');
  await expect(table.getByRole('row', { name: /^Slit-wall cell 120 mL/ })).toContainText('100 %');
  await expect(table.getByRole('row', { name: /^Tube 110 mL/ })).toContainText('plug score, of 4 (4)');
  await expect(page.getByTestId('roots-best')).toContainText(/Slit-wall cell|No telling/);
  await page.getByText('Species', { exact: true }).click();
  await expect(table.getByRole('row', { name: /^Common alder/ })).toContainText('25 %');
  await page.getByText('Depth first', { exact: true }).click();
  await expect(table.getByRole('row', { name: /^Sessile oak/ })).toContainText('100 %');
  await page.goBack();
  await expect(page.getByTestId('decision')).toBeVisible();
});

test('Today names rejected lots, and those that leave unjudged', async ({ isla: page }) => {
  await station(page, 'Today');
  const acts = page.getByTestId('roots-act');
  await expect(acts.filter({ hasText: 'Judge the roots of' })).toContainText(
    /half judged, \d+ not pulled yet/,
  );
  await acts.filter({ hasText: 'Deal with the roots of 25-ALN-02' }).getByRole('link').click();
  await expect(page.getByRole('heading', { name: '25-ALN-02', level: 1 })).toBeVisible();
  await expect(decision(page)).toContainText('Reject: 3 of 4 fail');
});
