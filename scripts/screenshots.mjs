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
    const { startServer } = await import('../server/dist/start.js');
    const { chromium } = await import('@playwright/test');
    const start = async (name, demo) => {
      await ensureDatabase(cluster, name);
      return startServer({ databaseUrl: cluster.url(name), port: 0, demo, today: TODAY, logLevel: 'silent' });
    };
    const servers = { demo: await start('pictures', true), empty: await start('beginning', false) };
    const browser = await chromium.launch({
      executablePath,
      args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
    });
    mkdirSync(folder, { recursive: true });
    for (const view of views) {
      if (wanted.length && !wanted.includes(view.name)) continue;
      await step(view.name, async () =>
        writeFileSync(join(folder, `${view.name}.png`), await picture(browser, servers, view)),
      );
    }
    await browser.close();
    await servers.demo.stop();
    await servers.empty.stop();
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

/** A view as it is seen; where it is several, side by side. @param servers one with the demo, one that is empty */
async function picture(browser, servers, { shots, go, who }) {
  const all = shots ?? [{ size: 'desk', go, who }];
  const taken = [];
  for (const one of all) taken.push(await shot(browser, one.empty ? servers.empty : servers.demo, one));
  return shots ? sideBySide(taken) : taken[0];
}

/** Between pictures that stand side by side, px. */
const GAP = 16;
async function sideBySide(taken) {
  const sharp = createRequire(new URL('../server/package.json', import.meta.url))('sharp');
  const each = await Promise.all(taken.map((png) => sharp(png).metadata()));
  const lefts = each.map((_, i) => each.slice(0, i).reduce((x, { width }) => x + width + GAP, GAP));
  return sharp({
    create: {
      width: lefts.at(-1) + each.at(-1).width + GAP,
      height: Math.max(...each.map(({ height }) => height)) + 2 * GAP,
      channels: 3,
      background: '#8a8578',
    },
  })
    .composite(taken.map((input, i) => ({ input, left: lefts[i], top: GAP })))
    .png()
    .toBuffer();
}

async function shot(browser, { url: baseURL }, { size, empty, who = 'isla@withybeck.example', go: prepare }) {
  const context = await browser.newContext({
    serviceWorkers: 'block',
    baseURL,
    viewport: sizes[size],
    hasTouch: size === 'phone',
    isMobile: size === 'phone',
    locale: 'en-GB',
    reducedMotion: 'reduce',
  });
  if (!empty)
    await context.request.post('/api/sign-in', {
      data: { email: who, password: 'grow-young-trees' },
      headers: { origin: baseURL },
    });
  const page = await context.newPage();
  await page.goto('/');
  if (!empty) await page.getByTestId('ribbon').waitFor({ state: 'attached' });
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
