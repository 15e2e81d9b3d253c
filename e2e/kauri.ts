import { expect, test as base, type BrowserContext, type Locator, type Page } from '@playwright/test';
import type { BodyInputOf, RouteName } from '@kauri/core/contract';
import { paths } from '@kauri/core/contract/paths';
import pg from 'pg';
import type { RunningServer, StartOptions } from '../server/src/start';

export { expect };
const TODAY = '2026-11-24';
const DEMO_PASSWORD = 'grow-young-trees';

type Start = (options: StartOptions) => Promise<RunningServer>;
const built = new URL('../server/dist/start.js', import.meta.url).href;
const adminUrl = process.env.KAURI_TEST_DATABASE;
let counter = 0;

/** A server on a database of its own, which can be stopped and started again at the same address. */
export interface Kauri {
  url: string;
  database: pg.Pool;
  stop: () => Promise<void>;
  /** On another day where one is given. */
  startAgain: (today?: string) => Promise<void>;
}

async function open(demo: boolean): Promise<Kauri & { close: () => Promise<void> }> {
  if (!adminUrl) throw new Error('These tests need a PostgreSQL: run them with npm test -- e2e.');
  const { startServer } = (await import(built)) as { startServer: Start };
  const name = `kauri_e2e_${process.pid}_${++counter}`;
  const admin = new pg.Client({ connectionString: adminUrl });
  await admin.connect();
  const template = demo ? process.env.KAURI_TEST_DEMO : process.env.KAURI_TEST_EMPTY;
  await admin.query(`create database ${name}${template ? ` template ${template} strategy file_copy` : ''}`);
  const url = new URL(adminUrl);
  url.pathname = `/${name}`;
  const options: StartOptions = {
    databaseUrl: url.toString(),
    port: 0,
    demo,
    today: TODAY,
    logLevel: 'silent',
  };
  let server: RunningServer | null = await startServer(options);
  const address = server.url;
  const database = new pg.Pool({ connectionString: url.toString(), max: 2 });
  database.on('error', () => undefined);
  return {
    url: address,
    database,
    stop: async () => {
      await server?.stop();
      server = null;
    },
    startAgain: async (today = options.today) => {
      server ??= await startServer({ ...options, today, port: Number(new URL(address).port) });
    },
    close: async () => {
      await server?.stop();
      await database.end();
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    },
  };
}

/** Closes the pages before their server goes: what they still fetch must not fail for that. */
async function leave(context: BrowserContext): Promise<void> {
  await Promise.all(context.pages().map((page) => page.close()));
}

interface Fixtures {
  /** An empty Kauri of this test alone. */
  empty: Kauri;
  /** A demo of this test alone, for tests that change it. */
  own: Kauri;
  /** Errors a test expects to see in the console; anything else fails it. */
  expected: { faults: RegExp[] };
  /** A browser at the demo, signed in as the grower. */
  isla: Page;
}

export const test = base.extend<Fixtures & { watch: void }, { demo: Kauri }>({
  demo: [
    async ({}, use) => {
      const kauri = await open(true);
      await use(kauri);
      await kauri.close();
    },
    { scope: 'worker' },
  ],
  empty: async ({ context }, use) => {
    const kauri = await open(false);
    await use(kauri);
    await leave(context);
    await kauri.close();
  },
  own: async ({ context }, use) => {
    const kauri = await open(true);
    await use(kauri);
    await leave(context);
    await kauri.close();
  },
  expected: [{ faults: [] }, { option: true }],
  watch: [
    async ({ context, expected }, use) => {
      const faults: string[] = [];
      const note = (text: string) => {
        if (!expected.faults.some((pattern) => pattern.test(text))) faults.push(text);
      };
      context.on('console', (message) => message.type() === 'error' && note(message.text()));
      context.on('weberror', (error) => note(String(error.error())));
      await use();
      expect(faults, 'errors in the browser, breaches of its policy among them').toEqual([]);
    },
    { auto: true },
  ],
  isla: async ({ demo, page }, use) => {
    await signIn(page, demo, 'isla@withybeck.example');
    await use(page);
  },
});

/** Keeps from a page what others write meanwhile, as a slow line does: it must find out when it writes itself. */
export const hearNothing = (page: Page) => page.route('**/api/nurseries/*/changes', () => undefined);

/** Begins in a language, as somebody who chose it here once. */
export const speaking = (page: Page, tag: string) =>
  page.addInitScript((chosen) => localStorage.setItem('kauri.language', chosen), tag);

