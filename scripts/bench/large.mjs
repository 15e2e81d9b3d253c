import { benchPerson } from './nursery.mjs';
import { dragFrames, launch } from './interface.mjs';
import { ms, quantile } from './measure.mjs';

/** A nursery of thousands of lots in the browser: how long until Today stands, what blocks the page, what finding costs. */
export async function benchLarge(url, executablePath) {
  const browser = await launch(executablePath);
  try {
    const context = await browser.newContext({
      serviceWorkers: 'block',
      viewport: { width: 1280, height: 800 },
      locale: 'en-GB',
    });
    await context.request.post(`${url}/api/sign-in`, { data: benchPerson, headers: { origin: url } });
    await context.addInitScript(() => {
      window.longTasks_ = [];
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries()) window.longTasks_.push(entry.duration);
      }).observe({ entryTypes: ['longtask'] });
    });
    const longest = async (page) => {
      const tasks = await page.evaluate(() => window.longTasks_.splice(0));
      return `${ms(Math.max(0, ...tasks))}, ${tasks.length} over 50 ms`;
    };
    const page = await context.newPage();
    page.on('pageerror', (error) => console.error(error));
    // The server has worked Today out; the browser's own store of code is filled.
    await page.goto(url);
    await page.getByTestId('when-now').waitFor({ timeout: 120_000 });
    const began = performance.now();
    await page.goto(url);
    await page.getByTestId('when-now').waitFor();
    const first = performance.now() - began;
    await page.locator('[data-nursery="whole"]').waitFor({ timeout: 120_000 });
    const whole = performance.now() - began;
    const opening = await longest(page);
    const timed = async (act) => {
      const started = performance.now();
      await act();
      return performance.now() - started;
    };
    const grow = await timed(async () => {
      await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Grow' }).click();
      await page.getByTestId('ground-line').waitFor();
    });
    const toGrow = await longest(page);
    // At rest, as somebody who has looked at the list takes the ribbon.
    await page.evaluate(() => new Promise((rest) => requestIdleCallback(rest)));
    const drags = await dragFrames(page);
    await page.keyboard.press('.');
    await page.evaluate(() => new Promise((rest) => requestIdleCallback(rest)));
    await longest(page);
    const find = await timed(async () => {
      await page.getByRole('searchbox', { name: 'Find a lot' }).fill('rowan');
      await page.getByTestId('lots-said').getByText('rowan').waitFor();
    });
    const finding = await longest(page);
    return [
      ['large nursery, from opening the page to Today’s first lines', ms(first), '', '', '≤ 2.5 s'],
      ['the same, to every record and forecast', ms(whole), '', '', ''],
      ['the same, longest the page was blocked', opening, '', '', '≤ 50 ms'],
      ['to Grow with a lot’s page', ms(grow), `blocked ${toGrow}`, '', ''],
      ['a find in the list', ms(find), `blocked ${finding}`, '', ''],
      ['ribbon dragged, between frames, p50', ms(quantile(drags, 0.5)), '', '', '≤ 17 ms'],
      ['ribbon dragged, between frames, p95', ms(quantile(drags, 0.95)), '', '', '≤ 17 ms'],
    ];
  } finally {
    await browser.close();
  }
}
