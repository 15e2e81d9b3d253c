import type { Page } from '@playwright/test';
import { usPrices } from '@kauri/core';
import { expect, openLot, sheet, signIn, test } from './kauri';

/** What each page shows once its figures are there. */
const pages: readonly (readonly [path: string, landmark: string])[] = [
  ['/today', 'text=Act now'],
  ['/yard', '[data-testid=plan]'],
  ['/yard/light', '[data-testid=sun-table]'],
  ['/yard/weather', '[data-testid=weather-events]'],
  ['/yard/water', '[data-testid=drips]'],
  ['/yard/build', '[data-testid=designs]'],
  ['/yard/containers', '[data-testid=compare]'],
  ['/yard/media', 'main h2'],
  ['/seed', '[data-testid=seed-lots]'],
  ['/seed?add=1', 'role=dialog >> h2'],
  ['/seed/clock', '[data-testid=batches]'],
  ['/seed/desk', '[data-testid=chain]'],
  ['/seed/up', '[data-testid=rising]'],
  ['/seed/cuttings', '[data-testid=stock-gives]'],
  ['/seed/layers', '[data-testid=layers]'],
  ['/seed/labels', '[data-testid=label-lots]'],
  ['/seed/species', 'main h1'],
  ['/plan', '[data-testid=met]'],
  ['/plan?add=1', 'role=dialog >> h2'],
  ['/plan/promise', '[data-testid=along]'],
  ['/plan/when', '[data-testid=ways]'],
  ['/plan/season', '[data-testid=figures]'],
  ['/plan/costs', '[data-testid=costs] >> text=A tree costs'],
  ['/plan/lists', '[data-testid=on-hand] >> text=Seed of'],
  ['/plan/board', '[data-testid=board]'],
  ['/plan/routes', '[data-testid=routes]'],
  ['/grow', '[data-testid=lots]'],
  ['/roots', 'main h1'],
  ['/lift', 'main h1, main p'],
  ['/lift/order', '[data-testid=lifting-order]'],
  ['/lift/lifted', '[data-testid=sendings]'],
  ['/seed/arrivals', '[data-testid=suppliers]'],
  ['/seed/arrivals?add=1', 'role=dialog >> h2'],
  ['/planted', '[data-testid=planted-parts]'],
  ['/planted?add=1', 'role=dialog >> h2'],
  ['/planted/lived', '[data-testid=lived]'],
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
      if (!text || parent.closest('script, style, .key, [data-testid=working]')) continue;
      const box = parent.getBoundingClientRect();
      if (box.width === 0) continue;
      const isFigure = /\d/.test(text) && unit.test(text);
      const isUnit = /^(mm|cm|m|°C|°C·d|L|mL|kg|g|m²|per m²|L\/h|mm\/h)$/.test(text);
      if (isFigure || isUnit || /[£€]/.test(text)) found.push(text.slice(0, 120));
    }
    return found;
  });
}

/** Goes to a page within the application, as a link of it does. */
async function go(page: Page, path: string): Promise<void> {
  await page.evaluate((to) => {
    const root = document.querySelector('#app') as unknown as {
      __vue_app__: { config: { globalProperties: { $router: { push: (to: string) => Promise<unknown> } } } };
    };
    return root.__vue_app__.config.globalProperties.$router.push(to).then(() => undefined);
  }, path);
}

test('a nursery in US units shows no other on any of its pages', async ({ page, own }) => {
  await own.database.query(`update nursery set units = 'us'`);
  await own.database.query(
    `insert into nursery_value (nursery_id, kind, value) select id, 'prices', $1 from nursery
     on conflict (nursery_id, kind) do update set value = excluded.value`,
    [usPrices],
  );
  // The demo's containers are named in metric by whoever named them.
  await own.database.query(
    `update container_type set values = jsonb_set(values, '{name}', to_jsonb(regexp_replace(values->>'name', ' m?L\\M', '')))`,
  );
  await signIn(page, own, 'isla@withybeck.example');
  const found: Record<string, string[]> = {};
  const read = async (what: string) => {
    const texts = await metric(page);
    if (texts.length) found[what] = texts;
  };
  for (const [path, landmark] of pages) {
    await go(page, path);
    await expect(page.locator(landmark).first(), path).toBeVisible();
    await read(path);
  }
  for (const code of ['26-ALN-07', '25-CBE-01', '26-QPE-01']) {
    await openLot(page, code);
    await read(code);
    for (const key of ['m', 's', 'w', 'e']) {
      await page.keyboard.press(key);
      await expect(sheet(page).getByRole('heading', { level: 2 })).toBeVisible();
      await read(`${code}, ${key}`);
      await page.keyboard.press('Escape');
      await expect(sheet(page)).toHaveCount(0);
    }
  }
  expect(found).toEqual({});
});
