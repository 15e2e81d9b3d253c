import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { v7 as newId } from 'uuid';
import { act, expect, fill, openLot, sheet, signIn, test, write, type Kauri } from './kauri';

/* The yard without a network: Kauri opens, what is done is kept, and each of it reaches the server once. */
test.use({
  serviceWorkers: 'allow',
  expected: { faults: [/Failed to load resource|ERR_INTERNET_DISCONNECTED|ERR_FAILED|409|422/] },
});

/** Waits until the browser has the application, and the device the nursery. */
async function kept(page: Page): Promise<void> {
  await expect(page.locator('[data-nursery=whole]')).toBeVisible();
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  await expect
    .poll(() => rowsOf(page, 'lots').then((rows) => rows.length), { message: 'lots on the device' })
    .toBeGreaterThan(60);
}
/** Rows of one of the device's stores. */
const rowsOf = (page: Page, store: string): Promise<unknown[]> =>
  page.evaluate(async (name) => {
    const [{ name: database }] = (await indexedDB.databases()).filter((one) =>
      one.name?.startsWith('kauri.'),
    );
    const opened = await new Promise<IDBDatabase>((resolve, reject) => {
      const asked = indexedDB.open(database!);
      asked.onsuccess = () => resolve(asked.result);
      asked.onerror = () => reject(asked.error!);
    });
    const rows = await new Promise<unknown[]>((resolve, reject) => {
      const asked = opened.transaction(name).objectStore(name).getAll();
      asked.onsuccess = () => resolve(asked.result);
      asked.onerror = () => reject(asked.error!);
    });
    opened.close();
    return rows;
  }, store);
const cut = (page: Page) => page.context().setOffline(true);
async function back(page: Page): Promise<void> {
  await page.context().setOffline(false);
  await page.evaluate(() => dispatchEvent(new Event('online')));
}
const sent = (page: Page) => expect(page.getByTestId('network')).toHaveCount(0);
const countOf = async (kauri: Kauri, where: string) =>
  (await kauri.database.query<{ n: number }>(`select count(*)::int as n from ${where}`)).rows[0].n;
const leaf = () =>
  sharp({ create: { width: 60, height: 40, channels: 3, background: '#3D6B3B' } })
    .jpeg()
    .toBuffer();

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 } });

  test('a morning’s round without a network, through a reload, reaches the server once', async ({
    page,
    own,
  }) => {
    await signIn(page, own, 'tam@withybeck.example', '/today');
    await kept(page);
    await cut(page);
    await page.reload();
    await expect(page.getByTestId('network')).toContainText('No network');

    await test.step('measured, counted, looked at: each is in the lot’s records at once', async () => {
      await openLot(page, '26-SOR-03');
      await page.keyboard.press('m');
      for (const value of ['31', '33', '35']) {
        await page.keyboard.type(value);
        await page.keyboard.press('Enter');
      }
      await act(page, 'Keep 3 plants');
      const records = page.getByTestId('records');
      await expect(records.getByRole('row').nth(1)).toContainText('3 plants');
      await page.keyboard.press('e');
      await fill(page, { 'Trees hit': '9', 'Of these dead': '4' });
      await sheet(page)
        .locator('input[type=file]')
        .setInputFiles({ name: 'leaf.jpg', mimeType: 'image/jpeg', buffer: await leaf() });
      await expect(sheet(page).getByRole('img', { name: 'Photo 1' })).toBeVisible();
      await act(page, 'Write it down');
      await expect(records).toContainText('4 dead');
    });

    await test.step('what is taken back before it is sent never was', async () => {
      await page.keyboard.press('w');
      await act(page, 'Write it down');
      await page.getByTestId('network').click();
      await expect(page.getByTestId('waiting').getByRole('listitem')).toHaveCount(4);
      await page.getByTestId('waiting').getByRole('listitem').last().getByRole('button').click();
      await expect(page.getByTestId('waiting').getByRole('listitem')).toHaveCount(3);
      await page.keyboard.press('Escape');
    });

    await test.step('through a reload, with all it shows', async () => {
      await page.reload();
      await expect(page.getByTestId('network')).toContainText('3 to send');
      await expect(page.getByTestId('records')).toContainText('4 dead');
      await expect(page.getByTestId('records').getByRole('img', { name: /Photo 1/ })).toBeVisible();
    });

    await back(page);
    await sent(page);
    expect(await countOf(own, `observation where "values" @> '{"heightsCm": [31, 33, 35]}'`)).toBe(1);
    expect(await countOf(own, `observation where "values" @> '{"kind": "event", "hit": 9, "dead": 4}'`)).toBe(
      1,
    );
    expect(await countOf(own, 'photo')).toBe(1);
    expect(await countOf(own, `movement where to_account = 'out:browsed' and count = 4`)).toBe(1);
    await test.step('cut again at once, the device has what was just sent', async () => {
      await expect.poll(async () => JSON.stringify(await rowsOf(page, 'lots'))).toContain('"dead":4');
      await cut(page);
      await page.reload();
      await expect(page.getByTestId('network')).toHaveText(/No network$/);
      await expect(page.getByTestId('records')).toContainText('4 dead');
    });
  });
});

