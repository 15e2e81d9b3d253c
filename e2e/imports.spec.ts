import { readFile } from 'node:fs/promises';
import { strToU8, zipSync } from 'fflate';
import { expect, saveTable, signIn, stationTable, test } from './kauri';

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
    .getByLabel('Choose a table')
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
  const input = page.getByLabel('Choose a table').first();
  await input.setInputFiles(csv(Buffer.from([0x50, 0x4b, 0x03, 0x04, 0, 0, 0, 1]), 'sheet.xlsx'));
  await expect(page.getByRole('alert')).toContainText('sheet.xlsx cannot be read as a spreadsheet');
  await page.getByLabel('Choose a table').first().setInputFiles(csv('', 'empty.csv'));
  await expect(page.getByRole('alert')).toContainText('empty.csv is empty');
  await page.getByLabel('Choose a table').first().setInputFiles(csv('just some words\nand more of them\n'));
  await expect(page.getByRole('alert')).toContainText('no table of two columns');
});

test('a long import shows how far it is, and stopping it takes nothing', async ({ page, own }) => {
  const kept = async () =>
    (await own.database.query('select min(t_min_c) as low, count(*)::int as n from weather_day'))
      .rows[0] as unknown;
  const before = await kept();
  const [head, ...days] = stationTable(9).split('\n');
  const many = [head, ...Array.from({ length: 30_000 }, (_, i) => days[i % days.length])].join('\n');
  await page.getByLabel('Choose a table').first().setInputFiles(csv(many));
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
  await page.getByLabel('Choose a table').last().setInputFiles(csv(table));
  await expect(page.getByLabel('Heights in')).toHaveAttribute('data-value', 'in');
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
    saveTable(page.getByRole('button', { name: 'Save as a table' }).first()),
  ]);
  expect(download.suggestedFilename()).toBe('weather.csv');
});

test('weather goes out as a spreadsheet, and one of its sheets comes in again', async ({ page, own }) => {
  for (const format of [/XLSX/, /ODS/]) {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      saveTable(page.getByRole('button', { name: 'Save as a table' }).first(), format),
    ]);
    await page
      .getByLabel('Choose a table')
      .first()
      .setInputFiles({
        name: download.suggestedFilename(),
        mimeType: 'application/octet-stream',
        buffer: await readFile(await download.path()),
      });
    await expect(page.getByTestId('preview')).toContainText('20');
    await page.getByRole('button', { name: 'Check every line' }).click();
    const { rows } = await own.database.query(`select count(*)::int as n from weather_day d
      join nursery n on n.id = d.nursery_id where n.name = 'Withybeck Tree Yard' and d.t_min_c is not null`);
    expect(rows[0].n).toBeGreaterThan(1000);
    await expect(page.getByTestId('report')).toContainText('can be taken');
    await expect(page.getByTestId('report')).toContainText('every line reads well');
    await page.getByRole('button', { name: 'Take nothing' }).click();
  }
});

test('of a spreadsheet with several sheets it is asked which one is meant', async ({ page }) => {
  const rows = (lines: string[][]) =>
    lines
      .map(
        (line) =>
          `<table:table-row>${line
            .map(
              (text) =>
                `<table:table-cell office:value-type="string"><text:p>${text}</text:p></table:table-cell>`,
            )
            .join('')}</table:table-row>`,
      )
      .join('');
  const sheets = {
    Notes: rows([
      ['what', 'who'],
      ['read me', 'all'],
    ]),
    Days: rows([
      ['date', 'min', 'max', 'rain'],
      ['2026-11-20', '1,5', '7', '0'],
    ]),
  };
  const content = `<office:document-content>${Object.entries(sheets)
    .map(([name, body]) => `<table:table table:name="${name}">${body}</table:table>`)
    .join('')}</office:document-content>`;
  await page
    .getByLabel('Choose a table')
    .first()
    .setInputFiles({
      name: 'year.ods',
      mimeType: 'application/octet-stream',
      buffer: Buffer.from(zipSync({ 'content.xml': strToU8(content) })),
    });
  await page.getByText('Days', { exact: true }).click();
  await expect(page.getByTestId('preview')).toContainText('1.5');
  await page.getByRole('button', { name: 'Check every line' }).click();
  await expect(page.getByTestId('report')).toContainText('1 day can be taken');
});
