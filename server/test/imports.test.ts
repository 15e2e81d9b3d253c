import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { openTestServer, setUpLots, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
});
afterAll(() => server.close());

const columns = {
  date: 0,
  tMin: 1,
  tMax: 2,
  rain: 3,
  dateOrder: 'iso',
  temperature: 'C',
  rainUnit: 'mm',
} as const;
const daysKept = async () =>
  (await server.owner.query('select count(*)::int as n from weather_day')).rows[0].n as number;
const weather = (check: boolean, text: string | Uint8Array, more = {}) =>
  yard.owner.table(
    'importWeather',
    { params: yard.nursery, query: { ...columns, check: check ? 'true' : 'false', ...more } },
    text,
  );
const dayAt = (i: number) => new Date(Date.UTC(2024, 0, 1) + i * 86_400_000).toISOString().slice(0, 10);

describe('a station’s table', () => {
  beforeEach(() => server.owner.query('delete from weather_day'));

  it('is only looked at until it is taken', async () => {
    const text = 'date,low,high,rain\n2026-06-01,6,15,0\n2026-06-02,7,16,2.5\n';
    const [line] = (await weather(true, text)).slice(-1);
    expect(line.report).toMatchObject({ lines: 2, good: 2, bad: 0, stored: false });
    expect(await daysKept()).toBe(0);
    const [taken] = (await weather(false, text)).slice(-1);
    expect(taken.report).toMatchObject({ good: 2, stored: true, first: '2026-06-01', last: '2026-06-02' });
    expect(await yard.owner.ok('weather', { params: yard.nursery })).toEqual({
      start: '2026-06-01',
      tMinC: [6, 7],
      tMaxC: [15, 16],
      rainMm: [0, 2.5],
      humidity: [null, null],
      windMs: [null, null],
    });
  });
  it('is taken back as one act: its days go, or are as they were before it, but for what was written anew since', async () => {
    const days = async () =>
      (
        await server.owner.query(
          'select day::text, t_min_c as low, rain_mm as rain from weather_day order by day',
        )
      ).rows.map(({ day, low, rain }) => [day.slice(8), low, rain]);
    const take = async (...lines: string[]) =>
      (await weather(false, ['date,low,high,rain', ...lines].join('\n'))).at(-1)!.report!.taken!;
    const back = (table: string) =>
      yard.owner.ok('takeTableBack', { params: { ...yard.nursery, table }, body: { id: newId() } });
    expect((await weather(true, 'date,low,high,rain\n2026-06-01,6,15,0\n')).at(-1)!.report!.taken).toBeNull();
    await take('2026-06-01,6,15,0');
    const wrong = await take('2026-06-01,9,15,1', '2026-06-02,9.25,16,', '2026-06-03,9,17,2');
    await take('2026-06-03,3,17,2');
    const { tables } = await yard.owner.ok('tablesTaken', { params: yard.nursery });
    expect(tables.map(({ id, good }) => [id === wrong, good])).toEqual([
      [false, 1],
      [true, 3],
      [false, 1],
      ...tables.slice(3).map(() => [false, expect.anything()]),
    ]);
    expect(await back(wrong)).toMatchObject({ back: 2, left: 1 });
    expect(await days()).toEqual([
      ['01', 6, 0],
      ['03', 3, 2],
    ]);
    const again = await yard.owner.refused('takeTableBack', {
      params: { ...yard.nursery, table: wrong },
      body: { id: newId() },
    });
    expect(again.detail).toMatch(/taken back already/);
    expect(await days()).toHaveLength(2);
  });
  it('is read in Fahrenheit, inches, day first, any order, with semicolons and a byte-order mark', async () => {
    const text = '\uFEFFRain in;Hi;Day;Lo\r\n0,5;68;25/12/2025;50\r\n';
    const query = {
      date: 2,
      tMin: 3,
      tMax: 1,
      rain: 0,
      dateOrder: 'day-first',
      temperature: 'F',
      rainUnit: 'in',
    };
    const [line] = (await weather(false, text, query)).slice(-1);
    expect(line.report).toMatchObject({ good: 1, bad: 0 });
    expect(await yard.owner.ok('weather', { params: yard.nursery })).toMatchObject({
      start: '2025-12-25',
      tMinC: [10],
      tMaxC: [20],
      rainMm: [12.7],
    });
  });
  it('has its bad lines told by number, its gaps by date, and its good ones taken', async () => {
    const text = [
      'date,low,high,rain',
      '2026-06-01,6,15,0',
      '2026-06-02,16,15,0',
      '2026-06-31,6,15,0',
      '2026-06-05,cold,15,0',
      '2026-06-06,6,15,-1',
      '2026-06-07,6,15,',
      '2026-06-07,6,16,',
      '2030-01-01,6,16,',
      '2026-06-08',
    ].join('\n');
    const [line] = (await weather(true, text)).slice(-1);
    expect(line.report!.issues.map((issue) => issue.line)).toEqual([3, 4, 5, 6, 8, 9, 10]);
    expect(line.report).toMatchObject({ good: 2, bad: 7, gaps: [{ from: '2026-06-02', to: '2026-06-06' }] });
    expect(line.report!.issues[4].message).toMatch(/already given on line 7/);
    expect(line.report!.issues[5].message).toMatch(/still to come/);
  });
  it('of 100 000 lines comes in with progress, once each day, and goes out as it came', async () => {
    const lines = Array.from(
      { length: 100_000 },
      (_, i) => `${dayAt(i % 900)},${5 + (i % 7)},${15 + (i % 5)},${i % 3}`,
    );
    const answer = await weather(false, `date,low,high,rain\n${lines.join('\n')}\n`);
    const progress = answer.flatMap((line) => line.progress ?? []);
    expect(progress.length).toBeGreaterThan(10);
    expect([...progress].sort((a, b) => a - b)).toEqual(progress);
    expect(answer.at(-1)!.report).toMatchObject({ lines: 100_000, good: 900, bad: 99_100 });
    const csv = await (await yard.owner.send('exportWeather', { params: yard.nursery })).text();
    await server.owner.query('delete from weather_day');
    await weather(false, csv);
    expect(await (await yard.owner.send('exportWeather', { params: yard.nursery })).text()).toBe(csv);
    expect(await daysKept()).toBe(900);
  });
  it('that is stopped half-way leaves nothing behind', async () => {
    const stopper = new AbortController();
    const lines = Array.from({ length: 60_000 }, (_, i) => `${dayAt(i % 900)},5,15,0\n`);
    let sent = 0;
    const body = new ReadableStream<Uint8Array>({
      pull(controller) {
        // The second half never comes: the caller goes away first.
        if (sent >= 30_000) return stopper.abort();
        controller.enqueue(
          new TextEncoder().encode(
            (sent === 0 ? 'date,low,high,rain\n' : '') + lines.slice(sent, sent + 3000).join(''),
          ),
        );
        sent += 3000;
      },
    });
    const sending = yard.owner.send(
      'importWeather',
      { params: yard.nursery, query: { ...columns, check: 'false' } },
      {
        body,
        signal: stopper.signal,
        headers: { 'content-type': 'text/csv' },
        duplex: 'half',
      } as RequestInit,
    );
    await expect(sending.then((r) => r.text())).rejects.toThrow();
    // The next import waits for nothing of the stopped one and finds an empty table.
    const [line] = (await weather(false, 'date,low,high,rain\n2026-06-01,6,15,0\n')).slice(-1);
    expect(line.report!.stored).toBe(true);
    expect(await daysKept()).toBe(1);
  });
  it.each([
    ['binary', new Uint8Array([0x50, 0x4b, 3, 4, 0, 0, 0, 0, 0, 1, 2]), '/problems/not-text'],
    ['empty', '', '/problems/empty-table'],
    ['only a header', 'date,low,high,rain\n', '/problems/empty-table'],
  ])('that is %s is refused in words', async (_, text, type) => {
    const [line] = (await weather(false, text)).slice(-1);
    expect(line.problem).toMatchObject({ type });
    expect(line.problem!.detail).toMatch(/Nothing was taken/);
  });
  it('that is huge is refused before it is read', async () => {
    const [line] = (await weather(false, new Uint8Array(41 * 1024 * 1024).fill(49))).slice(-1);
    expect(line.problem).toMatchObject({ status: 413, type: '/problems/too-large' });
  });
  it('needs its columns chosen', async () => {
    const [line] = await weather(true, 'a,b\n1,2\n', { date: -1 });
    expect(line.problem).toMatchObject({ status: 422, detail: 'Choose a column.' });
  });
});