test('two people without a network on one lot: both are kept where they can be, and asked where they collide', async ({
  browser,
  page,
  own,
}) => {
  const tam = await (await browser.newContext()).newPage();
  await signIn(page, own, 'isla@withybeck.example', '/grow');
  await signIn(tam, own, 'tam@withybeck.example', '/grow');
  for (const who of [page, tam]) {
    await openLot(who, '26-SOR-03');
    await cut(who);
    await who.keyboard.press('l');
    await fill(who, { 'Lifted, good': '50' });
    await act(who, 'Keep the lift');
    await expect(who.getByRole('status').getByText('Kept on this device')).toBeVisible();
  }
  const lifted50 = `movement m join lot l on l.id = m.lot_id where l.code = '26-SOR-03' and to_account = 'lifted' and count = 50`;
  const { rows } = await own.database.query<{ held: number }>(
    `select b.held::int as held from balance b join lot l on l.id = b.lot_id where l.code = '26-SOR-03' and b.account = 'standing'`,
  );
  await test.step('the first is kept; of the second no more than stand', async () => {
    await back(page);
    await sent(page);
    // All but ten of the rest are lifted too.
    await page.keyboard.press('l');
    await fill(page, { 'Lifted, good': `${rows[0].held - 60}` });
    await act(page, 'Keep the lift');
    await expect(sheet(page)).toHaveCount(0);
    await back(tam);
    await expect(tam.getByTestId('network')).toContainText('1 act not taken');
    await tam.getByTestId('network').click();
    await expect(tam.getByTestId('refused')).toContainText('but 10 of 26-SOR-03 stand');
    expect(await countOf(own, lifted50)).toBe(1);
    expect(rows[0].held).toBeGreaterThan(50);
  });
  await test.step('what was refused goes back to its sheet as it was typed, or is dropped and brought back', async () => {
    await tam.getByRole('button', { name: 'Back to its sheet' }).click();
    await expect(sheet(tam)).toHaveCount(0);
    await tam.keyboard.press('l');
    await expect(sheet(tam).getByLabel('Lifted, good')).toHaveValue('50');
    await tam.keyboard.press('Escape');
    await sent(tam);
  });
  await tam.context().close();
});

test('a lot moved meanwhile is asked about, and kept as it stands now', async ({ browser, page, own }) => {
  const tam = await (await browser.newContext()).newPage();
  await signIn(page, own, 'isla@withybeck.example', '/grow');
  await signIn(tam, own, 'tam@withybeck.example', '/grow');
  await openLot(tam, '26-SOR-03');
  await cut(tam);
  await tam.keyboard.press('m');
  for (const value of ['41', '43']) {
    await tam.keyboard.type(value);
    await tam.keyboard.press('Enter');
  }
  await act(tam, 'Keep 2 plants');
  await expect(tam.getByRole('status').getByText('Kept on this device')).toBeVisible();
  await own.database.query(
    `with gone as (update stage s set ended_on = '2026-11-24' from lot l where l.id = s.lot_id and l.code = '26-SOR-03'
       and s.ended_on is null returning s.*)
     insert into stage (nursery_id, id, lot_id, place_id, container_type_id, trays, started_on)
       select nursery_id, '01a22cf5-1bbf-7000-8000-000000000001', lot_id, place_id, container_type_id, trays, '2026-11-24' from gone`,
  );
  await back(tam);
  await expect(tam.getByTestId('network')).toContainText('1 act not taken');
  await tam.getByTestId('network').click();
  await expect(tam.getByTestId('refused')).toContainText('was moved meanwhile');
  await tam.getByRole('button', { name: 'Keep it as 26-SOR-03 stands now' }).click();
  await expect(tam.getByText('Everything you did is with the server.')).toBeVisible();
  expect(await countOf(own, `observation where "values" @> '{"heightsCm": [41, 43]}'`)).toBe(1);
  await tam.context().close();
});

