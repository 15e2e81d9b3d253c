import { Secret, TOTP } from 'otpauth';
import { choose, expect, sheet, signIn, test } from './kauri';

test.describe('a crew', () => {
  test.use({ expected: { faults: [/404/, /422/] } });
  test('an owner of an empty nursery takes somebody in, who forgets a password and gets back', async ({
    page,
    empty,
    browser,
  }) => {
    await page.goto(empty.url);
    await page.getByLabel('Nursery').fill('Harrow Slip');
    await page.getByLabel('Place', { exact: true }).fill('Underhill');
    await page.getByLabel(/Latitude/).fill('52.1');
    await page.getByLabel(/Longitude/).fill('-1.2');
    await page.getByLabel(/Height/).fill('90');
    await page.getByLabel('Your name').fill('Ada');
    await page.getByLabel('E-mail').fill('ada@harrow.example');
    await page.getByLabel('Password').fill('roots before tops');
    await page.getByRole('button', { name: 'Open the yard' }).click();
    await page.getByRole('button', { name: /Ada, owner/ }).click();
    await page.getByRole('menuitem', { name: /People of/ }).click();
    await page.getByRole('button', { name: 'Invite somebody' }).click();
    await sheet(page).getByLabel('Who').fill('Finn');
    await page.keyboard.press('Enter');
    const invitation = await sheet(page).getByLabel('The invitation').inputValue();
    await page.keyboard.press('Escape');
    await expect(page.getByTestId('invites')).toContainText('Finn, as crew');

    const context = await browser.newContext({ serviceWorkers: 'block' });
    const theirs = await context.newPage();
    await theirs.goto(invitation);
    await expect(theirs.getByRole('heading', { name: 'Join Harrow Slip' })).toBeVisible();
    await theirs.getByLabel('E-mail').fill('finn@harrow.example');
    await theirs.getByLabel('Password').fill('short');
    await theirs.getByRole('button', { name: 'Join', exact: true }).click();
    await expect(theirs.getByText('A password has at least 10 characters.').first()).toBeVisible();
    await theirs.getByLabel('Password').fill('trench and ditch');
    await theirs.getByRole('button', { name: 'Join', exact: true }).click();
    await expect(theirs.getByRole('button', { name: /Finn, crew/ })).toBeVisible();

    // The invitation is used up; the owner makes a grower of them, and a link for a password they forgot.
    await page.reload();
    await expect(page.getByTestId('invites')).toHaveCount(0);
    const row = page.getByTestId('people').getByRole('listitem').filter({ hasText: 'Finn' });
    await choose(row.getByLabel('Role of Finn'), 'grower');
    await expect(page.getByText('Finn is grower now.')).toBeVisible();
    await row.getByRole('button', { name: /New password/ }).click();
    const link = await sheet(page).getByLabel('The link').inputValue();
    await theirs.goto(link);
    await theirs.getByLabel('New password').fill('another spade entirely');
    await theirs.getByRole('button', { name: 'Keep it and sign in' }).click();
    await expect(theirs.getByRole('button', { name: /Finn, grower/ })).toBeVisible();
    await theirs.goto(link);
    await expect(theirs.getByRole('alert')).toContainText('This link was used already');
    // The last owner cannot leave.
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Take out Ada' }).click();
    await sheet(page).getByRole('button', { name: 'Leave' }).click();
    await expect(sheet(page).getByRole('alert')).toContainText('A nursery needs an owner');
    await context.close();
  });
});

test.describe('a second factor', () => {
  test.use({ expected: { faults: [/401/] } });
  test('is set up, asked for, and ended by its person', async ({ page, own }) => {
    await signIn(page, own, 'isla@withybeck.example', '/account');
    await expect(page.getByTestId('browsers')).toContainText('this one');
    await page.getByLabel('Your password').fill('grow-young-trees');
    await page.getByRole('button', { name: 'Set up a second factor' }).click();
    const totp = new TOTP({ secret: Secret.fromBase32(await page.getByTestId('secret').innerText()) });
    const step = (steps: number) => totp.generate({ timestamp: Date.now() + steps * 30_000 });
    await page.getByLabel('Code').fill(step(-1));
    await page.getByRole('button', { name: 'Put it in force' }).click();
    await expect(page.getByTestId('recovery').getByRole('listitem')).toHaveCount(10);
    await page.getByRole('button', { name: 'They are written down' }).click();
    await page.getByRole('button', { name: /Isla, grower/ }).click();
    await page.getByRole('menuitem', { name: 'Sign out', exact: true }).click();

    await page.getByLabel('E-mail').fill('isla@withybeck.example');
    await page.getByLabel('Password', { exact: true }).fill('grow-young-trees');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel(/Code of your authenticator/)).toBeFocused();
    await page.keyboard.type('000000');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toContainText('That code is not right');
    await page.getByLabel(/Code of your authenticator/).fill(step(1));
    await page.keyboard.press('Enter');
    await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible();
  });
});

test('what was half typed in a tab that was closed is there in the next, and nobody else’s', async ({
  context,
  page,
  demo,
}) => {
  await signIn(page, demo, 'isla@withybeck.example', '/seed?add=1');
  await sheet(page).getByLabel('Code', { exact: true }).fill('S-HALF');
  // A second tab does not type into the first one's sheet.
  const second = await context.newPage();
  await second.goto(`${demo.url}/seed?add=1`);
  await expect(sheet(second).getByLabel('Code', { exact: true })).toHaveValue('');
  await second.close();
  const closed = page.waitForEvent('close');
  await page.close({ runBeforeUnload: true });
  await closed;
  const third = await context.newPage();
  await third.goto(`${demo.url}/seed?add=1`);
  await expect(sheet(third).getByLabel('Code', { exact: true })).toHaveValue('S-HALF');
  await sheet(third).getByLabel('Code', { exact: true }).fill('');
});

test('a nursery goes out as a file and comes into an empty Kauri, to the last tree', async ({
  page,
  demo,
  empty,
}) => {
  await signIn(page, demo, 'orla@withybeck.example', '/records');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: /Take Withybeck Tree Yard out/ }).click();
  const file = await (await download).path();

  await page.goto(empty.url);
  await page.getByRole('button', { name: 'I have an archive of one' }).click();
  await page.getByLabel('Your name').fill('Rowan');
  await page.getByLabel('E-mail').fill('rowan@harrow.example');
  await page.getByLabel('Password').fill('roots before tops');
  await page.getByRole('button', { name: 'Go on to the archive' }).click();
  await page.getByLabel('Archive').setInputFiles(file);
  await expect(page.getByRole('status')).toContainText('Withybeck Tree Yard is here');
  await page.getByRole('button', { name: 'Go to Withybeck Tree Yard' }).click();
  await expect(page.getByRole('button', { name: /Rowan, owner/ })).toBeVisible();
  await page.goto(`${empty.url}/grow`);
  await expect(page.getByTestId('lots')).toContainText('26-SOR-03');
});
