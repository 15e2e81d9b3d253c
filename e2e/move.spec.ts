import { act, choose, expect, fill, lookAt, openLot, sheet, signIn, station, test } from './kauri';
import { dayOf } from '@kauri/core';

test('a root-bound lot is tried in a larger pot, moved on, seen where it stood, and moved back', async ({
  page,
  own,
  expected,
}) => {
  // Too few trays are refused.
  expected.faults.push(/422/);
  await signIn(page, own, 'tam@withybeck.example');
  await openLot(page, '26-ALN-07');
  await expect(page.getByTestId('decision')).toContainText(/move it on/i);
  await page.keyboard.press('s');
  await choose(sheet(page).getByLabel('Container'), 'Ribbed vented pot 2 L');
  await choose(sheet(page).getByLabel('Place'), 'Standing-out 1');
  await test.step('trying shows what it would change, and keeps nothing', async () => {
    await expect(sheet(page).getByTestId('bought')).toContainText(/buys about|not forecast root-bound/);
    const fill = sheet(page)
      .getByTestId('what-if')
      .getByRole('row', { name: /Root fill/ });
    await expect(fill.getByRole('cell').nth(0)).toContainText(/^\s*(0\.9|1\.)/);
    await expect(fill.getByRole('cell').nth(1)).toContainText('0.0');
    await sheet(page).getByLabel('Try it as if moved on').fill('2027-03-20');
    await expect(sheet(page).getByTestId('what-if')).toContainText('Moved Sat 20 Mar 2027');
    await page.keyboard.press('Escape');
    await expect(page.getByText('Tube 150 mL, racked, Bench 1').first()).toBeVisible();
  });
  await test.step('what does not fit is refused, and stays typed', async () => {
    await page.keyboard.press('s');
    await expect(sheet(page).getByLabel('Container')).toHaveText('Ribbed vented pot 2 L');
    await fill(page, { Trays: '900' });
    await act(page, 'Move it on');
    await expect(sheet(page).getByLabel('Trays')).toBeFocused();
    await expect(sheet(page)).toContainText(/Room for \d+\./);
    await fill(page, { Trays: '2' });
    await act(page, 'Move it on');
    await expect(sheet(page).getByRole('alert')).toContainText('hold 16 trees; 412 are to be moved');
    await fill(page, { Trays: '52', 'Lost in moving': '4' });
  });
  await test.step('roots are counted as they pass; what cannot be is told at its field', async () => {
    await page.getByTestId('roots-moving').click();
    await fill(page, { 'Looked at': '40', Circling: '41' });
    await sheet(page).getByRole('button', { name: 'One more' }).last().click();
    await expect(sheet(page)).toContainText('407 move, room for 416');
    await act(page, 'Move it on');
    await expect(sheet(page)).toContainText('No more than were looked at.');
    await fill(page, { Circling: '11' });
    await act(page, 'Move it on');
  });
  await test.step('moved, it fills anew and Today no longer asks for it', async () => {
    await expect(page.getByTestId('decision')).toContainText('Leave it to fill');
    await expect(page.getByText('Ribbed vented pot 2 L, Standing-out 1').first()).toBeVisible();
    await expect(page.getByTestId('records')).toContainText(
      'moved on; 40 looked at: 11 circling, 1 rejected',
    );
    await station(page, 'Today');
    await expect(page.getByText('Plan a shift for', { exact: false }).first()).toBeVisible();
    await expect(page.getByText('Move 26-ALN-07 on')).toHaveCount(0);
    await station(page, 'Yard');
    await page.getByTestId('places').getByText('Standing-out 1', { exact: true }).click();
    await expect(page.locator('main')).toContainText('26-ALN-07');
  });
  await test.step('an earlier date shows it where it stood then', async () => {
    await openLot(page, '26-ALN-07');
    await lookAt(page, dayOf('2026-11-10'));
    await expect(page.getByText('Tube 150 mL, racked, Bench 1').first()).toBeVisible();
    await page.keyboard.press('.');
    await expect(page.getByText('Ribbed vented pot 2 L, Standing-out 1').first()).toBeVisible();
  });
  await test.step('taken back, it stands where it stood', async () => {
    await page
      .getByTestId('records')
      .getByRole('row', { name: /moved on/ })
      .getByRole('button', { name: 'Take back' })
      .click();
    // The record is gone from the list once it was taken back; the decision follows.
    await expect(page.getByTestId('records').getByRole('row', { name: /moved on/ })).toHaveCount(0);
    await expect(page.getByText('Tube 150 mL, racked, Bench 1').first()).toBeVisible();
    await expect(page.getByTestId('decision')).toContainText(/move it on/i);
  });
  await test.step('and can be moved on once more', async () => {
    await page.keyboard.press('s');
    await choose(sheet(page).getByLabel('Container'), 'Ribbed vented pot 2 L');
    await choose(sheet(page).getByLabel('Place'), 'Standing-out 1');
    await act(page, 'Move it on');
    await expect(page.getByTestId('decision')).toContainText('Leave it to fill');
  });
});
