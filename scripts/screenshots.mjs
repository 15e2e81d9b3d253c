import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { ensureChromium, ensurePackages } from './lib/packages.mjs';
import { ensureDatabase, ensurePostgres, openThrowaway } from './lib/postgres.mjs';
import { fail, step } from './lib/steps.mjs';

/* npm run screenshots: one picture of each main view, made from the demo as it stands on one fixed day. */
const root = new URL('../', import.meta.url).pathname.replace(/\/$/, '');
const folder = join(root, 'docs/screenshots');
const TODAY = '2026-11-24';

const lot = (code) => async (page) => {
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Grow' }).click();
  await page.getByTestId('lots').getByText(code, { exact: true }).click();
  await page.getByRole('heading', { name: code, level: 1 }).waitFor();
  await page.getByTestId('ground-line').waitFor();
};
const go = (path) => (page) => page.goto(path);

const roots = (code) => async (page) => {
  await page.goto('/roots');
  await page.getByTestId('root-lots').getByText(code, { exact: true }).click();
  await page.getByRole('heading', { name: code, level: 1 }).waitFor();
};

const views = [
  { name: 'today', go: go('/today') },
  { name: 'yard-bed', go: go('/yard') },
  { name: 'water', go: go('/yard/water') },
  { name: 'season', go: go('/yard/weather') },
  {
    // In the nursery that speaks Spanish.
    name: 'seed-store',
    who: 'nahuel@piedraclara.example',
    go: async (page) => {
      await page.goto('/seed');
      await page.getByTestId('seed-lots').getByText('S-NPU-01').click();
      await page.getByRole('heading', { name: 'Lenga', level: 1 }).waitFor();
      await page.getByTestId('decision').waitFor();
    },
  },
  {
    name: 'dormancy',
    go: async (page) => {
      await page.goto('/seed/clock');
      await page.getByTestId('batches').getByText('Leaf tub', { exact: true }).click();
      await page.getByRole('heading', { name: 'Leaf tub', level: 1 }).waitFor();
      await page.getByTestId('phases').waitFor();
      await page.getByTestId('begin').waitFor();
    },
  },
  {
    name: 'sowing-desk',
    go: async (page) => {
      await page.goto('/seed/desk');
      await page.getByLabel('Species', { exact: true }).click();
      await page.getByRole('option', { name: 'Rowan', exact: true }).click();
      await page.getByTestId('bed-answer').waitFor();
    },
  },
  { name: 'lot-in-cells', go: lot('26-SOR-03') },
  {
    name: 'orders',
    go: async (page) => {
      await page.goto('/plan');
      await page.getByTestId('met').first().waitFor();
    },
  },
  {
    name: 'when-to-sow',
    go: async (page) => {
      await page.goto('/plan/when');
      await page.getByLabel('For', { exact: true }).click();
      await page.getByRole('option').filter({ hasText: 'Silver birch' }).last().click();
      await page.getByTestId('when-tag').waitFor();
      await page.getByTestId('needs').getByText('enough with').waitFor();
    },
  },
  {
    name: 'board',
    go: async (page) => {
      await page.goto('/plan/board');
      await page.getByTestId('board').waitFor();
    },
  },
  {
    name: 'season-plan',
    go: async (page) => {
      await page.goto('/plan/season');
      await page.getByTestId('figures').nth(1).waitFor();
    },
  },
  {
    name: 'lift',
    go: async (page) => {
      await page.goto('/lift');
      await page.getByRole('heading', { name: 'Lift from this lot' }).waitFor();
    },
  },
  {
    name: 'root-bench',
    go: async (page) => {
      await roots('26-SOR-03')(page);
      await page.keyboard.press('r');
      const rosette = page.getByTestId('rosette');
      await rosette.focus();
      // Seven roots, five of them straight: path by its number, then laid and turned on.
      for (const path of [1, 1, 4, 1, 1, 3, 1]) {
        await rosette.press(String(path));
        await rosette.press('Enter');
        await rosette.press('Shift+ArrowRight');
        for (let i = 0; i < 4; i++) await rosette.press('ArrowRight');
      }
    },
  },
  {
    name: 'planting',
    go: async (page) => {
      await page.goto('/planted');
      await page.getByTestId('plantings').getByText('Weir bank').click();
      await page.getByTestId('replace').waitFor();
    },
  },
  {
    name: 'lived',
    go: async (page) => {
      await page.goto('/planted/lived');
      await page.getByTestId('lived').waitFor();
    },
  },
  {
    name: 'phone-walk',
    phone: true,
    go: async (page) => {
      await page.goto('/planted');
      await page.getByTestId('plantings').getByText('Weir bank').click();
      await page.getByRole('button', { name: 'Walk it' }).click();
      await page.getByRole('button', { name: 'Begin' }).click();
      await page.getByTestId('tree').waitFor();
      for (const state of [/^missing/, /^missing/, /^dead/])
        await page.getByRole('button', { name: state }).click();
      await page.getByTestId('unsent').waitFor({ state: 'detached' });
    },
  },
  { name: 'phone-today', phone: true, go: go('/today') },
  {
    name: 'phone-measure',
    phone: true,
    go: async (page) => {
      await page.goto('/grow');
      await page.getByTestId('lots').getByText('26-TCO-01', { exact: true }).click();
      await page.getByRole('heading', { name: '26-TCO-01', level: 1 }).waitFor();
      await page.keyboard.press('m');
      const input = page.getByLabel(/of plant/);
      for (const value of ['22', '25', '19', '23', '21', '24']) {
        await input.fill(value);
        await input.press('Enter');
      }
    },
  },
];

