import { mkdirSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { ensureChromium, ensurePackages } from './lib/packages.mjs';
import { ensureDatabase, ensurePostgres, openThrowaway } from './lib/postgres.mjs';
import { fail, step } from './lib/steps.mjs';
import { views } from './screenshots/views.mjs';

/* npm run screenshots: one picture of each main view, made from the demo as it stands on one fixed day. */
const root = new URL('../', import.meta.url).pathname.replace(/\/$/, '');
const folder = join(root, 'docs/screenshots');
const TODAY = '2026-11-24';

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
      await step(view.name, async () =>
        writeFileSync(join(folder, `${view.name}.png`), await picture(browser, server.url, view)),
      );
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

const sizes = {
  desk: { width: 1280, height: 800 },
  phone: { width: 390, height: 844 },
  // A4 upright at 96 dots an inch.
  paper: { width: 794, height: 1123 },
};

/** A view as it is seen; where it is several phones, side by side. */
async function picture(browser, baseURL, view) {
  const { phones, paper, go, who = 'isla@withybeck.example' } = view;
  if (!phones) return shot(browser, { baseURL, who, size: paper ? 'paper' : 'desk', prepare: go });
  const shots = [];
  for (const prepare of phones) shots.push(await shot(browser, { baseURL, who, size: 'phone', prepare }));
  return sideBySide(shots);
}

/** Between phones that stand side by side, px. */
const GAP = 16;
async function sideBySide(shots) {
  const sharp = createRequire(new URL('../server/package.json', import.meta.url))('sharp');
  const { width, height } = sizes.phone;
  return sharp({
    create: {
      width: shots.length * (width + GAP) + GAP,
      height: height + 2 * GAP,
      channels: 3,
      background: '#8a8578',
    },
  })
    .composite(shots.map((input, i) => ({ input, left: GAP + i * (width + GAP), top: GAP })))
    .png()
    .toBuffer();
}

async function shot(browser, { baseURL, who, size, prepare }) {
  const context = await browser.newContext({
    serviceWorkers: 'block',
    baseURL,
    viewport: sizes[size],
    hasTouch: size === 'phone',
    isMobile: size === 'phone',
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
  if (size === 'paper') await page.emulateMedia({ media: 'print' });
  const png = await page.screenshot();
  await context.close();
  return png;
}

main().catch((error) => {
  fail(error);
  process.exit(1);
});
