import { expect, sheet, signIn, station, test } from './kauri';

// Refusals and edits over another's are part of these.
test.use({ expected: { faults: [/409/, /422/] } });

test('orders are written, refused with a sentence, met or not, promised, and taken out', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example');
  await station(page, 'Plan');
  const orders = page.getByTestId('orders');
  await expect(orders.getByText('Merrow rivers trust').first()).toBeVisible();
  await page.getByRole('link', { name: 'Write an order' }).click();
  const dialog = sheet(page);
  await dialog.getByLabel('Buyer').fill('Fell side school');
  await dialog.getByLabel('Species 1').selectOption({ label: 'Field maple, Acer campestre' });
  await dialog.getByLabel('Trees 1').fill('40');
  await dialog.getByLabel('Size from 1').fill('60');
  await dialog.getByLabel('Size to 1').fill('30');
  await dialog.getByLabel('Wanted on 1').fill('2026-12-10');
  await dialog.getByLabel('How far 1').selectOption('promised');
  await dialog.getByRole('button', { name: 'Keep the order' }).click();
  await expect(dialog).toContainText('The size wanted ends before it begins.');
  // What was typed stays, through a reload too.
  await page.reload();
  await expect(dialog.getByLabel('Buyer')).toHaveValue('Fell side school');
  await dialog.getByLabel('Size from 1').fill('');
  await dialog.getByLabel('Size to 1').fill('');
  await dialog.getByLabel('Wanted on 1').fill('2020-12-10');
  await dialog.getByRole('button', { name: 'Keep the order' }).click();
  await expect(dialog).toContainText('A line is wanted by 2020-12-10, which has gone by');
  await dialog.getByLabel('Wanted on 1').fill('2026-12-10');
  await dialog.getByRole('button', { name: 'Keep the order' }).click();
  await expect(page.getByRole('heading', { name: 'Fell side school', level: 1 })).toBeVisible();
  await expect(page.getByTestId('lines')).toContainText('40 Field maple');
  await expect(page.getByTestId('met')).toContainText(
    'Can be met, size and plugs each nine chances in ten: 26-ACA-01',
  );
  await page.getByRole('link', { name: 'What else could be promised of these' }).click();
  const tag = page.getByTestId('decision');
  await expect(tag).toContainText(/\d+ trees can still be promised/);
  await expect(tag).toContainText(/\d+ promised before are kept/);
  const free = async () => Number(/(\d+) trees can/.exec((await tag.innerText()).replace(/\u202f/g, ''))![1]);
  const before = await free();
  await expect(page.getByTestId('from-lots')).toContainText('26-ACA-01');
  await page.getByLabel('On', { exact: true }).fill('2020-01-01');
  await expect(page.getByText('That day has gone by')).toBeVisible();
  // Taken out, its trees are free again.
  await page.goBack();
  await page.getByRole('button', { name: 'Take it out' }).click();
  await expect(page.getByRole('status').getByText('Order taken out.')).toBeVisible();
  await expect(orders).not.toContainText('Fell side school');
  await page
    .getByRole('navigation', { name: 'Parts of the plan' })
    .getByRole('link', { name: 'Free to promise' })
    .click();
  await page.getByLabel('On', { exact: true }).fill('2026-12-10');
  await expect.poll(free).toBe(before + 40);
});

test('two people change one order: the second is told, and may keep theirs over it', async ({
  page,
  own,
  browser,
}) => {
  await signIn(page, own, 'isla@withybeck.example');
  await station(page, 'Plan');
  await page.getByTestId('orders').getByText('Low Carr farm').first().click();
  await page.getByRole('button', { name: 'Change' }).click();
  await sheet(page).getByLabel('Trees 1').fill('300');
  const other = await (await browser.newContext()).newPage();
  await signIn(other, own, 'isla@withybeck.example');
  await other.goto(page.url());
  await other.getByRole('button', { name: 'Change' }).click();
  await sheet(other).getByLabel('Trees 1').fill('310');
  await sheet(other).getByRole('button', { name: 'Keep the order' }).click();
  await expect(other.getByTestId('lines')).toContainText('310 Goat willow');
  await other.context().close();
  await sheet(page).getByRole('button', { name: 'Keep the order' }).click();
  await expect(sheet(page).getByRole('alert')).toContainText('this order');
  await expect(sheet(page).getByLabel('Trees 1')).toHaveValue('300');
  await sheet(page).getByRole('button', { name: 'Keep the order' }).click();
  await expect(page.getByTestId('lines')).toContainText('300 Goat willow');
});

test('lines go out to a table and come in from one pasted, bad ones named and nothing taken unasked', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example');
  await station(page, 'Plan');
  await page.getByRole('button', { name: 'Tables in and out' }).click();
  const download = page.waitForEvent('download');
  await sheet(page).getByRole('button', { name: 'Every line (CSV)' }).click();
  expect((await download).suggestedFilename()).toBe('orders.csv');
  await sheet(page)
    .getByLabel('Or lines pasted, with their headings')
    .fill(
      [
        'buyer,species,count,on,from_cm,form',
        'Ridge farm,Alnus glutinosa,120,2027-03-01,40,bare-root',
        'Ridge farm,Silver birch,80,2027-03-01,,plug',
        'Ridge farm,Ginkgo biloba,5,2027-03-01,,plug',
        'Ridge farm,Rowan,few,2027-03-01,,plug',
      ].join('\n'),
    );
  await expect(sheet(page)).toContainText('1 order can be taken, 2 lines cannot');
  await expect(sheet(page)).toContainText('Line 4: Ginkgo biloba is not in your species list');
  await expect(sheet(page)).toContainText('Line 5: count: “few” is not a number');
  await sheet(page).getByRole('button', { name: 'Take 1 order' }).click();
  await expect(page.getByTestId('orders')).toContainText('Ridge farm');
  await expect(page.getByTestId('orders')).toContainText('2 lines, 200 trees to come');
});

test('an empty order book says what goes there', async ({ page, own }) => {
  await own.database.query('delete from tree_order');
  await signIn(page, own, 'isla@withybeck.example');
  await station(page, 'Plan');
  await expect(page.getByText('Nothing is asked for yet')).toBeVisible();
});
