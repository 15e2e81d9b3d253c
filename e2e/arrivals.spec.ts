import { choose, expect, sheet, signIn, test } from './kauri';

// Refusals are part of these.
test.use({ expected: { faults: [/409/, /422/] } });

test('liners that came are looked at one by one, taken in part, and stand as a lot of their own', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/seed/arrivals');
  await expect(page.getByTestId('arrivals')).toContainText('118 of 160 liners taken, from Fellgate liners');
  await page.getByRole('link', { name: 'Something came' }).click();
  const dialog = sheet(page);
  await choose(dialog.getByLabel('Species'), 'Rowan');
  await dialog.getByLabel('How many came').fill('60');
  await dialog.getByLabel('From', { exact: true }).fill('Low Gill plants');

  await test.step('enough good roots accept, too many bad ones reject', async () => {
    for (let i = 0; i < 9; i++) await dialog.getByRole('button', { name: 'Good' }).click();
    await expect(dialog.getByTestId('arrival-verdict')).toContainText('Take them');
    for (let i = 0; i < 9; i++) await dialog.getByRole('button', { name: 'Back one' }).click();
    for (let i = 0; i < 3; i++) await dialog.getByRole('button', { name: 'J-root' }).click();
    await expect(dialog.getByTestId('arrival-verdict')).toContainText('Send them back');
    await dialog.getByRole('button', { name: 'Back one' }).click();
    await dialog.getByRole('button', { name: 'Good' }).click();
    await expect(dialog.getByTestId('looks')).toContainText('3 plants, 2 with faults');
  });

  await test.step('no more are taken than are good; what was typed stays through a reload', async () => {
    await dialog.getByLabel('Taken').fill('59');
    await dialog.getByLabel('Heights of some').fill('18 22 20');
    await choose(dialog.getByLabel('Place'), 'Bench 3');
    await choose(dialog.getByLabel('Container'), 'Slit-wall cell 200 mL');
    await dialog.getByLabel('Trays').fill('4');
    await dialog.getByRole('button', { name: 'Keep it' }).click();
    await expect(dialog.getByRole('alert')).toContainText('2 were found with faults');
    await page.reload();
    await expect(dialog.getByLabel('How many came')).toHaveValue('60');
    await dialog.getByLabel('Taken').fill('50');
    await dialog.getByRole('button', { name: 'Keep it' }).click();
    await expect(dialog).toHaveCount(0);
  });
  const row = page.getByTestId('arrivals').getByRole('listitem').filter({ hasText: 'Low Gill plants' });
  await expect(row).toContainText('50 of 60 liners taken');
  await expect(page.getByTestId('suppliers')).toContainText('Low Gill plants');

  await test.step('a note goes back with the rest', async () => {
    const download = page.waitForEvent('download');
    await row.getByRole('button', { name: 'Note for the 10 that go back' }).click();
    expect((await download).suggestedFilename()).toBe('return-2026-11-24.pdf');
  });

  await test.step('the lot is forecast at its own size', async () => {
    await row.getByRole('link').click();
    await expect(page.getByTestId('ground-line')).toBeVisible();
    await page.getByRole('tab', { name: 'Ledger' }).click();
    await expect(page.getByTestId('balances')).toContainText('standing50');
    await page.goBack();
    await row.getByRole('button', { name: 'Take back' }).click();
    await expect(row).toHaveCount(0);
  });
});

test('what is in quarantine is said to be, and a visitor changes nothing', async ({ page, demo }) => {
  await signIn(page, demo, 'wren@withybeck.example', '/seed/arrivals');
  await expect(page.getByTestId('arrivals')).toContainText('In quarantine until 13 Dec 2026');
  await expect(page.getByRole('button', { name: /End it|Take back/ })).toHaveCount(0);
  await expect(page.getByRole('link', { name: 'Something came' })).toHaveCount(0);
});
