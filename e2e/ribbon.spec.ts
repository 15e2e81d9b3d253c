import type { Page } from '@playwright/test';
import { dayOf, recompute } from '@kauri/core';
import { expect, lookAt, openLot, station, test } from './kauri';

test('dragging the ribbon changes what every station shows, and today brings it back', async ({
  isla: page,
}) => {
  const ribbon = page.getByTestId('ribbon');
  const box = (await ribbon.boundingBox())!;
  const stations = {
    Today: page.locator('main'),
    Yard: page.getByTestId('places'),
    Grow: page.getByTestId('lots'),
    Lift: page.locator('main'),
  };
  const read = async () => {
    const texts: Record<string, string> = {};
    for (const [name, where] of Object.entries(stations)) {
      await station(page, name);
      await expect(where).toBeVisible();
      texts[name] = await where.innerText();
    }
    return texts;
  };
  const today = await read();
  // To the middle of June.
  const start = Number(await ribbon.getAttribute('aria-valuemin'));
  const end = Number(await ribbon.getAttribute('aria-valuemax'));
  const at = (iso: string) => box.x + ((dayOf(iso) + 0.5 - start) / (end - start + 1)) * box.width;
  await page.mouse.move(at('2026-11-24'), box.y + 50);
  await page.mouse.down();
  await page.mouse.move(at('2026-08-20'), box.y + 50, { steps: 8 });
  await page.mouse.move(at('2026-06-15'), box.y + 50, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByTestId('date')).toContainText('15 Jun');
  await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
  const june = await read();
  for (const name of Object.keys(stations)) expect(june[name], name).not.toBe(today[name]);
  expect(june.Grow).toContain('Filling');
  expect(june.Lift).toContain('No bed lot is dormant');

  await page.keyboard.press('.');
  await expect(page.getByTestId('date')).toContainText('24 Nov');
  expect((await read()).Grow).toBe(today.Grow);
});

test('the ribbon goes by keys, a day and a week at a time, and stays in its bounds', async ({
  isla: page,
}) => {
  const ribbon = page.getByTestId('ribbon');
  const now = async () => Number(await ribbon.getAttribute('aria-valuenow'));
  const today = await now();
  await ribbon.focus();
  await page.keyboard.press('ArrowRight');
  expect(await now()).toBe(today + 1);
  await page.keyboard.press('Shift+ArrowLeft');
  expect(await now()).toBe(today - 6);
  await page.locator('body').press(']');
  expect(await now()).toBe(today + 1);
  await expect(ribbon).toHaveAttribute('aria-valuetext', 'Wed 25 Nov');
  for (let i = 0; i < 30; i++) await page.keyboard.press('PageUp');
  expect(await now()).toBe(today + 400);
  // The address follows.
  await expect(page).toHaveURL(/2027-12-29/);
  await page.reload();
  await expect.poll(now).toBe(today + 400);
});

test('a past date shows only what was known then', async ({ isla: page }) => {
  await openLot(page, '26-SOR-03');
  const records = page.getByTestId('records').getByRole('row');
  const all = await records.count();
  await lookAt(page, dayOf('2026-07-15'));
  await expect.poll(() => records.count()).toBeLessThan(all);
  await expect(page.getByTestId('decision')).toContainText('Leave it to fill');
});

/** Every sum shown under an open working, done again from its numbers. */
async function sumsShown(page: Page) {
  const steps = page.getByTestId('working').getByRole('listitem');
  const sums: { what: string; again: number; result: number }[] = [];
  for (const step of await steps.all()) {
    const expression = step.getByTestId('expression');
    if ((await expression.count()) === 0) continue;
    const result = (await step.getByTestId('result').innerText())
      .replace(/[\u202f\s]/g, '')
      .replace('−', '-');
    sums.push({
      what: await step.getByRole('paragraph').first().innerText(),
      again: recompute(await expression.innerText()),
      result: parseFloat(result),
    });
  }
  return sums;
}