/** A page of words alone: tests that go somewhere else begin on it, where nothing is worked out yet. */
const LIGHT = '/words';

/** Signs a browser in by the session cookie, without the sign-in page, and opens a page; `/` leads to Today. */
export async function signIn(
  page: Page,
  kauri: Kauri,
  email: string,
  path = LIGHT,
  password = DEMO_PASSWORD,
): Promise<void> {
  const answer = await page.request.post(`${kauri.url}/api/sign-in`, {
    data: { email, password },
    headers: { origin: kauri.url },
  });
  expect(answer.ok()).toBe(true);
  // As a browser that somebody was signed in with before: what is behind the door is fetched at once.
  await page.addInitScript(
    ([url, key, me]) => {
      // What the browser shows where nobody answers has no store.
      if (!location.href.startsWith(url)) return;
      if (sessionStorage.getItem('begun') === null) localStorage.setItem(key, me);
      sessionStorage.setItem('begun', 'yes');
    },
    [kauri.url, 'kauri.me', await answer.text()],
  );
  await page.goto(`${kauri.url}${path}`);
  // By its name in any language; a sheet that the address opens may stand before it already.
  const rail = { name: /^(Stations|Estaciones|Stationen)$/, includeHidden: true };
  await expect(page.getByRole('navigation', rail)).toBeVisible();
}

/**
 * Chooses from a list that opens over the page.
 * @param what the words of an option or its value, a part of its words, or its place in the list
 */
export async function choose(field: Locator, what: string | RegExp | number): Promise<void> {
  await field.click();
  const options = field.page().getByRole('option');
  if (typeof what === 'number') await options.nth(what).click();
  else if (typeof what === 'string') {
    const byValue = options.filter({ has: field.page().locator(`[data-value=${JSON.stringify(what)}]`) });
    await byValue.or(field.page().getByRole('option', { name: what, exact: true })).click();
  } else await options.filter({ hasText: what }).first().click();
}

/** Writes as the owner does, past the screens, where a test only needs something to stand there. */
export async function write<N extends RouteName>(
  page: Page,
  kauri: Kauri,
  name: N,
  params: Record<string, string>,
  body: BodyInputOf<N>,
): Promise<void> {
  const [, path] = paths[name];
  const filled = path.replace(/:(\w+)/g, (_, key: string) => params[key]);
  const answer = await page.request.post(`${kauri.url}/api${filled}`, {
    data: body,
    headers: { origin: kauri.url },
  });
  expect(answer.ok(), await answer.text()).toBe(true);
}

type PlaceWritten = BodyInputOf<'addPlace'>['place'];
const spot = { northM: 0, angleDeg: 0, mediumId: null };

/** A bed of two boards, 2.4 × 1.2 m, as it is written down. */
export const bedAt = (name: string, eastM: number, lidAboveRimMm: number | null): PlaceWritten => ({
  ...spot,
  kind: 'bed',
  name,
  eastM,
  design: {
    schema: 1,
    measured: 'outside',
    lengthMm: 2400,
    widthMm: 1200,
    tiers: ['2x8', '2x8'],
    layers: [{ kind: 'mesh', openingMm: [12.7, 12.7], wireMm: 1.05 }],
    fillBelowRimMm: 30,
    ground: 'paving',
    airGapMm: 90,
    lidAboveRimMm,
  },
});

/** A bench 1.5 m wide, as it is written down. */
export const benchAt = (name: string, eastM: number, lengthMm: number): PlaceWritten => ({
  ...spot,
  kind: 'bench',
  name,
  eastM,
  design: { schema: 1, lengthMm, widthMm: 1500 },
});

/** Opens a station by its name in the rail. */
export async function station(page: Page, name: string): Promise<void> {
  // What a station has to do now is said with its name.
  const link = new RegExp(`^${name}(?!\\w)`);
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: link }).click();
}

/** Opens a part of the yard, and waits until it shows what it is about. */
export async function yardPart(page: Page, name: string): Promise<void> {
  await station(page, 'Yard');
  const link = page.getByRole('navigation', { name: 'Parts of the yard' }).getByRole('link', { name });
  await link.click();
  await expect(link).toHaveAttribute('aria-current', 'page');
  await expect(page.locator('main').getByRole('heading', { level: 2 }).first()).toBeVisible();
}

