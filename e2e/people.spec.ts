import { choose, expect, openLot, sheet, signIn, speaking, station, test } from './kauri';

test('the demo’s people sign in from the door, and out again', async ({ page, demo }) => {
  await page.goto(demo.url);
  await page.getByRole('button', { name: /Tam, crew/ }).click();
  // The door's button and the top bar's bear the same words: the ribbon says that the door is behind.
  await expect(page.getByTestId('ribbon')).toBeVisible();
  await page.getByRole('button', { name: /Tam, crew/ }).click();
  await page.getByRole('menuitem', { name: 'Sign out', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test.describe('a wrong password', () => {
  test.use({ expected: { faults: [/401/] } });
  test('is refused in a sentence, and what was typed stays', async ({ page, demo }) => {
    await page.goto(demo.url);
    await page.getByLabel('E-mail').fill('isla@withybeck.example');
    await page.getByLabel('Password').fill('not the password');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('alert')).toHaveText('The e-mail address or the password is not right.');
    await expect(page.getByLabel('E-mail')).toHaveValue('isla@withybeck.example');
  });
});

test('a visitor sees everything and is offered nothing to change', async ({ page, demo }) => {
  await signIn(page, demo, 'wren@withybeck.example');
  await openLot(page, '26-SOR-03');
  await expect(
    page.getByRole('button', { name: /Measure|Count|Lift|Pull|Write off|Take back|Edit/ }),
  ).toHaveCount(0);
  await expect(page.getByRole('link', { name: /New lot/ })).toHaveCount(0);
  await page.keyboard.press('m');
  await page.keyboard.press('n');
  await expect(sheet(page)).toHaveCount(0);
  await station(page, 'Yard');
  await expect(page.getByRole('link', { name: /Add bed|Add bench|Edit|Sow here/ })).toHaveCount(0);
});

test('crew record, and are not offered to redesign', async ({ page, demo }) => {
  await signIn(page, demo, 'tam@withybeck.example');
  await openLot(page, '26-SOR-03');
  await expect(page.getByRole('button', { name: /Measure/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /Edit wanted/ })).toHaveCount(0);
  await station(page, 'Yard');
  await expect(page.getByRole('link', { name: /Add bed/ })).toHaveCount(0);
});

test('the south has its seasons half a year on', async ({ page, demo }) => {
  await speaking(page, 'en-GB');
  await signIn(page, demo, 'nahuel@piedraclara.example');
  await expect(page.getByText('Vivero Piedra Clara', { exact: true })).toBeVisible();
  await expect(page.getByTestId('ribbon')).toContainText('Jul');
  await station(page, 'Grow');
  await expect(page.getByTestId('lots')).not.toContainText('Sessile oak');
  await station(page, 'Lift');
  await expect(page.locator('main')).toContainText('No bed lot is dormant');
});

test('units and scheme switch, and stay; on paper it is black on white, the page alone', async ({
  isla: page,
}) => {
  // Until somebody chooses, the scheme is the system's.
  const scheme = page.locator('html');
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect(scheme).toHaveAttribute('data-theme', 'dark');
  await page.emulateMedia({ colorScheme: 'light' });
  await expect(scheme).toHaveAttribute('data-theme', 'light');
  await openLot(page, '26-SOR-03');
  await expect(page.getByTestId('figures')).toContainText('cm');
  await page.getByRole('button', { name: /Units: metric/ }).click();
  await expect(page.getByTestId('figures')).toContainText('in (');
  await page.getByRole('button', { name: 'Dark scheme' }).click();
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await expect(page.getByTestId('figures')).toContainText('in (');
  await page.keyboard.press('m');
  await page.keyboard.type('10');
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toContainText('Height 10.0 in');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toHaveCount(0);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('heading', { name: '26-SOR-03', level: 1 })).toBeVisible();
  await expect(page.getByText('Withybeck Tree Yard, as of Tue 24 Nov')).toBeVisible();
  await expect(page.getByTestId('ribbon')).toBeHidden();
  await expect(page.locator('nav').first()).toBeHidden();
  await expect(page.getByRole('button', { name: 'Measure' })).toHaveCount(0);
  await expect(page.locator('body')).toHaveCSS('background-color', 'rgb(255, 255, 255)');
  await expect(page.locator('body')).toHaveCSS('color', 'rgb(0, 0, 0)');
});

test('what was half typed in one nursery is not shown in another', async ({ page, demo }) => {
  await signIn(page, demo, 'isla@withybeck.example', '/seed?add=1');
  await choose(sheet(page).getByLabel('Species', { exact: true }), 'Spindle, Euonymus europaeus');
  await sheet(page).getByLabel('Code', { exact: true }).fill('S-SECRET');
  // Another person sits down at the same tab, without anybody having signed out.
  await speaking(page, 'en-GB');
  await signIn(page, demo, 'nahuel@piedraclara.example', '/seed?add=1');
  await expect(sheet(page).getByLabel('Code', { exact: true })).toHaveValue('');
  await expect(sheet(page).getByLabel('Species', { exact: true })).not.toHaveAttribute('data-value', '');
  // Signed out, it is gone for whoever comes next.
  await signIn(page, demo, 'isla@withybeck.example', '/seed?add=1');
  await expect(sheet(page).getByLabel('Code', { exact: true })).toHaveValue('S-SECRET');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /Isla, grower/ }).click();
  await page.getByRole('menuitem', { name: 'Sign out', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await signIn(page, demo, 'isla@withybeck.example', '/seed?add=1');
  await expect(sheet(page).getByLabel('Code', { exact: true })).toHaveValue('');
});
