import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let crew: Caller;
const main = newId();
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  crew = await addPerson(server, yard.nurseryId, 'crew@testing.example', 'crew');
});
afterAll(() => server.close());

const read = () => crew.ok('readStations', { params: yard.nursery, body: {} });
const fail = (station: string, fault: 'none' | 'gap' | 'spike' | 'drift' | 'stuck' | 'dead') =>
  yard.owner.ok('failStation', { params: { ...yard.nursery, station }, body: { fault } });

describe('a weather station', () => {
  it('is asked for before it can be read', async () => {
    expect((await crew.refused('readStations', { params: yard.nursery, body: {} })).detail).toMatch(
      /no station yet/,
    );
  });
  it('fills sixty days of weather up to last midnight, hour by hour', async () => {
    await yard.owner.ok('addStation', {
      params: yard.nursery,
      body: { id: main, name: 'On the barn', coverId: null },
    });
    const first = await read();
    expect(first).toMatchObject({ hours: 60 * 24, flagged: 0, days: 60 });
    expect(first.stations[0]).toMatchObject({
      name: 'On the barn',
      lastHour: '2026-11-23T23',
      silentDays: 0,
      missing: [],
    });
    expect(first.weather.start).toBe('2026-09-25');
    expect(first.weather.tMinC.every((t, i) => t !== null && t <= first.weather.tMaxC[i]!)).toBe(true);
    expect(first.weather.humidity.every((h) => h !== null && h > 0 && h <= 1)).toBe(true);
    // Read again, there is nothing new, and nothing twice.
    expect(await read()).toMatchObject({ hours: 0, days: 0 });
    const raw = await crew.ok('rawReadings', {
      params: { ...yard.nursery, station: main },
      query: { from: '2026-11-20', to: '2026-11-20' },
    });
    expect(raw.readings).toHaveLength(24);
    const temps = raw.readings.map((r) => r.tempC!);
    const at = first.weather.tMinC.length - 4;
    expect(first.weather.tMinC[at]).toBeCloseTo(Math.min(...temps), 1);
    expect(first.weather.tMaxC[at]).toBeCloseTo(Math.max(...temps), 1);
  });
  it('leaves the temperatures of days that came by table, and adds what only it knows', async () => {
    const other = await openTestServer();
    try {
      const here = await setUpLots(other);
      await here.owner.table(
        'importWeather',
        {
          params: here.nursery,
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
        'date,min,max\n2026-11-20,-11,31\n',
      );
      await here.owner.ok('addStation', {
        params: here.nursery,
        body: { id: newId(), name: 'Mast', coverId: null },
      });
      const { weather } = await here.owner.ok('readStations', { params: here.nursery, body: {} });
      const at = weather.tMinC.length - 4;
      expect([weather.tMinC[at], weather.tMaxC[at], weather.rainMm[at]]).toEqual([-11, 31, null]);
      expect(weather.humidity[at]).not.toBeNull();
    } finally {
      await other.close();
    }
  });
});

describe('a station that fails', () => {
  /** A nursery of its own, with a station that fails from the first reading on. */
  async function failing(fault: 'gap' | 'spike' | 'stuck' | 'dead') {
    const own = await openTestServer();
    const here = await setUpLots(own);
    const station = newId();
    await here.owner.ok('addStation', {
      params: here.nursery,
      body: { id: station, name: 'Mast', coverId: null },
    });
    await here.owner.ok('failStation', { params: { ...here.nursery, station }, body: { fault } });
    const answer = await here.owner.ok('readStations', { params: here.nursery, body: {} });
    const raw = await here.owner.ok('rawReadings', {
      params: { ...here.nursery, station },
      query: { from: '2026-11-14', to: '2026-11-23' },
    });
    await own.close();
    return { ...answer, raw: raw.readings };
  }
  it('by leaving hours out: a gap, named', async () => {
    const { stations, days } = await failing('gap');
    expect(stations[0].missing).toEqual([{ from: '2026-11-18', to: '2026-11-20', days: 3 }]);
    expect(days).toBe(57);
  });
  it('by a jump: kept as it came, doubted, and left out of the day', async () => {
    const { raw, stations, weather } = await failing('spike');
    const jump = raw.find((r) => r.flag === 'spike')!;
    expect(jump.hour).toBe('2026-11-21T15');
    expect(stations[0].flagged).toEqual([{ flag: 'spike', hours: 1, last: '2026-11-21T15' }]);
    expect(weather.tMaxC[weather.tMaxC.length - 3]!).toBeLessThan(jump.tempC! - 15);
  });
  it('by sticking: its days are gaps, not wrong days', async () => {
    const { raw, stations, days } = await failing('stuck');
    expect(raw.filter((r) => r.flag === 'stuck')).toHaveLength(96);
    expect(stations[0].missing).toEqual([{ from: '2026-11-20', to: '2026-11-23', days: 4 }]);
    expect(days).toBe(56);
  });
  it('by falling silent: for how many days is said, and what it told before is kept', async () => {
    const { stations, hours } = await failing('dead');
    expect(stations[0]).toMatchObject({ silentDays: 11, lastHour: '2026-11-12T23' });
    expect(hours).toBe(49 * 24);
  });
});

describe('covers', () => {
  it('are fitted from a logger under them, and forecasts under them are warmer', async () => {
    const coverId = newId();
    const logger = newId();
    const { version } = await crew.ok('climate', { params: yard.nursery });
    const cover = { id: coverId, name: 'Tunnel', kind: 'tunnel' as const, lowC: 1.5, highC: 4, fitted: null };
    const climate = { schema: 1 as const, covers: [cover], places: [] };
    const kept = await yard.owner.ok('setClimate', { params: yard.nursery, body: { version, climate } });
    await yard.owner.ok('addStation', {
      params: yard.nursery,
      body: { id: logger, name: 'In the tunnel', coverId },
    });
    expect((await crew.refused('coverFit', { params: { ...yard.nursery, station: logger } })).detail).toMatch(
      /0 days were measured in both/,
    );
    await read();
    const { fit } = await crew.ok('coverFit', { params: { ...yard.nursery, station: logger } });
    // What the stand-in truly does, give or take the spread of sixty days.
    expect(fit.lowC).toBeCloseTo(2.1, 0);
    expect(fit.highC).toBeCloseTo(5.2, 0);
    expect(fit.days).toBe(60);
    expect((await crew.refused('coverFit', { params: { ...yard.nursery, station: main } })).detail).toMatch(
      /stands in the open/,
    );
    const before = (await crew.today(yard.nursery)).acts.find((a) => a.about === 'TRAY-1');
    const under = {
      ...climate,
      covers: [{ ...cover, lowC: 6, highC: 9 }],
      places: [{ placeId: yard.bench.id, coverId }],
    };
    await yard.owner.ok('setClimate', {
      params: yard.nursery,
      body: { version: kept.version, climate: under },
    });
    const after = await crew.today(yard.nursery);
    expect(after.forecast).toBe(2);
    expect(after.acts.find((a) => a.about === 'TRAY-1')?.reason).not.toBe(before?.reason);
  });
  it('are refused for places of nobody, or twice', async () => {
    const { version, climate } = await crew.ok('climate', { params: yard.nursery });
    const [cover] = climate.covers;
    const set = (places: { placeId: string; coverId: string }[]) =>
      yard.owner.refused('setClimate', {
        params: yard.nursery,
        body: { version, climate: { ...climate, places } },
      });
    expect((await set([{ placeId: newId(), coverId: cover.id }])).detail).toMatch(/not in this nursery/);
    const twice = { placeId: yard.bench.id, coverId: cover.id };
    expect((await set([twice, twice])).detail).toMatch(/one cover at most/);
    expect((await set([{ placeId: yard.bench.id, coverId: newId() }])).detail).toMatch(
      /cover that is not in the list/,
    );
  });
  it('take faults and additions from growers only', async () => {
    const asked = { params: { ...yard.nursery, station: main }, body: { fault: 'gap' as const } };
    expect((await crew.send('failStation', asked)).status).toBe(403);
    await fail(main, 'none');
    expect(
      (await yard.owner.send('failStation', { ...asked, params: { ...asked.params, station: newId() } }))
        .status,
    ).toBe(404);
  });
});

describe('values learnt', () => {
  it('are kept as a version, and change forecasts once taken', async () => {
    const { version, learnt } = await crew.ok('learnt', { params: yard.nursery });
    expect(learnt.values).toEqual([]);
    const value = {
      id: newId(),
      speciesId: yard.speciesId('ALN'),
      containerTypeId: yard.catalogue.containers[0].id,
      figure: 'vigour' as const,
      factor: 0.4,
      sdLog: 0.15,
      lots: 3,
      on: '2026-11-24',
      state: 'accepted' as const,
    };
    const body = { version, learnt: { schema: 1 as const, values: [value] } };
    expect((await crew.send('setLearnt', { params: yard.nursery, body })).status).toBe(403);
    await yard.owner.ok('setLearnt', { params: yard.nursery, body });
    expect((await crew.today(yard.nursery)).forecast).toBe(2);
    expect((await yard.owner.send('setLearnt', { params: yard.nursery, body })).status).toBe(409);
    // Bands widened by how past forecasts held are kept beside them.
    const bands = [{ figure: 'height' as const, width: 1.3, n: 48, on: '2026-11-24' }];
    const kept = await yard.owner.ok('setLearnt', {
      params: yard.nursery,
      body: { version: version + 1, learnt: { ...body.learnt, bands } },
    });
    expect(kept.learnt.bands).toEqual(bands);
    expect((await crew.today(yard.nursery)).forecast).toBe(2);
    const wild = { ...body.learnt, bands: [{ ...bands[0], width: 9 }] };
    const refused = await yard.owner.send('setLearnt', {
      params: yard.nursery,
      body: { version: version + 2, learnt: wild },
    });
    expect(refused.status).toBe(422);
  });
});