/** At least so many sums are shown, and each gives its result. */
async function expectWorking(page: Page, least: number) {
  const sums = await sumsShown(page);
  expect(sums.length).toBeGreaterThanOrEqual(least);
  for (const { what, again, result } of sums)
    if (result !== 0) expect(Math.abs(again / result - 1), what).toBeLessThan(1e-4);
}

/** Opens every working there is; where the page is still being worked out, what is drawn anew is opened again. */
async function openAll(page: Page) {
  const closed = page.locator('details:not([open]) > summary', { hasText: 'Show working' });
  await expect(async () => {
    for (const opener of await closed.all()) await opener.click({ timeout: 2000 });
    await expect(closed).toHaveCount(0, { timeout: 500 });
    await expect(page.getByTestId('working').first()).toBeVisible({ timeout: 500 });
  }).toPass();
}

test('Show working recomputes by hand to the figure', async ({ isla: page }) => {
  await openLot(page, '26-SOR-03');
  const shown = (
    await page
      .getByTestId('figures')
      .getByText(/^\d+.cm \(/)
      .innerText()
  ).replace(/\D.*/s, '');
  await page.getByText('Show working').click();
  const sums = await sumsShown(page);
  expect(sums.length).toBeGreaterThan(4);
  for (const { what, again, result } of sums) expect(Math.abs(again / result - 1), what).toBeLessThan(1e-4);
  const height = sums.find((sum) => sum.what === 'Height of the middle run')!;
  expect(Math.abs(height.again - Number(shown))).toBeLessThanOrEqual(1);
});

test('the yard’s working recomputes to its figures', async ({ isla: page }) => {
  await station(page, 'Yard');
  await page.getByTestId('places').getByText('Bed 1', { exact: true }).click();
  await page.getByText('What carries it, life and cost, lid, pots instead').click();
  for (const opener of await page.getByText('Show working').all()) await opener.click();
  const settled = page
    .getByTestId('working')
    .getByRole('listitem')
    .filter({ hasText: 'Depth after a season’s settling' });
  const again = recompute(await settled.getByTestId('expression').innerText());
  await expect(page.getByTestId('bed-figures')).toContainText(`${Math.round(again)}\u00a0mm`);
  await expectWorking(page, 20);
});

for (const [part, least] of [
  ['Site plan', 1],
  ['Light', 0],
  ['Water', 8],
  ['Containers', 2],
  ['Build', 1],
  ['Media', 5],
] as const)
  test(`${part}: every figure opens its working, and its sums are right`, async ({ isla: page }) => {
    await station(page, 'Yard');
    await page
      .getByRole('navigation', { name: 'Parts of the yard' })
      .getByRole('link', { name: part })
      .click();
    if (part === 'Build') {
      await page.getByText('Sizes for a piece of ground').click();
      await page.getByRole('button', { name: 'One more of Long, open' }).click();
      await expect(page.getByTestId('buy')).toBeVisible();
    }
    await expect(page.getByText('Show working').first()).toBeVisible();
    await openAll(page);
    await expectWorking(page, least);
  });

test('past forecasts are held against what was measured, as known on the ribbon’s date', async ({
  isla: page,
}) => {
  await openLot(page, '26-SOR-03');
  await page.getByRole('link', { name: 'How well past forecasts held' }).click();
  const all = page.getByTestId('held-all');
  await expect(all).toContainText(/\d+ of \d+ fell within their band: \d+\s%, where 80\s% is promised/);
  const inAll = Number(/of (\d+) fell/.exec((await all.textContent())!)![1]);
  const counts = await page.getByTestId('held').locator('tbody tr td:nth-child(2)').allTextContents();
  expect(counts.reduce((t, n) => t + Number(n), 0)).toBe(inAll);
  await page.getByText('Root fill, by pulled plugs').click();
  await expect(page.getByTestId('held')).toContainText('Common alder');
  await expect(page.getByTestId('held')).not.toContainText('Sessile oak');
});
