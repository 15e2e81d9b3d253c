import {
  dayOf,
  factsFrom,
  forecastLot,
  liftedOf,
  type Lookup,
  seriesFrom,
  standingOf,
  type Status,
  tallyAt,
  warmthOf,
  weatherOutlook,
} from '@kauri/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadDemo } from '../src/demo/load';
import { openTestServer, quiet, type Caller, type TestServer } from './harness';

let server: TestServer;
beforeAll(async () => {
  server = await openTestServer({ demo: true });
});
afterAll(() => server.close());

async function read(caller: Caller) {
  const { memberships } = (await caller.ok('me'))!;
  const params = { nursery: memberships[0].nurseryId };
  const [catalogue, { lots }, { evidence }, weather] = await Promise.all([
    caller.ok('catalogue', { params }),
    caller.ok('lots', { params, query: { limit: 500 } }),
    caller.ok('evidence', { params, query: { limit: 500 } }),
    caller.ok('weather', { params }),
  ]);
  const byId = <T extends { id: string }>(rows: T[]) => new Map(rows.map((row) => [row.id, row]));
  const lookup: Lookup = {
    species: byId(catalogue.species),
    places: byId(catalogue.places),
    containers: byId(catalogue.containers),
    media: byId(catalogue.media),
  };
  const records = new Map(evidence.map((e) => [e.lotId, e]));
  const first = dayOf(weather.start!);
  const series = seriesFrom(
    weather.tMinC.map((tMinC, i) => ({
      day: first + i,
      tMinC: tMinC!,
      tMaxC: weather.tMaxC[i]!,
      rainMm: weather.rainMm[i],
    })),
  );
  return {
    catalogue,
    series,
    lots: lots.map((row) => ({ row, facts: factsFrom(row, records.get(row.id)!, lookup) })),
  };
}

describe('the demo', () => {
  it('signs in one person for each role, and counts what it promises', async () => {
    const { demoPeople } = await server.visitor().ok('door');
    expect(new Set(demoPeople.filter((p) => p.nursery.startsWith('Withybeck')).map((p) => p.role))).toEqual(
      new Set(['owner', 'grower', 'crew', 'visitor']),
    );
    for (const p of demoPeople) await server.signIn(p.email, p.password);
    const withybeck = await read(await server.signIn('wren@withybeck.example'));
    expect(withybeck.lots).toHaveLength(142);
    expect(withybeck.catalogue.places.filter((p) => p.place.kind === 'bed')).toHaveLength(14);
    expect(withybeck.catalogue.places.filter((p) => p.place.kind === 'bench')).toHaveLength(3);
    expect(withybeck.series.tMinC.length).toBeGreaterThan(3650);
    const clara = await read(await server.signIn('aylen@piedraclara.example'));
    expect(clara.lots).toHaveLength(3);
    expect(clara.catalogue.places).toHaveLength(2);
  });

  it('accounts for every tree of every lot', async () => {
    for (const email of ['wren@withybeck.example', 'aylen@piedraclara.example']) {
      const { lots } = await read(await server.signIn(email));
      for (const { row, facts } of lots) {
        const tally = tallyAt(facts.movements);
        expect(tally.balances, row.code).toBe(true);
        expect(tally.sown + tally.standing + liftedOf(tally) + tally.out, row.code).toBe(tally.seeds);
        expect(row.held, row.code).toMatchObject({
          sown: tally.sown,
          standing: tally.standing,
          lifted: tally.lifted,
          sent: tally.sent,
          out: tally.out,
        });
      }
    }
  });

  it('shows every state, and follows the models', async () => {
    const { lots, series, catalogue } = await read(await server.signIn('wren@withybeck.example'));
    const outlook = weatherOutlook(series, catalogue.nursery, dayOf(catalogue.nursery.today), {
      horizonDays: 460,
    });
    const warmth = warmthOf(outlook);
    const seen = new Map<Status, number>();
    let within = 0;
    let judged = 0;
    for (const { facts } of lots) {
      const forecast = forecastLot(facts, outlook, warmth, { view: outlook.asOf });
      const standing = standingOf(facts, forecast)!;
      seen.set(standing.status, (seen.get(standing.status) ?? 0) + 1);
      // Each lot's last height against its forecast from all but the last, as known that day.
      const heights = facts.sizes.filter((s) => s.what === 'height').sort((a, b) => a.day - b.day);
      const last = heights.at(-1);
      if (heights.length < 3 || !last) continue;
      const before = heights[heights.length - 2].day;
      const then = weatherOutlook(series, catalogue.nursery, before, { horizonDays: 200 });
      const early = forecastLot({ ...facts, pulls: [] }, then, warmthOf(then), { view: last.day }).state
        .heightCm;
      judged++;
      if (last.mean >= early.p10 * 0.97 && last.mean <= early.p90 * 1.03) within++;
    }
    for (const status of [
      'filling',
      'ready',
      'holding',
      'bound',
      'lift',
      'lifted',
      'failed',
      'waiting',
    ] as const) {
      expect(seen.get(status) ?? 0, status).toBeGreaterThan(0);
    }
    expect(judged).toBeGreaterThan(12);
    expect(within / judged).toBeGreaterThan(0.6);
  });

  it('is asked for on the server as on the screen: lots, roots and the seed room', async () => {
    const wren = await server.signIn('wren@withybeck.example');
    const { memberships } = (await wren.ok('me'))!;
    const params = { nursery: memberships[0].nurseryId };
    const { acts, forecast } = await wren.today(params);
    expect(forecast).toBeGreaterThan(20);
    expect(acts.find((a) => a.rule === 'radicles-out')).toMatchObject({ part: 'seed', when: 'now' });
    expect(acts.find((a) => a.rule === 'roots-rejected')).toMatchObject({
      part: 'roots',
      about: '25-ALN-02',
    });
    expect(acts.find((a) => a.rule === 'root-bound')).toMatchObject({ part: 'lot' });
    const order = ['now', 'week', 'weeks', 'watch'];
    const whens = acts.map((a) => order.indexOf(a.when));
    expect(whens).toEqual([...whens].sort());
    for (const { title, reason } of acts) expect(`${title} ${reason}`).not.toMatch(/NaN|undefined|Infinity/);
  });

  it('is loaded once', async () => {
    const before = (await server.owner.query('select count(*)::int as n from movement')).rows[0].n;
    await loadDemo(
      {
        pool: server.owner,
        today: () => '2026-11-24',
        irrigationUrl: '',
        stationUrl: '',
        instrumentUrl: '',
        askToday: () => undefined,
        askSeason: () => undefined,
        askPractice: () => undefined,
        log: quiet,
      },
      server.databaseUrl,
    );
    expect((await server.owner.query('select count(*)::int as n from movement')).rows[0].n).toBe(before);
  });
});

describe('the demo at other times of the year', () => {
  it.each(['2027-03-02', '2026-07-15'])('is in season on %s', async (today) => {
    const then = await openTestServer({ demo: true, today });
    try {
      const { lots, catalogue } = await read(await then.signIn('wren@withybeck.example'));
      expect(catalogue.nursery.today).toBe(today);
      for (const { row } of lots) expect(row.sownOn < today).toBe(true);
      expect(lots.some(({ row }) => row.held.standing > 0)).toBe(true);
    } finally {
      await then.close();
    }
  });
});
