import { dayOf, isoOf } from '@kauri/core';
import { afterEach, describe, expect, it } from 'vitest';
import { armsOf, loadDemo, sownOnOf } from '../src/demo/load';
import { demoNurseries } from '../src/demo/nurseries';
import { batchesOf, collectedDay } from '../src/demo/seed';
import { startIrrigationStandIn } from '../src/standins/irrigation';
import { startStationStandIn } from '../src/standins/station';
import { openTestServer, quiet, setUp, TODAY, type TestServer } from './harness';

const first = dayOf('2028-01-01');
const everyDay = Array.from({ length: 366 }, (_, i) => first + i);

describe.each(demoNurseries.map((demo) => [demo.name, demo] as const))('the demo of %s', (_, demo) => {
  it('can be on every day of a leap year: seed is in store before it is treated, treated before it is sown', () => {
    for (const today of everyDay) {
      const on = isoOf(today);
      const batches = batchesOf(demo.seed, armsOf(demo, today), today);
      for (const bag of demo.seed.bags) {
        const received = collectedDay(bag, batches, demo.latitudeDeg, today) + 6;
        expect(received, `${bag.code} on ${on}`).toBeLessThanOrEqual(today);
        for (const batch of batches.filter((b) => b.bag === bag.code))
          expect(batch.startedOn, `${bag.code} ${batch.name} on ${on}`).toBeGreaterThanOrEqual(received);
        for (const lot of demo.lots.filter((l) => l.from?.bag === bag.code))
          expect(sownOnOf(demo, lot, today), `${lot.code} on ${on}`).toBeGreaterThanOrEqual(received);
      }
      for (const lot of demo.lots)
        expect(sownOnOf(demo, lot, today), `${lot.code} on ${on}`).toBeLessThanOrEqual(today);
    }
  });
});

describe('loading the demo', () => {
  let server: TestServer;
  afterEach(() => server.close());
  const nurseries = async () =>
    (await server.owner.query('select name from nursery order by name')).rows.map((row) => row.name);

  // On this day a bag was once collected after it was received.
  it('goes on where a start was cut off between two nurseries, and is whole then', async () => {
    server = await openTestServer();
    const [irrigation, stations] = await Promise.all([startIrrigationStandIn(), startStationStandIn()]);
    let cut = true;
    const started = {
      pool: server.owner,
      today: (timeZone: string) => {
        if (cut && timeZone.startsWith('America')) throw new Error('cut off');
        return '2026-04-20';
      },
      irrigationUrl: irrigation.url,
      stationUrl: stations.url,
      instrumentUrl: '',
      askToday: () => undefined,
      askSeason: () => undefined,
      askPractice: () => undefined,
      log: quiet,
    };
    await expect(loadDemo(started, server.databaseUrl)).rejects.toThrow('cut off');
    expect(await nurseries()).toEqual(['Withybeck Tree Yard']);
    cut = false;
    await loadDemo(started, server.databaseUrl);
    expect(await nurseries()).toEqual(['Vivero Piedra Clara', 'Withybeck Tree Yard']);
    const lots = await server.owner.query('select count(*)::int as n from lot');
    const wanted = demoNurseries.flatMap((d) => d.lots.flatMap((l) => [l, ...(l.pricked ?? [])]));
    expect(lots.rows[0].n).toBeGreaterThanOrEqual(wanted.length - 2);
    await Promise.all([irrigation.stop(), stations.stop()]);
  });

  it('leaves a database somebody set up alone', async () => {
    server = await openTestServer();
    await setUp(server);
    const nothing = {
      pool: server.owner,
      today: () => TODAY,
      irrigationUrl: '',
      stationUrl: '',
      instrumentUrl: '',
      askToday: () => undefined,
      askSeason: () => undefined,
      askPractice: () => undefined,
      log: quiet,
    };
    await loadDemo(nothing, server.databaseUrl);
    expect(await nurseries()).toEqual(['Testing Yard']);
  });
});