test('a tab killed while it sends, a server gone in the middle, an answer lost: each act is there once', async ({
  context,
  page,
  own,
}) => {
  await signIn(page, own, 'tam@withybeck.example', '/grow');
  await openLot(page, '26-SOR-03');
  // The server takes it; before its answer arrives the tab is gone.
  await context.route('**/sizes', async (route) => {
    await route.fetch();
    await page.close();
    await route.abort().catch(() => undefined);
  });
  await page.keyboard.press('m');
  for (const value of ['51', '53']) {
    await page.keyboard.type(value);
    await page.keyboard.press('Enter');
  }
  const closed = page.waitForEvent('close');
  await sheet(page)
    .getByRole('button', { name: 'Keep 2 plants' })
    .click()
    .catch(() => undefined);
  await closed;
  await context.unroute('**/sizes');
  const again = await context.newPage();
  await again.goto(`${own.url}/grow`);
  await expect.poll(() => rowsOf(again, 'acts')).toEqual([]);
  await kept(again);

  await test.step('the server goes between two acts, and comes back', async () => {
    await openLot(again, '26-SOR-03');
    await own.stop();
    for (const dead of ['2', '3']) {
      await again.keyboard.press('e');
      await fill(again, { 'Trees hit': '7', 'Of these dead': dead });
      await act(again, 'Write it down');
      await expect(sheet(again)).toHaveCount(0);
    }
    await expect(again.getByTestId('network')).toContainText('2 to send');
    await own.startAgain();
    await again.getByTestId('network').click();
    await again.getByRole('button', { name: 'Try now' }).click();
    await expect(again.getByText('Everything you did is with the server.')).toBeVisible();
    expect(await countOf(own, `observation where "values" @> '{"heightsCm": [51, 53]}'`)).toBe(1);
    for (const dead of [2, 3])
      expect(await countOf(own, `observation where "values" @> '{"hit": 7, "dead": ${dead}}'`)).toBe(1);
  });
});

/** As many as a long week without a network leaves; the long run asks for five hundred. */
const MANY = Number(process.env.KAURI_ACTS ?? 150);
test('many acts kept on the device are sent in order, each once', async ({ page, own }) => {
  await signIn(page, own, 'tam@withybeck.example', '/grow');
  await openLot(page, '26-SOR-03');
  await page.route('**/care', (route) => route.abort());
  await page.keyboard.press('w');
  await act(page, 'Write it down');
  await expect(page.getByRole('status').getByText('Kept on this device')).toBeVisible();
  // The others are made like the one that was done by hand, each of the next lot.
  await page.evaluate(async (many) => {
    const [{ name }] = (await indexedDB.databases()).filter((one) => one.name?.startsWith('kauri.'));
    const database = await new Promise<IDBDatabase>((resolve) => {
      const asked = indexedDB.open(name!);
      asked.onsuccess = () => resolve(asked.result);
    });
    const stores = database.transaction(['acts', 'lots'], 'readwrite');
    const store = stores.objectStore('acts');
    const lots = await new Promise<{ id: string; row: { stage: { id: string } } }[]>((resolve) => {
      const asked = stores.objectStore('lots').getAll();
      asked.onsuccess = () => resolve(asked.result);
    });
    type Kept = {
      seq: number;
      id: string;
      write: { body: { id: string; note: string; lots: { id: string; lotId: string; seen: string }[] } };
    };
    const first = await new Promise<Kept>((resolve) => {
      const asked = store.getAll();
      asked.onsuccess = () => resolve(asked.result[0] as Kept);
    });
    const idAt = (id: string, n: number) => id.slice(0, -6) + n.toString(16).padStart(6, '0');
    for (let n = 1; n < many; n++) {
      const { seq: _, ...act } = structuredClone(first);
      act.id = act.write.body.id = idAt(act.id, n);
      act.write.body.note = `act ${n}`;
      const { id: lotId, row } = lots[n % lots.length];
      act.write.body.lots = [{ id: idAt(first.write.body.lots[0].id, n + 1000), lotId, seen: row.stage.id }];
      store.add(act);
    }
    await new Promise((resolve) => (stores.oncomplete = resolve));
    database.close();
  }, MANY);
  await page.unroute('**/care');
  await page.reload();
  await expect(page.getByTestId('network')).toContainText(`${MANY} to send`);
  await expect(page.getByTestId('network')).toHaveCount(0, { timeout: 120_000 });
  const { rows } = await own.database.query<{ note: string }>(
    `select "after" ->> 'note' as note from journal where "after" ->> 'note' like 'act %' order by at, id`,
  );
  expect(rows.map(({ note }) => note)).toEqual(Array.from({ length: MANY - 1 }, (_, i) => `act ${i + 1}`));
});

