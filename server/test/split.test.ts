import fc from 'fast-check';
import type { BodyInputOf } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, bedPlace, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let crew: Caller;
let other: { id: string };
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  crew = await addPerson(server, yard.nurseryId, 'crew@split.example', 'crew');
  other = await yard.owner.ok('addPlace', {
    params: yard.nursery,
    body: { id: newId(), place: bedPlace('Second bed') },
  });
});
afterAll(() => server.close());

const on = '2026-11-20';
let made = 0;
const inBed = (placeId: string) =>
  ({ kind: 'bed', id: newId(), placeId, densityPerM2: 200, areaM2: 0.2 }) as const;
const lotOf = (standing = 80) => yard.sow(`K-${++made}`, inBed(yard.bed.id), standing);
type Split = BodyInputOf<'splitLot'>;
const split = (count: number, more: Partial<Split> = {}): Split => ({
  id: newId(),
  on,
  note: '',
  from: 'standing',
  parcelId: null,
  lotId: newId(),
  code: `K-${++made}`,
  count,
  heightsCm: [],
  stage: inBed(other.id),
  ...more,
});
const heldOf = async (id: string) => {
  const { rows } = await server.owner.query<{ account: string; held: string }>(
    'select account, held from balance where lot_id = $1 and held > 0',
    [id],
  );
  return Object.fromEntries(rows.map((row) => [row.account, Number(row.held)]));
};
const undo = (at: { nursery: string; lot: string }, entry: string) => ({
  params: { ...at, entry },
  body: { id: newId(), on },
});

describe('part of a lot set apart', () => {
  it('is a lot of its own, as old as its parent, with its own heights; taken back, all is as it was', async () => {
    const at = await lotOf();
    const body = split(30, { heightsCm: [14, 12, 15] });
    const { parent, lots } = await crew.ok('splitLot', { params: at, body });
    expect(parent.lot.held).toMatchObject({ standing: 50 });
    expect(lots[0].lot).toMatchObject({
      code: body.code,
      origin: 'split',
      parentLotId: at.lot,
      sownOn: '2026-04-08',
      held: { standing: 30 },
    });
    // It did not come up on the day it was set apart.
    expect(lots[0].evidence.counts).toMatchObject([{ on: '2026-05-12', count: 30 }]);
    expect(lots[0].evidence.sizes[0]).toMatchObject({ what: 'height', n: 3, on });
    // Sent twice by a shaky network it is done once.
    await crew.ok('splitLot', { params: at, body });
    expect(await heldOf(at.lot)).toMatchObject({ standing: 50, 'out:split': 30 });
    await crew.ok('undoEntry', undo(at, body.id));
    expect(await heldOf(at.lot)).toMatchObject({ standing: 80 });
    expect(await heldOf(body.lotId)).toEqual({});
    // Its code is free again.
    await crew.ok('splitLot', { params: at, body: split(10, { code: body.code }) });
  });
  it('of lifted trees goes back into the ground, out of its parcel', async () => {
    const at = await lotOf();
    const parcelId = newId();
    const grade = {
      id: parcelId,
      grade: 'small',
      fromCm: null,
      toCm: null,
      count: 40,
      bundleOf: null,
      place: '',
    };
    await crew.ok('liftLot', {
      params: at,
      body: { id: newId(), on: '2026-11-18', lifted: 40, culled: 0, parcels: [grade] },
    });
    const back = split(25, { from: 'lifted', parcelId });
    const early = await crew.refused('splitLot', {
      params: at,
      body: { ...back, id: newId(), on: '2026-11-17' },
    });
    expect(early.detail).toMatch(/lifted on 2026-11-18/);
    await crew.ok('splitLot', { params: at, body: back });
    const { parcels } = await crew.ok('parcels', { params: yard.nursery });
    expect(parcels.find(({ id }) => id === parcelId)).toMatchObject({ held: 15 });
    expect(
      (await crew.send('splitLot', { params: at, body: split(16, { from: 'lifted', parcelId }) })).status,
    ).toBe(409);
    expect((await crew.send('splitLot', { params: at, body: split(5, { from: 'lifted' }) })).status).toBe(
      422,
    );
    await crew.ok('undoEntry', undo(at, back.id));
    expect(await heldOf(at.lot)).toMatchObject({ standing: 40, lifted: 40 });
  });
  it('is refused for more than stand, a code that is taken, or a place that does not hold it: nothing is half kept', async () => {
    const at = await lotOf();
    const tries: [Partial<Split> & { count: number }, number][] = [
      [{ count: 81 }, 409],
      [{ count: 10, code: 'K-1' }, 409],
      [{ count: 10, stage: { ...inBed(other.id), areaM2: 150 } }, 422],
      [{ count: 10, on: '2031-01-01' }, 422],
    ];
    for (const [more, status] of tries)
      expect((await crew.send('splitLot', { params: at, body: split(more.count, more) })).status).toBe(
        status,
      );
    expect(await heldOf(at.lot)).toMatchObject({ standing: 80 });
  });
  it('is not taken back once it was worked on', async () => {
    const at = await lotOf();
    const body = split(30);
    await crew.ok('splitLot', { params: at, body });
    const child = { ...yard.nursery, lot: body.lotId };
    const measured = { id: newId(), on, heightsCm: [12, 14], diametersMm: [], note: '' };
    await crew.ok('measureLot', { params: child, body: measured });
    expect((await crew.refused('undoEntry', undo(at, body.id))).detail).toMatch(/worked on since/);
    await crew.ok('undoEntry', undo(child, measured.id));
    await crew.ok('undoEntry', undo(at, body.id));
    expect(await heldOf(at.lot)).toMatchObject({ standing: 80 });
  });
});

