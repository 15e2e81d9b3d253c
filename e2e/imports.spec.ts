import { expect, signIn, stationTable, test } from './kauri';

test.use({ expected: { faults: [/422/, /ERR_ABORTED|Failed to load resource/] } });

test.beforeEach(async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example');
  await page.getByRole('link', { name: /Season/ }).click();
});
const csv = (text: string | Buffer, name = 'table.csv') => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(text),
});

test('a bad table is told line by line, and nothing is taken until it is said', async ({ page, own }) => {
  const before = (await own.database.query('select count(*)::int as n from weather_day')).rows[0].n;
  await page
    .getByLabel('Choose a table (CSV)')
    .first()
    .setInputFiles(
      csv('date,min,max,rain\n2026-11-20,1,7,0\n2026-11-21,9,7,0\n2026-11-22,x,7,0\n2031-01-01,1,7,0\n'),
    );
  await expect(page.getByTestId('preview')).toContainText('above the highest');
  await page.getByRole('button', { name: 'Check every line' }).click();
  const report = page.getByTestId('report');
  await expect(report).toContainText('1 day can be taken, 20 Nov 2026 to 20 Nov 2026; 3 lines left out.');
  await expect(report).toContainText('line 3');
  await expect(report).toContainText('line 5');
  expect((await own.database.query('select count(*)::int as n from weather_day')).rows[0].n).toBe(before);
  await page.getByRole('button', { name: 'Take nothing' }).click();
  await expect(report).toHaveCount(0);
});

test('a file that is no table is refused at once', async ({ page }) => {
  const input = page.getByLabel('Choose a table (CSV)').first();
  await input.setInputFiles(csv(Buffer.from([0x50, 0x4b, 0x03, 0x04, 0, 0, 0, 1]), 'sheet.xlsx'));
  await expect(page.getByRole('alert')).toContainText('sheet.xlsx is not a text table');
  await page.getByLabel('Choose another table').first().setInputFiles(csv('', 'empty.csv'));
  await expect(page.getByRole('alert')).toContainText('empty.csv is empty');
  await page
    .getByLabel('Choose another table')
    .first()
    .setInputFiles(csv('just some words\nand more of them\n'));
  await expect(page.getByRole('alert')).toContainText('no table of two columns');
});

test('a long import shows how far it is, and stopping it takes nothing', async ({ page, own }) => {
  const kept = async () =>
    (await own.database.query('select min(t_min_c) as low, count(*)::int as n from weather_day'))
      .rows[0] as unknown;
  const before = await kept();
  const [head, ...days] = stationTable(9).split('\n');
  const many = [head, ...Array.from({ length: 30_000 }, (_, i) => days[i % days.length])].join('\n');
  await page.getByLabel('Choose a table (CSV)').first().setInputFiles(csv(many));
  await page.getByRole('button', { name: 'Check every line' }).click();
  await expect(page.getByTestId('report')).toContainText('lines left out');
  // Hold the table back, so that the import cannot be over before it is stopped.
  const holder = await own.database.connect();
  await holder.query('begin; lock table weather_day in exclusive mode');
  await page.getByRole('button', { name: /^Take/ }).first().click();
  await expect(page.getByRole('status').getByText(/\d+ %/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('alert')).toHaveText('Stopped. Nothing was taken.');
  await holder.query('commit');
  holder.release();
  const busy = `select count(*)::int as n from pg_stat_activity
    where datname = current_database() and usename = 'kauri_app' and state <> 'idle'`;
  await expect.poll(async () => (await own.database.query(busy)).rows[0].n).toBe(0);
  expect(await kept()).toEqual(before);
});

test('measurements come in by lot, and change its forecast', async ({ page, own }) => {
  const table = [
    'Lot;Day;Height (in)',
    ...[9, 10, 11, 10].map((h) => `26-TCO-01;20/11/2026;${h},5`),
    'NO-SUCH;20/11/2026;9',
  ].join('\n');
  await page.getByLabel('Choose a table (CSV)').last().setInputFiles(csv(table));
  await expect(page.getByLabel('Heights in')).toHaveValue('in');
  await expect(page.getByTestId('preview')).toContainText('24.1');
  await page.getByRole('button', { name: 'Check every line' }).click();
  await expect(page.getByTestId('report')).toContainText('There is no lot “NO-SUCH”.');
  await page.getByRole('button', { name: 'Take 4 plants' }).click();
  await expect(page.getByTestId('report')).toContainText('4 plants taken');
  const { rows } = await own.database.query(
    "select height_n, round(height_mean::numeric, 1)::float as mean from observation where on_date = '2026-11-20' and kind = 'size'",
  );
  expect(rows).toEqual([{ height_n: 4, mean: 26.7 }]);
  // The wrong table: all of it goes again.
  await page.getByTestId('tables-taken').getByRole('button', { name: 'Take it back' }).first().click();
  await expect(page.getByText('1 sample taken back.')).toBeVisible();
  const struck = await own.database.query(
    "select count(*)::int as n from observation where on_date = '2026-11-20' and kind = 'size' and struck_at is null",
  );
  expect(struck.rows[0].n).toBe(0);
});

test('what is kept is saved as a table', async ({ page }) => {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save as CSV' }).first().click(),
  ]);
  expect(download.suggestedFilename()).toBe('weather.csv');
});