test('on a device without room an act is sent at once, or its sheet stays as it was typed and says why', async ({
  page,
  own,
}) => {
  await page.addInitScript(() => {
    const { add } = IDBObjectStore.prototype;
    IDBObjectStore.prototype.add = function (...row) {
      if (this.name === 'acts') throw new DOMException('No room.', 'QuotaExceededError');
      return add.apply(this, row);
    };
  });
  await signIn(page, own, 'tam@withybeck.example', '/grow');
  await openLot(page, '26-SOR-03');
  await page.keyboard.press('e');
  await fill(page, { 'Trees hit': '6', 'Of these dead': '2' });
  await act(page, 'Write it down');
  await expect(sheet(page)).toHaveCount(0);
  await expect(page.getByTestId('records')).toContainText('2 dead');
  await test.step('and without a network', async () => {
    await cut(page);
    await page.keyboard.press('e');
    await fill(page, { 'Trees hit': '8', 'Of these dead': '5' });
    await act(page, 'Write it down');
    await expect(sheet(page).getByRole('alert')).toContainText('no room on this device');
    await expect(sheet(page).getByLabel('Trees hit')).toHaveValue('8');
    await back(page);
    await act(page, 'Write it down');
    await expect(sheet(page)).toHaveCount(0);
    await expect(page.getByTestId('records')).toContainText('5 dead');
  });
  for (const [hit, dead] of [
    [6, 2],
    [8, 5],
  ])
    expect(await countOf(own, `observation where "values" @> '{"hit": ${hit}, "dead": ${dead}}'`)).toBe(1);
});

test('a device whose clock is a day fast writes the nursery’s own day, also without a network', async ({
  page,
  own,
}) => {
  await page.addInitScript(() => {
    const { now } = Date;
    const FAST_MS = 86_400_000;
    Date.now = () => now() + FAST_MS;
    // What asks what time it is, without saying which, asks the fast clock.
    globalThis.Date = new Proxy(Date, {
      construct: (of, given: unknown[]) =>
        Reflect.construct(of, given.length ? given : [now() + FAST_MS]) as Date,
    });
  });
  await signIn(page, own, 'tam@withybeck.example', '/grow');
  await openLot(page, '26-SOR-03');
  await kept(page);
  await cut(page);
  await page.reload();
  await expect(page.getByTestId('network')).toContainText('No network');
  await expect(page.getByTestId('date')).toContainText('24 Nov');
  await expect(page.getByTestId('records')).toBeVisible();
  await page.keyboard.press('e');
  await fill(page, { 'Trees hit': '4', 'Of these dead': '3' });
  await act(page, 'Write it down');
  await expect(sheet(page)).toHaveCount(0);
  await back(page);
  await sent(page);
  expect(
    await countOf(own, `observation where "values" @> '{"hit": 4, "dead": 3}' and on_date = '2026-11-24'`),
  ).toBe(1);
});

