import fc from 'fast-check';
import type { BodyInputOf } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bedPlace, openTestServer, setUpLots, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let other: { id: string };
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  other = await yard.owner.ok('addPlace', {
    params: yard.nursery,
    body: { id: newId(), place: bedPlace('Second bed') },
  });
});
afterAll(() => server.close());

const on = '2026-11-20';
let made = 0;
const inBed = (placeId = yard.bed.id) =>
  ({ kind: 'bed', id: newId(), placeId, densityPerM2: 200, areaM2: 0.02 }) as const;

async function receive(grams = 100): Promise<{ id: string; code: string }> {
  const [id, code] = [newId(), `Bag ${++made}`];
  await yard.owner.ok('receiveSeed', {
    params: yard.nursery,
    body: {
      id,
      code,
      speciesId: yard.speciesId('ALN'),
      collectedOn: '2025-10-10',
      receivedOn: '2025-11-01',
      seedsPerKg: 750_000,
      moisturePct: null,
      store: 'fridge',
      storeTempC: 3,
      price: null,
      provenance: {
        place: 'Low wood',
        latitudeDeg: null,
        longitudeDeg: null,
        altitudeM: null,
        zone: '',
        collector: '',
        parents: null,
      },
      grams,
      seeds: null,
      note: '',
    },
  });
  return { id, code };
}
const inBag = async (id: string) =>
  (await yard.owner.ok('seedRoom', { params: yard.nursery })).moves
    .filter((move) => move.seedLotId === id)
    .reduce((seeds, move) => seeds + move.seeds, 0);

/** Sown of a bag, 100 seeds, with nothing recorded since. */
async function sow(more: Partial<BodyInputOf<'sowLot'>> = {}) {
  const body: BodyInputOf<'sowLot'> = {
    id: newId(),
    code: `S-${++made}`,
    speciesId: yard.speciesId('ALN'),
    sownOn: '2026-04-08',
    seedState: 'ready',
    targetHeightCm: 30,
    seeds: 100,
    stage: inBed(),
    ...more,
  };
  await yard.owner.ok('sowLot', { params: yard.nursery, body });
  return { body, at: { ...yard.nursery, lot: body.id } };
}
type Sown = Awaited<ReturnType<typeof sow>>;
const lotOf = ({ at }: Sown) => yard.owner.ok('lot', { params: at });
/** The sowing as it was written down, with what is put right of it. */
async function corrected(
  sown: Sown,
  more: Partial<BodyInputOf<'correctSowing'>>,
): Promise<BodyInputOf<'correctSowing'>> {
  const { code, speciesId, sownOn, seedState, seedLotId, treatmentId, stockBedId, cutting, patch, version } =
    (await lotOf(sown)).lot;
  return {
    ...{ code, speciesId, sownOn, seedState, seedLotId, treatmentId, stockBedId, cutting, patch, version },
    id: newId(),
    origin: 'seed',
    seeds: sown.body.seeds,
    stage: null,
    ...more,
  };
}
const correct = async (sown: Sown, more: Partial<BodyInputOf<'correctSowing'>>) =>
  yard.owner.ok('correctSowing', { params: sown.at, body: await corrected(sown, more) });
const refused = async (sown: Sown, more: Partial<BodyInputOf<'correctSowing'>>) =>
  yard.owner.refused('correctSowing', { params: sown.at, body: await corrected(sown, more) });
const count = (sown: Sown, counted: number, day = '2026-05-12') =>
  yard.owner.ok('countEmergence', {
    params: sown.at,
    body: { id: newId(), on: day, counted, cause: null },
  });
const takeBack = { id: newId(), on };