describe('a table of measured plants', () => {
  const shape = {
    lot: 0,
    date: 1,
    height: 2,
    diameter: 3,
    dateOrder: 'iso',
    heightUnit: 'cm',
    diameterUnit: 'mm',
  } as const;
  const measured = (check: boolean, text: string, id = newId()) =>
    yard.owner.table(
      'importMeasurements',
      { params: yard.nursery, query: { ...shape, check: check ? 'true' : 'false', id } },
      text,
    );
  const samples = async () => (await yard.owner.ok('lot', { params: yard.onBench })).evidence.sizes;

  it('becomes one sample a lot and day, once however often it is sent', async () => {
    const text =
      'lot,date,height,collar\ntray-1,2026-07-01,20,3\nTRAY-1,2026-07-01,24,\nNONE,2026-07-01,24,\nTRAY-1,2025-07-01,24,\nTRAY-1,2026-08-01,-4,\n';
    const id = newId();
    const [looked] = (await measured(true, text, id)).slice(-1);
    expect(looked.report).toMatchObject({ good: 2, bad: 3, stored: false });
    expect(looked.report!.issues.map((issue) => issue.line)).toEqual([4, 5, 6]);
    expect(await samples()).toHaveLength(0);
    await measured(false, text, id);
    await measured(false, text, id);
    expect(await samples()).toMatchObject([
      { what: 'height', n: 2, mean: 22, on: '2026-07-01' },
      { what: 'diameter', n: 1, mean: 3 },
    ]);
  });
  it('is taken back as one act, whatever was recorded otherwise stays', async () => {
    const before = await samples();
    const text =
      'lot,date,height,collar\nTRAY-1,2026-09-01,30,4\nTRAY-1,2026-09-02,31,4\nBED-1,2026-09-01,40,5\n';
    const { report } = (await measured(false, text)).at(-1)!;
    expect(await samples()).toHaveLength(before.length + 4);
    const params = { ...yard.nursery, table: report!.taken! };
    const { back, left, tables } = await yard.owner.ok('takeTableBack', { params, body: { id: newId() } });
    expect([back, left]).toEqual([3, 0]);
    expect(tables.map(({ id }) => id)).not.toContain(report!.taken);
    expect(await samples()).toEqual(before);
    // Then it may come in again.
    expect((await measured(true, text)).at(-1)!.report).toMatchObject({ good: 3, known: 0 });
  });
  it('goes out as it came, and nothing in it can run in a spreadsheet', async () => {
    const csv = await (await yard.owner.send('exportMeasurements', { params: yard.nursery })).text();
    expect(csv.split(/\r?\n/)).toEqual([
      'lot,date,height_cm,diameter_mm',
      'TRAY-1,2026-07-01,20,3',
      'TRAY-1,2026-07-01,24,',
    ]);
    await yard.sow('=1+1', {
      kind: 'bed',
      id: newId(),
      placeId: yard.bed.id,
      densityPerM2: 100,
      areaM2: 0.1,
    });
    await measured(false, 'lot,date,height,collar\n=1+1,2026-07-01,20,3\n');
    expect(await (await yard.owner.send('exportMeasurements', { params: yard.nursery })).text()).toContain(
      `"'=1+1",2026-07-01,20,3`,
    );
  });
  it('that came out of Kauri comes back in and doubles nothing; another table under the same id is refused', async () => {
    const csv = await (await yard.owner.send('exportMeasurements', { params: yard.nursery })).text();
    const before = await samples();
    const text = csv.replace("'=1+1", '=1+1');
    const [looked] = (await measured(true, text)).slice(-1);
    expect(looked.report).toMatchObject({ good: 0, bad: 0, known: 3 });
    await measured(false, text);
    expect(await samples()).toEqual(before);
    // One plant more is another sample.
    const id = newId();
    const more = `${text}\r\nTRAY-1,2026-07-01,25,`;
    expect((await measured(false, more, id)).at(-1)!.report).toMatchObject({ good: 3, known: 1 });
    const other = (await measured(false, `${more}\r\nTRAY-1,2026-07-02,25,`, id)).at(-1)!;
    expect(other.problem).toMatchObject({ status: 409, type: '/problems/id-used' });
    expect((await measured(false, more, id)).at(-1)!.report).toMatchObject({ good: 3, known: 1 });
  });
});
