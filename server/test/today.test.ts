import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  addPerson,
  basesOf,
  openTestServer,
  setUpLots,
  TODAY,
  type Caller,
  type TestServer,
} from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let crew: Caller;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  crew = await addPerson(server, yard.nurseryId, 'crew@testing.example', 'crew');
  // Hard as wood: root-bound by its plugs.
  await crew.ok('pullRoots', {
    params: yard.onBench,
    body: { id: newId(), on: '2026-11-01', scores: [4, 4, 4], spoiled: 0 },
  });
});
afterAll(() => server.close());

const mark = (more: object = {}) => ({
  params: yard.nursery,
  body: {
    id: newId(),
    rule: 'root-bound' as const,
    subjectId: yard.onBench.lot,
    mark: 'done' as const,
    on: TODAY,
    until: null,
    trees: 80,
    ...more,
  },
});
const rulesOf = async (as = crew) => (await as.today(yard.nursery)).acts.map((a) => a.rule);

describe('Today on the server', () => {
  it('asks for what the lots ask for, forecasts each once, and anew when its records change', async () => {
    const first = await crew.today(yard.nursery);
    expect(first.acts.find((a) => a.rule === 'root-bound')).toMatchObject({
      about: 'TRAY-1',
      when: 'now',
      trees: 80,
    });
    expect(await crew.today(yard.nursery)).toEqual(first);
    const before = await basesOf(server, yard.nurseryId);
    await crew.ok('pullRoots', {
      params: yard.onBench,
      body: { id: newId(), on: TODAY, scores: Array.from({ length: 30 }, () => 0), spoiled: 0 },
    });
    const after = await crew.today(yard.nursery);
    const now = await basesOf(server, yard.nurseryId);
    expect(now[yard.onBench.lot]).not.toBe(before[yard.onBench.lot]);
    expect(now[yard.inBed.lot]).toBe(before[yard.inBed.lot]);
    expect(after.acts.some((a) => a.rule === 'root-bound')).toBe(false);
    const entry = (await crew.ok('lot', { params: yard.onBench })).evidence.pulls.at(-1)!.entry;
    await crew.ok('undoEntry', { params: { ...yard.onBench, entry }, body: { id: newId(), on: TODAY } });
    expect(await rulesOf()).toContain('root-bound');
  });
  it('forecasts all anew when the weather changes', async () => {
    const before = await basesOf(server, yard.nurseryId);
    await yard.owner.table(
      'importWeather',
      {
        params: yard.nursery,
        query: {
          check: 'false',
          dateOrder: 'iso',
          date: 0,
          tMin: 1,
          tMax: 2,
          temperature: 'C',
          rainUnit: 'mm',
        },
      },
      'date,min,max\n2026-11-20,2,8\n',
    );
    await crew.today(yard.nursery);
    const now = await basesOf(server, yard.nurseryId);
    for (const lot of Object.keys(before)) expect(now[lot]).not.toBe(before[lot]);
  });
});

