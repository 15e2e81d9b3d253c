import { choose, expect, openLot, sheet, signIn, test } from './kauri';

// Refusals are part of these.
test.use({ expected: { faults: [/409/, /422/] } });

test('plants in humid air are opened a step a day, put back where they wilt, and counted at the end', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/');
  const act = page.getByTestId('lot-act').filter({ hasText: 'Open IN-IAQ-01 a little more: step 4 of 7' });
  await act.getByRole('link').first().click();
  const hold = page.getByTestId('hold');
  await expect(hold).toContainText('Opening: 3 of 7 steps. Open a little more now.');
  await hold.getByRole('button', { name: 'opened a little more' }).click();
  await expect(hold).toContainText('4 of 7 steps');
  await hold.getByRole('button', { name: 'opened a little more' }).click();
  await expect(hold.getByRole('alert')).toContainText('One step a day');
  await hold.getByRole('button', { name: /^wilted/ }).click();
  await expect(hold).toContainText('3 of 7 steps, back one for wilting');
  await page.reload();
  await expect(hold).toContainText('3 of 7 steps, back one for wilting');

  await hold.getByRole('button', { name: 'End it' }).click();
  await sheet(page).getByLabel('Alive').fill('13');
  await sheet(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(sheet(page).getByRole('alert')).toContainText('only 12 of IN-IAQ-01 stand');
  await sheet(page).getByLabel('Alive').fill('10');
  await sheet(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('10 of 12 came through.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(hold).toContainText('3 of 7 steps');
});

test('a severed or dug lot is put into humid air from its page', async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example');
  await openLot(page, '26-TCO-01');
  await page.getByTestId('hold-open').click();
  await choose(sheet(page).getByLabel('Why'), 'severed layers');
  await sheet(page).getByRole('button', { name: 'Hold it' }).click();
  const hold = page.getByTestId('hold');
  await expect(hold).toContainText('Shut, 0 flushes of new leaves seen');
  await hold.getByRole('button', { name: 'new leaves' }).click();
  await expect(hold).toContainText('Shut, 1 flush of new leaves seen');
  await expect(hold.getByRole('button', { name: 'opened a little more' })).toHaveCount(0);
});
