import type { Page } from '@playwright/test';
import { expect, openLot, sheet, signIn, test } from './kauri';

/** What each page shows once its figures are there. */
const pages: readonly (readonly [path: string, landmark: string])[] = [
  ['/today', 'text=Act now'],
  ['/yard', '[data-testid=plan]'],
  ['/yard/light', '[data-testid=places], table'],
  ['/yard/weather', 'table'],
  ['/yard/water', 'table'],
  ['/yard/build', 'table'],
  ['/yard/containers', 'table'],
  ['/yard/media', 'main h2'],
  ['/seed', '[data-testid=seed-lots]'],
  ['/seed/clock', 'main h1'],
  ['/seed/desk', '[data-testid=chain]'],
  ['/seed/up', 'main h1'],
  ['/seed/cuttings', 'main h1'],
  ['/seed/layers', 'main h1'],
  ['/seed/labels', 'main h1, main h2'],
  ['/seed/species', 'main h1'],
  ['/grow', '[data-testid=lots]'],
  ['/roots', '[data-testid=lots]'],
  ['/lift', '[data-testid=lots]'],
  ['/held', '[data-testid=held-all]'],
  ['/records', 'main h1'],
];

/**
 * Text on the page that holds a metric unit or another money. Workings are formulas in metric, as they are published, and
 * names and notes are the nursery's own: neither is read.
 */
async function metric(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const unit =
      /(?:^|[\d\s(])(mm|cm|m|km|°C|°C·d|L|mL|kg|g|m²|m³|L\/h|L\/min|kPa|\/m²|per m²)(?=$|[\s.,;)])/;
    const found: string[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    while (walker.nextNode()) {
      const text = walker.currentNode.textContent!.trim();
      const parent = walker.currentNode.parentElement!;
      if (!text || parent.closest('script, style, [data-testid=working], [data-own]')) continue;
      const box = parent.getBoundingClientRect();
      if (box.width === 0) continue;
      const isFigure = /\d/.test(text) && unit.test(text);
      const isUnit = /^(mm|cm|m|°C|°C·d|L|mL|kg|g|m²|per m²|L\/h|mm\/h)$/.test(text);
      if (isFigure || isUnit || /[£€]/.test(text)) found.push(text.slice(0, 120));
    }
    return found;
  });
}

test('a nursery in US units shows no other on any of its pages', async ({ page, own }) => {
  await own.database.query(`update nursery set units = 'us'`);
  await own.database.query(
    `update nursery_value set value = jsonb_set(value, '{currency}', '"$"') where kind = 'prices'`,
  );
  await signIn(page, own, 'isla@withybeck.example');
  const found: Record<string, string[]> = {};
  const read = async (what: string) => {
    const texts = await metric(page);
    if (texts.length) found[what] = texts;
  };
  for (const [path, landmark] of pages) {
    await page.goto(own.url + path);
    await expect(page.locator(landmark).first(), path).toBeVisible();
    await read(path);
  }
  for (const code of ['26-ALN-07', '25-CBE-01', '26-QPE-01']) {
    await openLot(page, code);
    await read(code);
    for (const key of ['m', 's', 'w', 'e']) {
      await page.keyboard.press(key);
      await expect(sheet(page)).toBeVisible();
      await read(`${code}, ${key}`);
      await page.keyboard.press('Escape');
      await expect(sheet(page)).toHaveCount(0);
    }
  }
  expect(found).toEqual({});
});
