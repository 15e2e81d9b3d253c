import { yearSums } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let crew: Caller;
let visitor: Caller;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  crew = await addPerson(server, yard.nurseryId, 'crew@testing.example', 'crew');
  visitor = await addPerson(server, yard.nurseryId, 'visitor@testing.example', 'visitor');
});
afterAll(() => server.close());

const ofYear = async (from: string, until: string) =>
  yearSums(await visitor.ok('year', { params: yard.nursery, query: { from, until } }));

describe('a year by the ledger', () => {
  it('tells what moved between two days; what was taken back never was', async () => {
    const empty = await ofYear('2025-11-25', '2026-11-24');
    const at = await yard.sow(
      'Y-1',
      { kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 200, areaM2: 0.05 },
      80,
    );
    const lift = async (on: string, lifted: number, culled: number) => {
      const culls = culled ? [{ why: 'roots' as const, count: culled - 1 }] : [];
      const id = newId();
      await crew.ok('liftLot', { params: at, body: { id, on, lifted, culled, culls, parcels: [] } });
      return id;
    };
    await lift('2026-11-10', 30, 4);
    const slip = await lift('2026-11-12', 20, 2);
    await crew.ok('undoEntry', {
      params: { ...at, entry: slip },
      body: { id: newId(), on: '2026-11-24' },
    });
    const year = await ofYear('2025-11-25', '2026-11-24');
    expect(year.up - empty.up).toBe(80);
    expect(year).toMatchObject({
      lifted: empty.lifted + 30,
      lying: empty.lying + 30,
      standing: empty.standing + 46,
      gone: [{ cause: 'culled', count: 4 }],
      culledFor: [{ why: 'roots', count: 3 }],
    });
    const before = await ofYear('2026-11-11', '2026-11-24');
    expect(before).toMatchObject({
      lifted: 0,
      lyingBefore: 30,
      standingBefore: year.standing,
      standing: year.standing,
    });
  });
  it('is refused where it ends before it begins, and shown to nobody of another nursery', async () => {
    const query = { from: '2026-11-24', until: '2026-11-01' };
    expect(await visitor.refused('year', { params: yard.nursery, query })).toMatchObject({ status: 422 });
    const far = { from: '2026-01-01', until: '2026-11-24' };
    expect(await visitor.refused('year', { params: { nursery: newId() }, query: far })).toMatchObject({
      status: 404,
    });
  });
});
