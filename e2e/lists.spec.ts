import { act, expect, signIn, station, test } from './kauri';

test('lots are found by half a word, narrowed, worked on together and the work taken back', async ({
  own,
  page,
}) => {
  await signIn(page, own, 'isla@withybeck.example');
  await station(page, 'Grow');
  const list = page.getByTestId('lots');
  const said = page.getByTestId('lots-said');
  await expect(list.getByText('26-ALN-07', { exact: true })).toBeVisible();

  await page.getByRole('searchbox', { name: 'Find a lot' }).fill('brich');
  await expect(said).toContainText('“brich”: 6 lots');
  await expect(list).not.toContainText('Common alder');
  // The address holds it: a reload and a link show the same.
  await page.reload();
  await expect(said).toContainText('“brich”: 6 lots');
  await page.getByRole('button', { name: 'Filter, sort and group' }).click();
  await page.getByLabel('Place', { exact: true }).selectOption('Bench 1');
  await page.getByLabel('Order', { exact: true }).selectOption('code');
  await page.keyboard.press('Escape');
  await expect(said).toContainText('“brich”, in Bench 1: 2 lots');
  await expect(list.getByRole('link')).toHaveText([/26-BPE-06/, /26-BPU-05/]);

  await page.getByRole('button', { name: 'Choose several lots' }).click();
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.getByRole('button', { name: 'Work done on 2 lots' }).click();
  await page.getByRole('dialog').getByText('Weed', { exact: true }).click();
  await act(page, 'Write it down');
  await expect(page.getByRole('dialog')).toBeHidden();
  const done = async () =>
    (
      await own.database.query(
        "select count(*)::int as n from observation where kind = 'care' and struck_at is null and on_date = '2026-11-24'",
      )
    ).rows[0].n;
  await expect.poll(done).toBe(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(done).toBe(0);
});