async function main() {
  const wanted = process.argv.slice(2);
  await step('Packages', ensurePackages);
  const bin = await step('PostgreSQL', ensurePostgres);
  const executablePath = await step('Chromium', ensureChromium);
  await step('Interface and server', ensureBuilt);
  const cluster = await step('Throwaway database', () => openThrowaway(bin));
  try {
    await ensureDatabase(cluster, 'pictures');
    const { startServer } = await import('../server/dist/start.js');
    const { chromium } = await import('@playwright/test');
    const server = await startServer({
      databaseUrl: cluster.url('pictures'),
      port: 0,
      demo: true,
      today: TODAY,
      logLevel: 'silent',
    });
    const browser = await chromium.launch({
      executablePath,
      args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
    });
    mkdirSync(folder, { recursive: true });
    for (const view of views) {
      if (wanted.length && !wanted.includes(view.name)) continue;
      await step(view.name, () => picture(browser, server.url, view));
    }
    await browser.close();
    await server.stop();
  } finally {
    await cluster.stop();
  }
}

/** Charts are drawn once their engine is there. */
const chartsDrawn = (page) =>
  page.waitForFunction(() =>
    [...document.querySelectorAll('[data-chart] [role=img]')].every((box) => box.querySelector('canvas')),
  );

async function picture(browser, baseURL, { name, phone, who = 'isla@withybeck.example', go: prepare }) {
  const context = await browser.newContext({
    serviceWorkers: 'block',
    baseURL,
    viewport: phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
    locale: 'en-GB',
    reducedMotion: 'reduce',
  });
  await context.request.post('/api/sign-in', {
    data: { email: who, password: 'grow-young-trees' },
    headers: { origin: baseURL },
  });
  const page = await context.newPage();
  await page.goto('/');
  await page.getByTestId('ribbon').waitFor({ state: 'attached' });
  await prepare(page);
  await page.waitForLoadState('networkidle');
  await page.evaluate(() => document.fonts.ready);
  await chartsDrawn(page);
  // Two frames, so that what was just worked out is drawn.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  await page.locator('[data-testid="ribbon"] svg path').first().waitFor({ state: 'attached' });
  await page.waitForFunction(
    () => !document.querySelector('[role="status"]')?.textContent?.includes('Working out'),
  );
  await page.screenshot({ path: join(folder, `${name}.png`) });
  await context.close();
}

main().catch((error) => {
  fail(error);
  process.exit(1);
});