test('over a network that comes and goes each act is taken once, in the order it was made', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'tam@withybeck.example', '/grow');
  await openLot(page, '26-SOR-03');
  const deaths = [1, 2, 3, 4, 5, 6];
  // The sheet is here before the network goes.
  await page.keyboard.press('e');
  await expect(sheet(page).getByLabel('Trees hit')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toHaveCount(0);
  await cut(page);
  for (const dead of deaths) {
    await page.keyboard.press('e');
    await fill(page, { 'Trees hit': '9', 'Of these dead': `${dead}` });
    await act(page, 'Write it down');
    await expect(sheet(page)).toHaveCount(0);
  }
  await expect(page.getByTestId('network')).toContainText('6 to send');
  // Of three sendings one goes through, one is lost on its way, and of one the answer is.
  let sendings = 0;
  await page.route('**/events', async (route) => {
    const turn = sendings++ % 3;
    if (turn === 0) return route.abort();
    if (turn === 2) return route.continue();
    await route.fetch();
    await route.abort();
  });
  await page.context().setOffline(false);
  await expect
    .poll(async () => {
      await page.evaluate(() => dispatchEvent(new Event('online')));
      return rowsOf(page, 'acts');
    })
    .toEqual([]);
  await sent(page);
  expect(sendings).toBeGreaterThan(deaths.length);
  const { rows } = await own.database.query<{ dead: number }>(
    `select ("values"->>'dead')::int as dead from observation where "values" @> '{"kind": "event", "hit": 9}' order by id`,
  );
  expect(rows.map(({ dead }) => dead)).toEqual(deaths);
});

/** Holds what is asked of the server until it is let go. */
async function hold(page: Page): Promise<() => Promise<void>> {
  let letGo!: () => void;
  const released = new Promise<void>((resolve) => (letGo = resolve));
  await page.context().route('**/api/**', async (route) => {
    await released;
    await route.continue().catch(() => undefined);
  });
  return async () => {
    letGo();
    await page.context().unroute('**/api/**');
  };
}

test('on a slow network Kauri opens as it was last seen, says so, and takes in what the server says', async ({
  browser,
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/grow');
  await openLot(page, '26-SOR-03');
  await kept(page);
  const address = page.url();
  const tam = await (await browser.newContext()).newPage();
  await signIn(tam, own, 'tam@withybeck.example');
  const ids = await own.database.query<{ nursery: string; lot: string }>(
    `select nursery_id as nursery, id as lot from lot where code = '26-SOR-03'`,
  );

  await test.step('opened with its age, before the server said anything; then with what others did', async () => {
    // Nobody looks while another measures.
    await page.goto('about:blank');
    const sizes = { id: newId(), on: '2026-11-24', heightsCm: [71, 73, 75], diametersMm: [] };
    await write(tam, own, 'measureLot', ids.rows[0], sizes);
    const letGo = await hold(page);
    await page.goto(address);
    await expect(page.getByTestId('network')).toContainText(/As seen \d\d:\d\d/);
    const records = page.getByTestId('records');
    await expect(records).toBeVisible();
    await expect(records).not.toContainText('height 73.0 cm');
    await letGo();
    await sent(page);
    await expect(records).toContainText('height 73.0 cm');
  });
  await test.step('who was signed out meanwhile sees no more of it once the server says so', async () => {
    await own.database.query('delete from session');
    const letGo = await hold(page);
    await page.reload();
    await expect(page.getByTestId('records')).toBeVisible();
    await letGo();
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await expect(page.getByTestId('records')).toHaveCount(0);
  });
  await tam.context().close();
});

test('signing out with something unsent asks; what was seen is not left for whoever is next', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'tam@withybeck.example', '/grow');
  await openLot(page, '26-SOR-03');
  await expect.poll(() => rowsOf(page, 'lots').then((rows) => rows.length)).toBeGreaterThan(60);
  await page.route('**/care', (route) => route.abort());
  await page.keyboard.press('w');
  await act(page, 'Write it down');
  await expect(page.getByTestId('network')).toContainText('1 to send');
  await page.getByRole('button', { name: /^Tam/ }).click();
  await page.getByRole('menuitem', { name: 'Sign out', exact: true }).click();
  await expect(sheet(page)).toContainText('1 act of yours waits here');
  await sheet(page).getByRole('button', { name: 'Sign out all the same' }).click();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  expect(await rowsOf(page, 'lots')).toEqual([]);
  expect(await rowsOf(page, 'acts')).toHaveLength(1);
  await test.step('somebody else sees nothing of it; its person finds it, and it is sent', async () => {
    await signIn(page, own, 'isla@withybeck.example', '/grow');
    await expect(page.locator('[data-nursery=whole]')).toBeVisible();
    await sent(page);
    await page.unroute('**/care');
    await signIn(page, own, 'tam@withybeck.example', '/grow');
    await expect(page.locator('[data-nursery=whole]')).toBeVisible();
    await sent(page);
    expect(await countOf(own, `observation where kind = 'care' and on_date = '2026-11-24'`)).toBeGreaterThan(
      0,
    );
  });
});
