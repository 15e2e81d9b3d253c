import type { BodyInputOf } from '@kauri/core/contract';
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
  crew = await addPerson(server, yard.nurseryId, 'crew@arrival.example', 'crew');
  visitor = await addPerson(server, yard.nurseryId, 'visitor@arrival.example', 'visitor');
});
afterAll(() => server.close());

let came = 0;
type New = BodyInputOf<'addArrival'>;
const arrival = (more: Partial<New> = {}) => ({
  params: yard.nursery,
  body: {
    id: newId(),
    on: '2026-11-01',
    speciesId: yard.speciesId('ALN'),
    kind: 'liner' as const,
    supplier: 'Fell Edge liners',
    provenance: 'Upper valley',
    papers: 'P-17',
    count: 100,
    price: 0.4,
    looked: 12,
    failing: 3,
    faults: [{ fault: 'j-root' as const, count: 3 }],
    accepted: 80,
    quarantineUntil: null,
    note: '',
    lot: {
      id: newId(),
      code: `IN-${++came}`,
      stage: {
        kind: 'bed' as const,
        id: newId(),
        placeId: yard.bed.id,
        densityPerM2: 200,
        areaM2: 0.2,
      },
      heightsCm: [22, 25, 24],
      diametersMm: [3.5, 4],
    },
    ...more,
  },
});
const all = async () => (await visitor.ok('arrivals', { params: yard.nursery })).arrivals;

describe('plants from outside', () => {
  it('are taken in part, and what is taken is a lot at its own size', async () => {
    const body = arrival();
    await crew.ok('addArrival', body);
    await crew.ok('addArrival', body);
    const lotId = body.body.lot!.id;
    expect((await all()).find(({ id }) => id === body.body.id)).toMatchObject({
      accepted: 80,
      code: body.body.lot!.code,
      faults: [{ fault: 'j-root', count: 3 }],
    });
    const { lot, evidence } = await visitor.ok('lot', { params: { ...yard.nursery, lot: lotId } });
    expect(lot).toMatchObject({ origin: 'bought', held: { standing: 80 } });
    expect(evidence.sizes.map(({ what, n }) => [what, n])).toEqual([
      ['height', 3],
      ['diameter', 2],
    ]);
    await crew.ok('takeBackArrival', {
      params: { ...yard.nursery, arrival: body.body.id },
      body: { id: newId() },
    });
    expect((await all()).some(({ id }) => id === body.body.id)).toBe(false);
    // Its lot never was, and nothing of it stands.
    expect((await visitor.send('lot', { params: { ...yard.nursery, lot: lotId } })).status).toBe(404);
    const { rows } = await server.owner.query(
      "select coalesce(sum(held), 0)::int as n from balance where lot_id = $1 and account <> 'supply'",
      [lotId],
    );
    expect(rows).toEqual([{ n: 0 }]);
  });
  it('may all be sent back, and then make no lot', async () => {
    await crew.ok('addArrival', arrival({ accepted: 0, lot: null, supplier: 'Low Gill' }));
    expect((await all()).find(({ supplier }) => supplier === 'Low Gill')).toMatchObject({ lotId: null });
  });
  it('must add up; nothing is half kept', async () => {
    const tries: [Partial<New>, RegExp][] = [
      [{ accepted: 98 }, /found with faults/],
      [{ looked: 101 }, /only 100 came/],
      [{ failing: 13 }, /only 12 looked at/],
      [{ accepted: 0 }, /becomes a lot/],
      [{ on: '2031-01-01' }, /still to come/],
      [{ quarantineUntil: '2026-11-01' }, /after they came/],
      [{ supplier: ' ' }, /who they came from/],
    ];
    for (const [more, said] of tries) {
      const { detail, fields } = await crew.refused('addArrival', arrival(more));
      expect(`${detail} ${fields?.map(({ message }) => message).join(' ')}`).toMatch(said);
    }
    const before = (await all()).length;
    expect(
      (await crew.send('addArrival', arrival({ lot: { ...arrival().body.lot!, code: 'BED-1' } }))).status,
    ).toBe(409);
    expect(await all()).toHaveLength(before);
    expect((await visitor.send('addArrival', arrival())).status).toBe(403);
  });
  it('in quarantine are not sent or planted, nor what was set apart from them, until it ends', async () => {
    const body = arrival({ quarantineUntil: '2026-12-15' });
    await crew.ok('addArrival', body);
    const lot = body.body.lot!.id;
    const apart = newId();
    await crew.ok('splitLot', {
      params: { ...yard.nursery, lot },
      body: {
        id: newId(),
        on: '2026-11-10',
        note: '',
        from: 'standing',
        parcelId: null,
        lotId: apart,
        code: `IN-${++came}`,
        count: 30,
        heightsCm: [],
        stage: { ...body.body.lot!.stage, id: newId() },
      },
    });
    const parcelId = newId();
    const grade = { id: parcelId, grade: '', fromCm: null, toCm: null, count: 20, bundleOf: null, place: '' };
    await crew.ok('liftLot', {
      params: { ...yard.nursery, lot: apart },
      body: { id: newId(), on: '2026-11-15', lifted: 20, culled: 0, parcels: [grade] },
    });
    const sending = () => ({
      params: yard.nursery,
      body: {
        id: newId(),
        on: '2026-11-20',
        order: null,
        to: 'A farm',
        note: '',
        parts: [{ parcelId, count: 5 }],
      },
    });
    expect((await crew.refused('sendTrees', sending())).detail).toMatch(/in quarantine until 2026-12-15/);
    const planting = newId();
    await crew.ok('putPlanting', {
      params: { ...yard.nursery, planting },
      body: {
        id: newId(),
        version: null,
        name: 'Bank',
        where: '',
        purpose: '',
        ground: 'moist',
        mulch: '',
        note: '',
        layout: { kind: 'rows', rows: 5, perRow: 5, rowM: 2, treeM: 2 },
      },
    });
    const plant = {
      params: { ...yard.nursery, planting },
      body: {
        id: newId(),
        on: '2026-11-20',
        planter: '',
        guard: 'none' as const,
        stake: 'none' as const,
        note: '',
        parts: [{ id: newId(), parcelId, count: 5 }],
      },
    };
    expect((await crew.refused('plantTrees', plant)).detail).toMatch(/in quarantine/);
    const undo = { params: { ...yard.nursery, arrival: body.body.id }, body: { id: newId() } };
    expect((await crew.refused('takeBackArrival', undo)).detail).toMatch(/worked on since/);
    const free = { params: { ...yard.nursery, arrival: body.body.id }, body: { id: newId(), until: null } };
    expect((await crew.send('endQuarantine', free)).status).toBe(403);
    await yard.owner.ok('endQuarantine', free);
    await crew.ok('sendTrees', sending());
  });
});
