import { expect, openLot, setUp, station, test } from './kauri';

test('a practice nursery is made, entered, worked in, left, and begun afresh; the real one knows nothing of it', async ({
  page,
  empty,
}) => {
  await setUp(page, empty);
  await page.getByRole('link', { name: 'Try it in a practice nursery first' }).click();
  const practice = page.getByTestId('practice');
  // The small one, which is there soonest.
  await practice.getByText('In the south: small, three lots').click();
  await practice.getByRole('button', { name: 'Make it' }).click();
  // Looked for again after a reload, and from another page.
  await page.reload();
  await expect(practice).toHaveAttribute('data-state', 'ready');
  await practice.getByRole('button', { name: 'Enter it' }).click();
  await expect(page.getByTestId('leave-practice')).toBeVisible();

  await station(page, 'Grow');
  await expect(page.getByTestId('lots').getByRole('listitem')).toHaveCount(3);
  await openLot(page, '26-NAN-01');
  await page.keyboard.press('c');
  await page.getByRole('dialog').getByLabel('Seedlings standing now').fill('12');

  await page.keyboard.press('Escape');
  await page.getByTestId('leave-practice').click();
  await expect(page.getByTestId('leave-practice')).toHaveCount(0);
  await expect(page.getByTestId('first-hour')).toBeVisible();
  await station(page, 'Grow');
  await expect(page.getByText('26-NAN-01')).toHaveCount(0);

  await page.goto(`${empty.url}/practice`);
  await practice.getByRole('button', { name: 'Begin it afresh' }).click();
  await practice.getByText('In the south: small, three lots').click();
  await practice.getByRole('button', { name: 'Make it' }).click();
  await expect(practice.getByRole('button', { name: 'Enter it' })).toBeVisible();
});
