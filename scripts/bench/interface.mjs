import { gzipSync } from 'node:zlib';
import { ensureDatabase } from '../lib/postgres.mjs';
import { benchGrowing } from './growing.mjs';
import { benchOrders } from './orders.mjs';
import { benchWalk } from './planted.mjs';
import { ms, quantile } from './measure.mjs';

/** Chromium without a window, as every bench of the interface drives it. */
export async function launch(executablePath) {
  const { chromium } = await import('@playwright/test');
  return chromium.launch({
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
}

/** What the browser fetches before the first screen stands, and how long that takes on the demo. */
export async function benchInterface(cluster, executablePath) {
  const { startServer } = await import('../../server/dist/start.js');
  await ensureDatabase(cluster, 'bench_demo');
  const server = await startServer({
    databaseUrl: cluster.url('bench_demo'),
    port: 0,
    demo: true,
    today: '2026-11-24',
    logLevel: 'silent',
  });
  const browser = await launch(executablePath);
  try {
    const context = await browser.newContext({
      serviceWorkers: 'block',
      viewport: { width: 1280, height: 800 },
    });
    await context.request.post(`${server.url}/api/sign-in`, {
      data: { email: 'isla@withybeck.example', password: 'grow-young-trees' },
      headers: { origin: server.url },
    });
    const times = [];
    const drags = [];
    let bytes = 0;
    for (let i = 0; i < 5; i++) {
      const page = await context.newPage();
      const scripts = [];
      page.on('response', (response) => {
        if (response.request().resourceType() === 'script' && !/worker/.test(response.url()))
          scripts.push(response.body());
      });
      const started = performance.now();
      await page.goto(server.url);
      await page.getByText('Act now').waitFor();
      times.push(performance.now() - started);
      if (i === 0) bytes = (await Promise.all(scripts)).reduce((sum, body) => sum + gzipSync(body).length, 0);
      // Frames while the ribbon is dragged on a lot's page.
      if (i === 4) {
        await page.goto(`${server.url}/grow`);
        await page.getByTestId('ground-line').waitFor();
        drags.push(...(await dragFrames(page)));
      }
      await page.close();
    }
    const growing = await benchGrowing(context, server.url);
    const walk = await benchWalk(context, server.url);
    const orders = await benchOrders(context, server.url);
    const plan = await planFrames(context, server.url);
    return [
      ['JavaScript before the first screen, gzipped', `${(bytes / 1000).toFixed(0)} kB`, '', '', '≤ 150 kB'],
      ['from opening the page to Today, demo', ms(quantile(times, 0.5)), '', '', ''],
      ['time between frames while the ribbon is dragged, p50', ms(quantile(drags, 0.5)), '', '', ''],
      ['time between frames while the ribbon is dragged, p95', ms(quantile(drags, 0.95)), '', '', ''],
      [
        `a place dragged on a plan of ${plan.places}: frames over 25 ms of ${plan.frames.length}`,
        String(plan.frames.filter((f) => f > 25).length),
        '',
        '',
        'none',
      ],
      ['time between frames while it is dragged, p50', ms(quantile(plan.frames, 0.5)), '', '', '≤ 17 ms'],
      ...growing,
      ...walk,
      ...orders,
    ];
  } finally {
    await browser.close();
    await server.stop();
  }
}

/** Frames while one place is dragged on a plan of three hundred. */
export async function planFrames(context, url) {
  const page = await context.newPage();
  const origin = { origin: url };
  const { memberships } = await (await context.request.get(`${url}/api/me`)).json();
  const at = `${url}/api/nurseries/${memberships[0].nurseryId}`;
  const { places } = await (await context.request.get(`${at}/catalogue`)).json();
  const like = places.find((p) => p.place.kind === 'bed').place;
  const id = () => {
    const hex = [...crypto.getRandomValues(new Uint8Array(16))]
      .map((b) => b.toString(16).padStart(2, '0'))
      .join('');
    return `019a${hex.slice(4, 8)}-${hex.slice(8, 12)}-7${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20)}`;
  };
  const added = Array.from({ length: 300 - places.length }, (_, i) => ({
    id: id(),
    place: { ...like, name: `Row ${i}`, eastM: 50 + (i % 20) * 4, northM: Math.floor(i / 20) * 2 },
  }));
  const answer = await context.request.post(`${at}/site`, {
    headers: origin,
    data: { id: id(), site: null, moved: [], added, removed: [] },
  });
  if (!answer.ok()) throw new Error(await answer.text());
  await page.goto(`${url}/yard/site`);
  const bed = page.getByTestId('plan').getByRole('button', { name: /^Row 100,/ });
  await bed.waitFor();
  // The nursery has arrived and is worked out: what is measured is the dragging.
  await page.locator('[data-nursery="whole"]').waitFor();
  await page.waitForLoadState('networkidle');
  const box = await bed.boundingBox();
  await watchFrames(page);
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  for (let i = 0; i < 120; i++)
    await page.mouse.move(box.x + box.width / 2 + 60 * Math.sin(i / 12), box.y + 40 * Math.sin(i / 17));
  const frames = await framesSeen(page);
  await page.mouse.up();
  await page.close();
  return { places: 300, frames };
}

/** Times between frames while the ribbon is dragged to and fro, ms. */
export async function dragFrames(page) {
  const box = await page.getByTestId('ribbon').boundingBox();
  await watchFrames(page);
  await page.mouse.move(box.x + box.width * 0.7, box.y + 60);
  await page.mouse.down();
  for (let i = 0; i < 120; i++)
    await page.mouse.move(box.x + box.width * (0.7 - 0.4 * Math.sin(i / 19)), box.y + 60);
  await page.mouse.up();
  return framesSeen(page);
}

function watchFrames(page) {
  return page.evaluate(() => {
    window.frames_ = [];
    let last = performance.now();
    const tick = (now) => {
      window.frames_.push(now - last);
      last = now;
      window.ticking_ = requestAnimationFrame(tick);
    };
    window.ticking_ = requestAnimationFrame(tick);
  });
}

function framesSeen(page) {
  return page.evaluate(() => {
    cancelAnimationFrame(window.ticking_);
    return window.frames_.slice(1);
  });
}