describe('a sowing put right', () => {
  it('is of the species, day, count and code it was in truth, and what was recorded since stays', async () => {
    const sown = await sow();
    await count(sown, 60);
    const { lot, evidence } = await correct(sown, {
      code: 'RIGHT-1',
      speciesId: yard.speciesId('BPE'),
      sownOn: '2026-04-02',
      seeds: 150,
    });
    expect(lot).toMatchObject({
      code: 'RIGHT-1',
      speciesId: yard.speciesId('BPE'),
      sownOn: '2026-04-02',
      stage: { startedOn: '2026-04-02' },
      held: { sown: 90, standing: 60, seed: 0 },
    });
    expect(evidence.counts).toMatchObject([{ on: '2026-05-12', count: 60 }]);
    // On its day, as if it had been written so at once.
    const onDay = (day: string) =>
      evidence.movements
        .filter((m) => m.on <= day)
        .reduce((t, m) => t + (m.to === 'sown' ? m.count : m.from === 'sown' ? -m.count : 0), 0);
    expect([onDay('2026-04-01'), onDay('2026-04-02'), onDay('2026-04-30')]).toEqual([0, 150, 150]);
    // It can be put right again, and back.
    expect((await correct(sown, { seeds: 60 })).lot.held).toMatchObject({ sown: 0, standing: 60 });
    expect((await correct(sown, { seeds: 100 })).lot.held).toMatchObject({ sown: 40, standing: 60 });
  });
  it('gives its seed back to the bag it was not of, and takes it from the one it was', async () => {
    const [wrong, right] = [await receive(), await receive()];
    const sown = await sow({ seedLotId: wrong.id, seeds: 1000 });
    expect(await inBag(wrong.id)).toBe(74_000);
    const { lot } = await correct(sown, { seedLotId: right.id });
    expect(lot.seedLotId).toBe(right.id);
    expect([await inBag(wrong.id), await inBag(right.id)]).toEqual([75_000, 74_000]);
    await correct(sown, { seeds: 1500 });
    expect(await inBag(right.id)).toBe(73_500);
    // More than the bag holds: nothing is half kept.
    expect((await refused(sown, { seeds: 90_000 })).status).toBe(422);
    expect(await inBag(right.id)).toBe(73_500);
    expect((await lotOf(sown)).lot.held).toMatchObject({ sown: 1500 });
    await correct(sown, { seedLotId: null, seeds: 1500 });
    expect(await inBag(right.id)).toBe(75_000);
  });
  it('stands where it was sown in truth, in a bed or on a bench, until it was moved on', async () => {
    const sown = await sow();
    const trays = {
      kind: 'container',
      id: newId(),
      placeId: yard.bench.id,
      containerTypeId: yard.catalogue.containers[0].id,
      trays: 1,
    } as const;
    expect((await correct(sown, { stage: trays })).lot.stage).toMatchObject({
      placeId: yard.bench.id,
      trays: 1,
      areaM2: null,
    });
    await correct(sown, { stage: inBed() });
    expect((await refused(sown, { stage: { ...inBed(), areaM2: 150 } })).detail).toMatch(/does not fit/);
    await count(sown, 60);
    await yard.owner.ok('shiftLot', {
      params: sown.at,
      body: { id: newId(), on: '2026-06-01', stage: inBed(other.id), lost: 0, cause: null },
    });
    expect((await refused(sown, { stage: inBed() })).detail).toMatch(/moved on since/);
  });
  it('takes what came of it along', async () => {
    const sown = await sow();
    await count(sown, 60);
    const lotId = newId();
    await yard.owner.ok('splitLot', {
      params: sown.at,
      body: {
        ...{ id: newId(), on, from: 'standing', parcelId: null, lotId, count: 20, heightsCm: [] },
        code: `S-${++made}`,
        stage: inBed(other.id),
      },
    });
    await correct(sown, { speciesId: yard.speciesId('BPE'), sownOn: '2026-04-01' });
    const child = await yard.owner.ok('lot', { params: { ...yard.nursery, lot: lotId } });
    expect(child.lot).toMatchObject({ speciesId: yard.speciesId('BPE'), sownOn: '2026-04-01' });
    expect((await refused({ ...sown, at: { ...yard.nursery, lot: lotId } }, { seeds: 100 })).detail).toMatch(
      /was not sown/,
    );
  });
  it('is refused for a day after its first record, fewer than came up, another’s bag, or over a newer change', async () => {
    const sown = await sow();
    await count(sown, 60);
    const birch = await receive();
    const tries: [Partial<BodyInputOf<'correctSowing'>>, RegExp][] = [
      [{ sownOn: '2026-05-13' }, /record of S-\d+ on 2026-05-12/],
      [{ sownOn: '2031-01-01' }, /still to come/],
      [{ seeds: 59 }, /60 of S-\d+ came up or were lost/],
      [{ speciesId: yard.speciesId('BPE'), seedLotId: birch.id }, /seed of another species/],
      [{ code: 'BED-1' }, /already a lot with that code/],
      [{ version: 7 }, /changed this lot meanwhile/],
    ];
    for (const [more, sentence] of tries) expect((await refused(sown, more)).detail).toMatch(sentence);
    expect((await lotOf(sown)).lot).toMatchObject({ version: 1, held: { sown: 40, standing: 60 } });
  });
  it('keeps the species an order rests on', async () => {
    const sown = await sow();
    await count(sown, 60);
    const line = {
      id: newId(),
      speciesId: yard.speciesId('ALN'),
      provenance: '',
      form: 'bare-root',
      fromCm: 40,
      toCm: 60,
      count: 20,
      sent: 0,
      on: '2027-02-01',
      until: '2027-03-15',
      goesTo: 'wet',
      price: null,
      state: 'asked',
      lots: [sown.body.id],
    } as const;
    await yard.owner.ok('addOrders', {
      params: yard.nursery,
      body: {
        id: newId(),
        orders: [{ id: newId(), buyer: 'Fell Edge', reach: '', note: '', lines: [line] }],
      },
    } as never);
    expect((await refused(sown, { speciesId: yard.speciesId('BPE') })).detail).toMatch(
      /meant for Fell Edge: take them off/,
    );
    await correct(sown, { seeds: 120 });
  });
  it('keeps every sum whatever is corrected, counted and corrected again', async () => {
    const bag = await receive();
    await fc.assert(
      fc.asyncProperty(
        fc.array(
          fc.record({
            seeds: fc.integer({ min: 1, max: 300 }),
            day: fc.integer({ min: 1, max: 28 }),
            ofBag: fc.boolean(),
            counted: fc.option(fc.integer({ min: 0, max: 120 })),
          }),
          { minLength: 1, maxLength: 5 },
        ),
        async (steps) => {
          const before = await inBag(bag.id);
          const sown = await sow();
          let [now, taken] = [100, 0];
          for (const { seeds, day, ofBag, counted } of steps) {
            const body = await corrected(sown, {
              seeds,
              sownOn: `2026-04-${String(day).padStart(2, '0')}`,
              seedLotId: ofBag ? bag.id : null,
            });
            const { status } = await yard.owner.send('correctSowing', { params: sown.at, body });
            if (status === 200) [now, taken] = [seeds, ofBag ? seeds : 0];
            if (counted !== null)
              await yard.owner.send('countEmergence', {
                params: sown.at,
                body: { id: newId(), on: '2026-05-20', counted, cause: 'dried' as never },
              });
            const { held } = (await lotOf(sown)).lot;
            expect(held.seed).toBe(0);
            expect(held.sown + held.standing + held.out).toBe(now);
            expect(before - (await inBag(bag.id))).toBe(taken);
          }
        },
      ),
      { numRuns: 12 },
    );
  });
});

