import { expect, openLot, station, test } from './kauri';

test('a chart tells its values by the arrow keys, and stands in figures beside it', async ({
  isla: page,
}) => {
  await station(page, 'Yard');
  await page.getByRole('link', { name: 'Weather', exact: true }).click();
  const warmth = page.getByTestId('season-warmth');
  const drawing = warmth.getByRole('img');
  await expect(drawing.locator('canvas')).toBeVisible();
  await drawing.focus();
  await page.keyboard.press('End');
  const told = warmth.locator('[aria-live]');
  await expect(told).toContainText(/past years: [\d\s]+\s°C·d \(/);
  const last = await told.textContent();
  await page.keyboard.press('ArrowLeft');
  await expect(told).not.toHaveText(last!);
  await page.keyboard.press('Home');
  await expect(told).toContainText('this season: 0');
  await page.keyboard.press('Escape');
  await expect(told).toHaveText('');
  await warmth.getByText('In figures').click();
  const table = warmth.getByTestId('chart-table');
  await expect(table.getByRole('columnheader', { name: 'this season' })).toBeVisible();
  await expect(table.getByRole('row').nth(30)).toBeVisible();
});

test('a lot’s course stands in figures: forecast with its band, and what was seen', async ({
  isla: page,
}) => {
  await openLot(page, '26-ALN-07');
  const figure = page.getByRole('figure').filter({ has: page.getByTestId('ground-line') });
  await figure.getByText('In figures').click();
  const table = figure.getByTestId('chart-table');
  for (const name of ['Day', 'Height', 'Root fill', 'Sample', 'Plugs pulled'])
    await expect(table.getByRole('columnheader', { name, exact: true })).toBeVisible();
  await expect(table.getByRole('row').nth(20).getByRole('cell').first()).toHaveText(
    /^\d+\scm \(\d+\scm – \d+\scm\)$/,
  );
});