it('what is set apart of plants that came at their own size began at it too', async () => {
  const lot = newId();
  await crew.ok('addArrival', {
    params: yard.nursery,
    body: {
      id: newId(),
      on: '2026-06-01',
      speciesId: yard.speciesId('ALN'),
      kind: 'liner',
      supplier: 'Fell Edge',
      provenance: '',
      papers: '',
      count: 40,
      price: null,
      looked: 0,
      failing: 0,
      faults: [],
      accepted: 40,
      quarantineUntil: null,
      note: '',
      lot: { id: lot, code: `K-${++made}`, stage: inBed(yard.bed.id), heightsCm: [20, 22], diametersMm: [] },
    },
  });
  const at = { ...yard.nursery, lot };
  const body = split(10);
  const { lots } = await crew.ok('splitLot', { params: at, body });
  expect(lots[0].lot.origin).toBe('bought');
  expect(lots[0].evidence.sizes).toMatchObject([{ on: '2026-06-01', mean: 21 }]);
  await crew.ok('undoEntry', undo(at, body.id));
  expect(await heldOf(lot)).toMatchObject({ standing: 40 });
});

it('pricking out taken back takes the lots back that came of it', async () => {
  const flat = await yard.sow('FLAT-1', {
    kind: 'container',
    id: newId(),
    placeId: yard.bench.id,
    containerTypeId: yard.catalogue.containers[0].id,
    trays: 2,
  });
  const batch = {
    id: newId(),
    code: 'PRICKED-1',
    count: 20,
    size: 'big',
    stage: {
      kind: 'container' as const,
      id: newId(),
      placeId: yard.bench.id,
      containerTypeId: yard.catalogue.containers[0].id,
      trays: 1,
    },
  };
  const body = { id: newId(), on: '2026-06-01', note: '', batches: [batch] };
  await crew.ok('prickOut', { params: flat, body });
  await crew.ok('undoEntry', undo(flat, body.id));
  expect(await heldOf(flat.lot)).toMatchObject({ standing: 80 });
  expect(await heldOf(batch.id)).toEqual({});
});

it('however lots are split and taken back by three at once, no tree is made or lost', async () => {
  const act = fc.record({ count: fc.integer({ min: 1, max: 40 }), back: fc.boolean() });
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.array(act, { minLength: 1, maxLength: 3 }), { minLength: 3, maxLength: 3 }),
      async (people) => {
        const at = await lotOf(60);
        const children: string[] = [];
        await Promise.all(
          people.map(async (acts) => {
            for (const { count, back } of acts) {
              const body = split(count, { stage: { ...inBed(other.id), areaM2: 0.01 } });
              if (!(await crew.send('splitLot', { params: at, body })).ok) continue;
              children.push(body.lotId);
              if (back) await crew.send('undoEntry', undo(at, body.id));
            }
          }),
        );
        let trees = (await heldOf(at.lot)).standing ?? 0;
        for (const id of children) trees += (await heldOf(id)).standing ?? 0;
        expect(trees).toBe(60);
      },
    ),
    { numRuns: 6 },
  );
});