describe('a sowing taken back', () => {
  it('never was: its seed lies in the bag, its code is free, and nobody sees it', async () => {
    const bag = await receive();
    const sown = await sow({ seedLotId: bag.id });
    expect(await yard.owner.ok('takeBackSowing', { params: sown.at, body: takeBack })).toEqual({
      id: sown.body.id,
      code: sown.body.code,
    });
    expect(await inBag(bag.id)).toBe(75_000);
    expect((await yard.owner.send('lot', { params: sown.at })).status).toBe(404);
    const { stamps } = await yard.owner.ok('lotStamps', { params: yard.nursery });
    expect(stamps.map(({ id }) => id)).not.toContain(sown.body.id);
    const { rows } = await server.owner.query(
      'select sum(held)::int as n from balance where lot_id = $1 and account <> $2',
      [sown.body.id, 'supply'],
    );
    expect(rows).toEqual([{ n: 0 }]);
    await sow({ code: sown.body.code });
  });
  it('of a batch is in the batch again, which goes on', async () => {
    const bag = await receive();
    const arm = {
      id: newId(),
      name: 'Cold',
      school: 'indoors' as const,
      store: { kind: 'fixed' as const, warmC: 20, coldC: 3 },
      grams: 10,
      phases: [{ kind: 'cold' as const, days: 60 }],
    };
    await yard.owner.ok('startTreatments', {
      params: yard.nursery,
      body: { id: newId(), seedLotId: bag.id, startedOn: '2026-01-05', arms: [arm] },
    });
    const sown = await sow({ seedLotId: bag.id, treatmentId: arm.id, seeds: 7500 });
    const batch = async () =>
      (await yard.owner.ok('seedRoom', { params: yard.nursery })).treatments.find(({ id }) => id === arm.id)!;
    expect(await batch()).toMatchObject({ state: 'sown', seeds: 0 });
    await yard.owner.ok('takeBackSowing', { params: sown.at, body: { ...takeBack, id: newId() } });
    expect(await batch()).toMatchObject({ state: 'under way', seeds: 7500, endedOn: null });
    expect((await batch()).grams).toBeCloseTo(10);
  });
  it('is refused once something was recorded of it, until that is taken back', async () => {
    const sown = await sow();
    const id = newId();
    await yard.owner.ok('countEmergence', {
      params: sown.at,
      body: { id, on: '2026-05-12', counted: 10, cause: null },
    });
    const body = () => ({ id: newId(), on });
    expect((await yard.owner.refused('takeBackSowing', { params: sown.at, body: body() })).detail).toMatch(
      /worked on since it was sown/,
    );
    await yard.owner.ok('undoEntry', { params: { ...sown.at, entry: id }, body: body() });
    await yard.owner.ok('takeBackSowing', { params: sown.at, body: body() });
    // Once only, and what came after is told so.
    expect((await yard.owner.send('takeBackSowing', { params: sown.at, body: body() })).status).toBe(404);
    expect(
      (
        await yard.owner.send('countEmergence', {
          params: sown.at,
          body: { id: newId(), on: '2026-05-13', counted: 5, cause: null },
        })
      ).status,
    ).toBe(404);
  });
});