describe('what is done about acts', () => {
  it('hides one that is done until its rule may ask again, with the minutes it took, and undoes it', async () => {
    const done = mark({ minutes: 95 });
    const book = await crew.ok('markAct', done);
    expect(book.marks[0]).toMatchObject({
      rule: 'root-bound',
      mark: 'done',
      until: '2026-12-15',
      minutes: 95,
    });
    expect(await rulesOf()).not.toContain('root-bound');
    await crew.ok('undoMark', { params: { ...yard.nursery, mark: done.body.id }, body: { id: newId() } });
    expect(await rulesOf()).toContain('root-bound');
    expect(
      (
        await crew.refused('undoMark', {
          params: { ...yard.nursery, mark: done.body.id },
          body: { id: newId() },
        })
      ).detail,
    ).toMatch(/taken back already/);
  });
  it('puts a skipped one off with its reason, and gives one to somebody of this nursery', async () => {
    expect((await crew.refused('markAct', mark({ subjectId: newId() }))).detail).toMatch(
      /not in this nursery/,
    );
    expect((await crew.refused('markAct', mark({ mark: 'skipped', until: '2026-12-01' }))).detail).toMatch(
      /Say why/,
    );
    expect((await crew.refused('markAct', mark({ mark: 'skipped', reason: 'rain' }))).detail).toMatch(
      /from which day/,
    );
    const skipped = mark({ mark: 'skipped', reason: 'no pots left', until: '2026-12-01' });
    await crew.ok('markAct', skipped);
    expect(await rulesOf()).not.toContain('root-bound');
    await crew.ok('undoMark', { params: { ...yard.nursery, mark: skipped.body.id }, body: { id: newId() } });
    const { people } = await crew.ok('todayBook', { params: yard.nursery });
    const kit = people.find((p) => p.role === 'crew')!;
    await crew.ok('markAct', mark({ mark: 'assigned', assignedTo: kit.id }));
    const act = (await crew.today(yard.nursery)).acts.find((a) => a.rule === 'root-bound')!;
    expect(act.assignedTo).toBe(kit.id);
    expect((await crew.refused('markAct', mark({ mark: 'assigned', assignedTo: newId() }))).detail).toMatch(
      /Nobody of this nursery/,
    );
    expect((await crew.refused('markAct', mark({ on: '2027-05-01' }))).detail).toMatch(/still to come/);
  });
  it('is written of several at once or of none, and taken back the same way', async () => {
    const { people } = await crew.ok('todayBook', { params: yard.nursery });
    const kit = people.find((p) => p.role === 'crew')!;
    const given = (assignedTo: string) => mark({ mark: 'assigned', assignedTo }).body;
    const marks = [given(kit.id), given(kit.id), given(kit.id)];
    const of = (ids: string[]) => ({ params: yard.nursery, body: { id: newId(), marks: ids } });
    const held = async () => {
      const book = await crew.ok('todayBook', { params: yard.nursery });
      return marks.filter(({ id }) => book.marks.some((m) => m.id === id)).length;
    };
    const wrong = { params: yard.nursery, body: { id: newId(), marks: [...marks, given(newId())] } };
    expect((await crew.refused('markTogether', wrong)).detail).toMatch(/Nobody of this nursery/);
    expect(await held()).toBe(0);
    await crew.ok('markTogether', { params: yard.nursery, body: { id: newId(), marks } });
    expect(await held()).toBe(3);
    const ids = marks.map(({ id }) => id);
    expect((await crew.refused('undoMarks', of([...ids, newId()]))).status).toBe(404);
    expect(await held()).toBe(3);
    await crew.ok('undoMarks', of(ids));
    expect(await held()).toBe(0);
  });
  it('is asked for a few of each kind of urgency, and counted whole', async () => {
    const all = await crew.today(yard.nursery);
    const few = await crew.ok('today', { params: yard.nursery, query: { each: 1 } });
    expect(few.counts).toEqual(all.counts);
    expect(Object.values(all.counts).reduce((a, b) => a + b)).toBe(all.acts.length);
    for (const [when, n] of Object.entries(all.counts))
      expect(few.acts.filter((a) => a.when === when)).toHaveLength(Math.min(1, n));
    expect(few.acts[0]).toEqual(all.acts[0]);
  });
  it('learns how long work takes from the minutes written down', async () => {
    const before = (await crew.today(yard.nursery)).acts.find((a) => a.rule === 'root-bound')!;
    const slow = mark({ subjectId: yard.inBed.lot, trees: 1000, minutes: 2000 });
    await crew.ok('markAct', slow);
    const after = (await crew.today(yard.nursery)).acts.find((a) => a.rule === 'root-bound')!;
    expect(after.minutes).toBeGreaterThan(1.5 * before.minutes);
    await crew.ok('undoMark', { params: { ...yard.nursery, mark: slow.body.id }, body: { id: newId() } });
  });
  it('mutes rules for growers to decide, and refuses a stale change', async () => {
    const { version } = await crew.ok('todayBook', { params: yard.nursery });
    const rules = { schema: 1 as const, rules: { 'root-bound': { muted: true, leadDays: 0 } } };
    expect(
      (await crew.send('setTodayRules', { params: yard.nursery, body: { version, rules } })).status,
    ).toBe(403);
    const book = await yard.owner.ok('setTodayRules', { params: yard.nursery, body: { version, rules } });
    expect(await rulesOf()).not.toContain('root-bound');
    expect(
      (await yard.owner.send('setTodayRules', { params: yard.nursery, body: { version, rules } })).status,
    ).toBe(409);
    await yard.owner.ok('setTodayRules', {
      params: yard.nursery,
      body: { version: book.version, rules: { schema: 1, rules: {} } },
    });
  });
});

describe('the calendar', () => {
  const feed = (path: string) => fetch(`${server.url}${path}`);
  it('is served at a private address until another is made, with nobody signed in', async () => {
    const { path } = await crew.ok('makeCalendar', { params: yard.nursery, body: {} });
    const answer = await feed(path);
    expect(answer.headers.get('content-type')).toMatch(/^text\/calendar/);
    const text = await answer.text();
    expect(text).toMatch(/^BEGIN:VCALENDAR\r\n/);
    expect(text).toMatch(/VERSION:2\.0\r\n/);
    expect(text.trimEnd()).toMatch(/END:VCALENDAR$/);
    expect(text).toMatch(/SUMMARY:Move TRAY-1 on/);
    expect(text).toMatch(/DTSTART;VALUE=DATE:20261124\r\nDTEND;VALUE=DATE:20261125/);
    // RFC 5545: lines end in CRLF, are at most 75 octets, and every event has its own id.
    expect(text.replaceAll('\r\n', '')).not.toMatch(/[\r\n]/);
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    const uids = [...text.matchAll(/UID:(.+)\r\n/g)].map((m) => m[1]);
    expect(new Set(uids).size).toBe(uids.length);
    const again = await crew.ok('makeCalendar', { params: yard.nursery, body: {} });
    expect((await feed(path)).status).toBe(404);
    expect((await feed(again.path)).status).toBe(200);
    expect((await crew.ok('todayBook', { params: yard.nursery })).calendar).toBe(true);
    await crew.ok('dropCalendar', { params: yard.nursery, body: {} });
    expect((await feed(again.path)).status).toBe(404);
  });
  it('ends with membership, and keeps only a digest of its secret', async () => {
    const { path } = await crew.ok('makeCalendar', { params: yard.nursery, body: {} });
    const { rows } = await server.owner.query('select token_hash, person_id from calendar_token');
    expect(path).not.toContain(rows[0].token_hash);
    await server.owner.query('delete from membership where person_id = $1', [rows[0].person_id]);
    expect((await feed(path)).status).toBe(404);
    expect((await feed('/api/calendar/nothing.ics')).status).toBe(422);
  });
});