/** A season is laid out, and then chosen over for up to a minute. */
export const planned = (season: Locator) =>
  expect(season.getByText(/^Planned, /)).toBeVisible({ timeout: 120_000 });

/** Opens a part of the plan by its tab. */
export async function planPart(page: Page, name: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Parts of the plan' })
    .getByRole('link', { name, exact: true })
    .click();
}

/** Opens a part of the seed room. */
export async function seedPart(page: Page, name: string): Promise<void> {
  await station(page, 'Seed');
  const link = page.getByRole('navigation', { name: 'Parts of the seed room' }).getByRole('link', { name });
  await link.click();
  await expect(link).toHaveAttribute('aria-current', 'page');
}

/** Opens a lot's page from the list, and waits for its forecast. */
export async function openLot(page: Page, code: string): Promise<void> {
  await station(page, 'Grow');
  const lot = page.getByTestId('lots').getByText(code, { exact: true });
  // Where the machine is busy, the list takes longer to come than an act may take to happen.
  await expect(lot).toBeVisible();
  await lot.click();
  await expect(page.getByRole('heading', { name: code, level: 1 })).toBeVisible();
  await expect(page.getByTestId('ground-line')).toBeVisible();
}

/** The sheet that is open. */
export function sheet(page: Page): Locator {
  return page.getByRole('dialog');
}

/** Puts the ribbon on a date by its keys: weeks, then days. */
export async function lookAt(page: Page, day: number): Promise<void> {
  const ribbon = page.getByTestId('ribbon');
  await ribbon.focus();
  for (;;) {
    const away = day - Number(await ribbon.getAttribute('aria-valuenow'));
    if (away === 0) return;
    const key = away > 0 ? 'ArrowRight' : 'ArrowLeft';
    await page.keyboard.press(Math.abs(away) >= 7 ? `Shift+${key}` : key);
  }
}

/** Daily weather as a station writes it, for some years up to today. */
export function stationTable(years: number): string {
  const lines = ['Rain in;Hi F;Day;Lo F'];
  const end = Date.UTC(2026, 10, 23);
  for (let i = Math.round(years * 365.25); i >= 0; i--) {
    const date = new Date(end - i * 86_400_000);
    const iso = date.toISOString().slice(0, 10);
    const season = Math.cos((2 * Math.PI * (((date.getTime() / 86_400_000) % 365.25) - 204)) / 365.25);
    const mean = 8.5 + 6.5 * season + 3 * Math.sin(i * 1.7) * Math.cos(i * 0.31);
    const fahrenheit = (c: number) => ((c * 9) / 5 + 32).toFixed(1).replace('.', ',');
    const rain = i % 3 ? '0' : '0,15';
    lines.push(
      `${rain};${fahrenheit(mean + 4)};${iso.split('-').reverse().join('/')};${fahrenheit(mean - 4)}`,
    );
  }
  return lines.join('\n');
}

/** Fills fields of the open sheet by their labels. */
export async function fill(page: Page, fields: Record<string, string>): Promise<void> {
  for (const [label, value] of Object.entries(fields)) {
    // A field's name is its label and its unit.
    const name = new RegExp(`^${label}( \\S+)*$`);
    await sheet(page)
      .getByRole('textbox', { name })
      .or(sheet(page).getByLabel(label, { exact: true }))
      .first()
      .fill(value);
  }
}

/** Presses a button of the open sheet. */
export const act = (page: Page, name: string) =>
  sheet(page).getByRole('button', { name, exact: true }).click();

/** Saves a table that a button offers, as text unless another format is asked for. */
export async function saveTable(button: Locator, format = /CSV/): Promise<void> {
  await button.click();
  await button.page().getByRole('menuitem', { name: format }).click();
}

/** Sets up the first nursery of an empty Kauri, as its owner does. */
export async function setUp(page: Page, kauri: Kauri): Promise<void> {
  await page.goto(kauri.url);
  for (const [label, text] of [
    ['Nursery', 'Beckside'],
    ['Place', 'Upper Dale'],
    ['Latitude °', '54.6'],
    ['Longitude °', '-2.4'],
    ['Height, m', '185'],
    ['Time zone', 'Europe/London'],
    ['Your name', 'Rowan'],
    ['E-mail', 'rowan@beckside.example'],
    ['Password', 'a sound password'],
  ])
    await page.getByLabel(label).fill(text);
  await page.getByRole('button', { name: 'Open the yard' }).click();
  await expect(page.getByTestId('ribbon')).toBeVisible();
}
