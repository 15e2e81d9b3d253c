import type { BodyInputOf } from '@kauri/core/contract';
import { speciesLibrary } from '@kauri/core';
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

const seedLot = (
  code: string,
  more: Partial<BodyInputOf<'receiveSeed'>> = {},
): BodyInputOf<'receiveSeed'> => ({
  id: newId(),
  code,
  speciesId: yard.speciesId('ALN'),
  collectedOn: '2025-10-10',
  receivedOn: '2025-11-01',
  seedsPerKg: 750_000,
  moisturePct: null,
  store: 'fridge',
  storeTempC: 3,
  price: 180,
  provenance: {
    place: 'Low wood',
    latitudeDeg: 54.6,
    longitudeDeg: -2.4,
    altitudeM: 150,
    zone: '',
    collector: 'Isla',
    parents: 12,
  },
  grams: 100,
  seeds: null,
  note: '',
  ...more,
});
const receive = async (code: string, more: Partial<BodyInputOf<'receiveSeed'>> = {}) => {
  const body = seedLot(code, more);
  await yard.owner.ok('receiveSeed', { params: yard.nursery, body });
  return body.id;
};
const room = () => yard.owner.ok('seedRoom', { params: yard.nursery });
const held = async (id: string) =>
  (await room()).moves
    .filter((m) => m.seedLotId === id)
    .reduce((t, m) => ({ grams: t.grams + m.grams, seeds: t.seeds + m.seeds }), { grams: 0, seeds: 0 });
const at = (id: string) => ({ ...yard.nursery, seedLot: id });
const cold = (name: string, grams = 10) => ({
  id: newId(),
  name,
  school: 'indoors' as const,
  phases: [{ kind: 'cold' as const, days: 28 }],
  store: { kind: 'fixed' as const, warmC: 20, coldC: 3 },
  grams,
});
const bedStage = () => ({
  kind: 'bed' as const,
  id: newId(),
  placeId: yard.bed.id,
  densityPerM2: 200,
  areaM2: 0.2,
});

const benchStage = () => ({
  kind: 'container' as const,
  id: newId(),
  placeId: yard.bench.id,
  containerTypeId: yard.catalogue.containers[0].id,
  trays: 1,
});

describe('the seed store', () => {
  it('receives, tests, gives away and weighs anew, and balances by mass and by count', async () => {
    const id = await receive('S1');
    expect(await held(id)).toEqual({ grams: 100, seeds: 75_000 });
    await crew.ok('testSeed', {
      params: at(id),
      body: {
        id: newId(),
        on: '2025-12-01',
        kind: 'germination',
        n: 100,
        k: 41,
        daysRun: 21,
        counts: [
          { day: 7, germinated: 30 },
          { day: 14, germinated: 11 },
        ],
      },
    });
    expect((await held(id)).seeds).toBe(74_900);
    await crew.ok('moveSeed', {
      params: at(id),
      body: { id: newId(), on: '2026-01-10', grams: 20, seeds: null, why: 'given' },
    });
    expect((await held(id)).grams).toBeCloseTo(79.867, 2);
    await crew.ok('moveSeed', {
      params: at(id),
      body: { id: newId(), on: '2026-01-12', grams: 78, seeds: null, why: 'counted' },
    });
    expect((await held(id)).grams).toBeCloseTo(78);
    expect((await held(id)).seeds).toBeCloseTo(58_500);
  });

  it('a retried receipt writes once', async () => {
    const body = seedLot('S-RETRY');
    await yard.owner.ok('receiveSeed', { params: yard.nursery, body });
    await yard.owner.ok('receiveSeed', { params: yard.nursery, body });
    expect(await held(body.id)).toEqual({ grams: 100, seeds: 75_000 });
  });

  it('refuses bad input with a sentence, and keeps what it had', async () => {
    const id = await receive('S2');
    const before = JSON.stringify(await room());
    const test = (more: object) => ({
      id: newId(),
      on: '2025-12-01',
      kind: 'germination' as const,
      n: 50,
      k: 20,
      daysRun: 21,
      counts: [],
      ...more,
    });
    const refusals: [Promise<{ detail: string }>, RegExp][] = [
      [
        yard.owner.refused('receiveSeed', {
          params: yard.nursery,
          body: seedLot('S9', { grams: 100, seeds: 10 }),
        }),
        /about 75000 seeds/,
      ],
      [
        yard.owner.refused('receiveSeed', { params: yard.nursery, body: seedLot('S2') }),
        /already a seed lot/,
      ],
      [
        yard.owner.refused('receiveSeed', {
          params: yard.nursery,
          body: seedLot('S9', { collectedOn: '2025-12-01' }),
        }),
        /lies before/,
      ],
      [
        yard.owner.refused('receiveSeed', {
          params: yard.nursery,
          body: seedLot('S9', { receivedOn: '2026-12-01' }),
        }),
        /still to come/,
      ],
      [crew.refused('testSeed', { params: at(id), body: test({ k: 51 }) }), /51 of 50/],
      [
        crew.refused('testSeed', { params: at(id), body: test({ on: '2025-10-01' }) }),
        /before the seed was collected/,
      ],
      [
        crew.refused('testSeed', { params: at(id), body: test({ counts: [{ day: 3, germinated: 19 }] }) }),
        /come to 19/,
      ],
      [
        crew.refused('moveSeed', {
          params: at(id),
          body: { id: newId(), on: '2026-01-10', grams: 101, seeds: null, why: 'given' },
        }),
        /S2 holds 100 g/,
      ],
      [
        yard.owner.refused('startTreatments', {
          params: yard.nursery,
          body: { id: newId(), seedLotId: id, startedOn: '2026-01-05', arms: [cold('A', 60), cold('B', 60)] },
        }),
        /holds 40 g/,
      ],
      [
        yard.owner.refused('startTreatments', {
          params: yard.nursery,
          body: {
            id: newId(),
            seedLotId: id,
            startedOn: '2026-01-05',
            arms: [{ ...cold('A'), phases: [{ kind: 'cold', days: 0 }] }],
          },
        }),
        /zero days/,
      ],
    ];
    for (const [problem, sentence] of refusals) expect((await problem).detail).toMatch(sentence);
    expect(JSON.stringify(await room())).toBe(before);
  });

  it('two people taking the same seed at once: only what lies there goes', async () => {
    const id = await receive('S3', { grams: 10 });
    const take = (who: Caller) =>
      who.send('moveSeed', {
        params: at(id),
        body: { id: newId(), on: '2026-02-01', grams: 6, seeds: null, why: 'given' },
      });
    const answers = await Promise.all([take(yard.owner), take(crew), take(crew)]);
    expect(answers.filter((a) => a.ok)).toHaveLength(1);
    expect((await held(id)).grams).toBeCloseTo(4);
  });

  it('imports many or none, naming the line', async () => {
    const lots = [seedLot('IMP-1'), seedLot('IMP-2'), seedLot('IMP-1')];
    const wrong = await yard.owner.refused('importSeedLots', {
      params: yard.nursery,
      body: { id: newId(), lots },
    });
    expect(wrong.detail).toMatch(/already a seed lot/);
    const disagreeing = await yard.owner.refused('importSeedLots', {
      params: yard.nursery,
      body: { id: newId(), lots: [seedLot('IMP-1'), seedLot('IMP-2', { seeds: 3 })] },
    });
    expect(disagreeing.detail).toMatch(/^Line 2, IMP-2/);
    expect((await room()).lots.some((l) => l.code.startsWith('IMP'))).toBe(false);
    const taken = await yard.owner.ok('importSeedLots', {
      params: yard.nursery,
      body: { id: newId(), lots: lots.slice(0, 2) },
    });
    expect(taken.lots.filter((l) => l.code.startsWith('IMP'))).toHaveLength(2);
  });

  it('keeps an edit only from the version it was made on', async () => {
    const id = await receive('S4');
    const { grams: _g, seeds: _s, id: _i, ...values } = seedLot('S4', { store: 'freezer' });
    const edit = (version: number) => ({ params: at(id), body: { ...values, version } });
    expect((await yard.owner.ok('editSeedLot', edit(1))).lots.find((l) => l.id === id)).toMatchObject({
      store: 'freezer',
      version: 2,
    });
    expect(await yard.owner.refused('editSeedLot', edit(1))).toMatchObject({
      type: '/problems/stale-edit',
      current: { version: 2 },
    });
  });

  it('crew may test and take, not receive or treat; visitors only look', async () => {
    const status = async (promise: Promise<Response>) => (await promise).status;
    expect(await status(crew.send('receiveSeed', { params: yard.nursery, body: seedLot('S5') }))).toBe(403);
    expect(await status(visitor.send('seedRoom', { params: yard.nursery }))).toBe(200);
    const id = await receive('S6');
    const body = { id: newId(), on: '2026-02-01', grams: 1, seeds: null, why: 'given' as const };
    expect(await status(visitor.send('moveSeed', { params: at(id), body }))).toBe(403);
    expect(await status(crew.send('moveSeed', { params: at(id), body }))).toBe(200);
  });
});

describe('where the codes on labels lead', () => {
  it('is the nursery’s own address, set by a grower, each change over the last', async () => {
    const before = await visitor.ok('labelWords', { params: yard.nursery });
    expect(before).toEqual({ version: 0, words: { schema: 1, address: '' } });
    const set = (address: string, version = 0) => ({
      params: yard.nursery,
      body: { version, words: { schema: 1 as const, address } },
    });
    for (const address of ['kauri', 'https://kauri.example/yard', 'javascript:alert(1)'])
      expect((await yard.owner.send('setLabelWords', set(address))).status).toBe(422);
    expect((await crew.send('setLabelWords', set('https://kauri.example'))).status).toBe(403);
    const kept = await yard.owner.ok('setLabelWords', set('https://kauri.example'));
    expect(kept).toMatchObject({ version: 1, words: { address: 'https://kauri.example' } });
    expect((await yard.owner.send('setLabelWords', set('https://other.example'))).status).toBe(409);
  });
});

describe('treatments', () => {
  it('split a lot into arms, are checked, sown as sister lots, and balance', async () => {
    const id = await receive('T1');
    const [a, b] = [
      cold('Cold, bag'),
      { ...cold('Leaf tub'), store: { kind: 'outdoors' as const, warmerByC: 1 } },
    ];
    await yard.owner.ok('startTreatments', {
      params: yard.nursery,
      body: { id: newId(), seedLotId: id, startedOn: '2026-01-05', arms: [a, b] },
    });
    expect((await held(id)).grams).toBeCloseTo(80);
    const checked = await crew.ok('checkTreatment', {
      params: { ...yard.nursery, treatment: a.id },
      body: { id: newId(), on: '2026-02-02', n: 50, radicles: 2 },
    });
    expect(checked.records.at(-1)).toMatchObject({ subjectId: a.id, values: { kind: 'check', radicles: 2 } });
    for (const [i, arm] of [a, b].entries()) {
      const lot = await yard.owner.ok('sowLot', {
        params: yard.nursery,
        body: {
          id: newId(),
          code: `T1-${i}`,
          speciesId: yard.speciesId('ALN'),
          sownOn: '2026-03-01',
          seedState: 'ready',
          targetHeightCm: null,
          seeds: 7500,
          seedLotId: id,
          treatmentId: arm.id,
          patch: { fromMm: i * 500, toMm: (i + 1) * 500, firstRow: 1, lastRow: 5 },
          stage: bedStage(),
        },
      });
      expect(lot.lot).toMatchObject({ treatmentId: arm.id, patch: { fromMm: i * 500, lastRow: 5 } });
    }
    expect((await room()).treatments.filter((t) => t.seedLotId === id).map((t) => t.state)).toEqual([
      'sown',
      'sown',
    ]);
    // A sown batch cannot be sown, or looked at, again.
    const again = await yard.owner.refused('sowLot', {
      params: yard.nursery,
      body: {
        id: newId(),
        code: 'T1-X',
        speciesId: yard.speciesId('ALN'),
        sownOn: '2026-03-02',
        seedState: 'ready',
        targetHeightCm: null,
        seeds: 10,
        seedLotId: id,
        treatmentId: a.id,
        stage: bedStage(),
      },
    });
    expect(again.detail).toMatch(/sown already/);
    const late = await crew.refused('checkTreatment', {
      params: { ...yard.nursery, treatment: a.id },
      body: { id: newId(), on: '2026-03-05', n: 50, radicles: 2 },
    });
    expect(late.detail).toMatch(/nothing left to look at/);
  });

  it('a sowing straight from the bag takes its seed, and no more than lies there', async () => {
    const id = await receive('T2', { grams: 1 });
    const sow = (seeds: number, code: string) => ({
      params: yard.nursery,
      body: {
        id: newId(),
        code,
        speciesId: yard.speciesId('ALN'),
        sownOn: '2026-03-01',
        seedState: 'ready' as const,
        targetHeightCm: null,
        seeds,
        seedLotId: id,
        stage: bedStage(),
      },
    });
    await yard.owner.ok('sowLot', sow(500, 'T2-A'));
    expect((await held(id)).seeds).toBe(250);
    expect((await yard.owner.refused('sowLot', sow(500, 'T2-B'))).detail).toMatch(/T2 holds/);
    const lots = await yard.owner.ok('lots', { params: yard.nursery, query: { limit: 500 } });
    expect(lots.lots.some((l) => l.code === 'T2-B')).toBe(false);
    const wrong = sow(10, 'T2-C');
    const other = await yard.owner.refused('sowLot', {
      ...wrong,
      body: { ...wrong.body, speciesId: yard.speciesId('SOR') },
    });
    expect(other.detail).toMatch(/another species/);
  });

  it('end without sowing, from the version looked at; a check is taken back', async () => {
    const id = await receive('T3');
    const arm = cold('Cold');
    await yard.owner.ok('startTreatments', {
      params: yard.nursery,
      body: { id: newId(), seedLotId: id, startedOn: '2026-01-05', arms: [arm] },
    });
    const check = newId();
    const params = { ...yard.nursery, treatment: arm.id };
    await crew.ok('checkTreatment', { params, body: { id: check, on: '2026-02-02', n: 50, radicles: 0 } });
    const undone = await crew.ok('undoSeedRecord', {
      params: { ...yard.nursery, record: check },
      body: { id: newId() },
    });
    expect(undone.records.some((r) => r.id === check)).toBe(false);
    expect(
      (
        await crew.refused('checkTreatment', {
          params,
          body: { id: newId(), on: '2026-02-02', n: 5, radicles: 6 },
        })
      ).detail,
    ).toMatch(/6 radicles in 5/);
    expect(
      (
        await crew.refused('checkTreatment', {
          params,
          body: { id: newId(), on: '2026-01-01', n: 5, radicles: 0 },
        })
      ).detail,
    ).toMatch(/went in on/);
    const end = (version: number) => ({ params, body: { version, endedOn: '2026-03-01', note: 'Mouldy' } });
    await yard.owner.ok('endTreatment', end(1));
    expect((await yard.owner.refused('endTreatment', end(1))).type).toBe('/problems/stale-edit');
  });
});

describe('emergence and pricking out', () => {
  it('counts several stems and damage, never more than were counted', async () => {
    const lot = await yard.sow('EM-1', bedStage(), 0);
    const count = (more: object) => ({
      params: lot,
      body: { id: newId(), on: '2026-05-10', counted: 40, cause: null, ...more },
    });
    const { evidence } = await crew.ok('countEmergence', count({ multi: 5, damaged: 2 }));
    expect(evidence.counts.at(-1)).toMatchObject({ count: 40, multi: 5, damaged: 2 });
    expect((await crew.refused('countEmergence', count({ multi: 41 }))).detail).toMatch(/than were counted/);
  });

  it('counts part by part, and refuses parts that do not come to the count', async () => {
    const lot = await yard.sow('EM-2', bedStage(), 0);
    const patches = [
      { name: 'North end', counted: 30 },
      { name: 'South end', counted: 8 },
    ];
    const count = (counted: number) => ({
      params: lot,
      body: { id: newId(), on: '2026-05-10', counted, cause: null, patches },
    });
    expect((await crew.refused('countEmergence', count(40))).detail).toMatch(/do not come to/);
    const { evidence, lot: row } = await crew.ok('countEmergence', count(38));
    expect(evidence.counts).toMatchObject([{ count: 38, patches }]);
    expect(row.held.standing).toBe(38);
  });

  it('pricks a flat out by size into lots that stand at once, all or none', async () => {
    const { onBench } = yard;
    const cells = (trays: number, code: string, count: number, size: string) => ({
      id: newId(),
      code,
      count,
      size,
      stage: {
        kind: 'container' as const,
        id: newId(),
        placeId: yard.bench.id,
        containerTypeId: yard.catalogue.containers[1].id,
        trays,
      },
    });
    const tooMany = await crew.refused('prickOut', {
      params: onBench,
      body: {
        id: newId(),
        on: '2026-06-01',
        batches: [cells(1, 'P-1', 50, 'big'), cells(1, 'P-2', 50, 'small')],
      },
    });
    expect(tooMany.detail).toMatch(/100 to prick out, but 80/);
    const noRoom = await crew.refused('prickOut', {
      params: onBench,
      body: {
        id: newId(),
        on: '2026-06-01',
        batches: [cells(1, 'P-1', 50, 'big'), cells(999, 'P-2', 20, 'small')],
      },
    });
    expect(noRoom.detail).toMatch(/do not fit/);
    const { parent, lots } = await crew.ok('prickOut', {
      params: onBench,
      body: {
        id: newId(),
        on: '2026-06-01',
        batches: [cells(1, 'P-1', 50, 'big'), cells(1, 'P-2', 20, 'small')],
      },
    });
    expect(parent.lot.held).toMatchObject({ standing: 10 });
    expect(lots.map((l) => [l.lot.code, l.lot.held.standing, l.lot.origin, l.lot.parentLotId])).toEqual([
      ['P-1', 50, 'pricked', onBench.lot],
      ['P-2', 20, 'pricked', onBench.lot],
    ]);
  });
});

describe('cuttings and layers', () => {
  it('a stock bed is cut, its cuttings stuck as a lot', async () => {
    const id = newId();
    const bed = {
      speciesId: yard.speciesId('SVI'),
      name: 'Osier stools',
      plants: 40,
      plantedOn: '2022-03-01',
      yieldPerPlant: 25,
      plantsPerM: 2,
      restShare: 0,
      note: '',
    };
    await yard.owner.ok('addStockBed', { params: yard.nursery, body: { id, ...bed } });
    const params = { ...yard.nursery, stockBed: id };
    const cut = (nodes: number) => ({
      params,
      body: {
        id: newId(),
        on: '2026-02-10',
        kind: 'hard' as const,
        cuttings: 300,
        nodes,
        bundle: 50,
        hormone: 'IBA 0.3 %',
        medium: 'sand',
      },
    });
    expect((await crew.refused('cutStockBed', cut(1))).detail).toMatch(/two nodes/);
    expect((await crew.ok('cutStockBed', cut(3))).records.at(-1)).toMatchObject({
      subjectId: id,
      values: { kind: 'cut', cuttings: 300, bundle: 50, hormone: 'IBA 0.3 %', medium: 'sand' },
    });
    const lot = await yard.owner.ok('sowLot', {
      params: yard.nursery,
      body: {
        id: newId(),
        code: 'CUT-1',
        speciesId: yard.speciesId('SVI'),
        sownOn: '2026-02-11',
        seedState: 'ready',
        origin: 'cuttings',
        stockBedId: id,
        cutting: 'hard',
        targetHeightCm: null,
        seeds: 100,
        stage: bedStage(),
      },
    });
    expect(lot.lot).toMatchObject({ origin: 'cuttings', cutting: 'hard', stockBedId: id });
    const edited = await yard.owner.ok('editStockBed', {
      params,
      body: { version: 1, ...bed, restShare: 0.25 },
    });
    expect(edited.stockBeds.find((b) => b.id === id)).toMatchObject({ restShare: 0.25, version: 2 });
  });

  it('a layer is made, looked at and severed; a ring longer than the branch is refused', async () => {
    const id = newId();
    const layer = {
      id,
      speciesId: yard.speciesId('TCO'),
      tree: 'Lime by the gate',
      branchMm: 18,
      freeMm: 200,
      ringMm: 36,
      pouch: 'sealed' as const,
      hormone: 'IBA 0.8 %',
      madeOn: '2026-05-10',
    };
    const make = (more: object) => ({ params: yard.nursery, body: { ...layer, ...more } });
    expect((await crew.refused('makeLayer', make({ freeMm: 30 }))).detail).toMatch(/longer than the 30 mm/);
    expect((await crew.refused('makeLayer', make({ branchMm: 2 }))).detail).toMatch(/thick/);
    await crew.ok('makeLayer', make({ id }));
    const params = { ...yard.nursery, layer: id };
    await crew.ok('checkLayer', { params, body: { id: newId(), on: '2026-08-01', roots: 'few' } });
    const lot = { id: newId(), code: 'LAYER-1', heightCm: 62, stage: benchStage() };
    const sever = (more: object) => ({
      params,
      body: { version: 1, severedOn: '2026-09-01', outcome: 'rooted' as const, potL: 5, lot, ...more },
    });
    expect((await crew.refused('severLayer', sever({ outcome: 'failed' }))).detail).toMatch(/no plant/);
    // A pot that does not fit leaves the layer on its branch.
    const tooMany = { ...lot, stage: { ...benchStage(), trays: 9_000 } };
    expect((await crew.refused('severLayer', sever({ lot: tooMany }))).detail).toMatch(/do not fit/);
    const severed = await crew.ok('severLayer', sever({}));
    expect(severed.layers.find((l) => l.id === id)).toMatchObject({ outcome: 'rooted', version: 2 });
    const detail = await crew.ok('lot', { params: { ...yard.nursery, lot: lot.id } });
    expect(detail.lot).toMatchObject({ origin: 'layer', layerId: id, held: { standing: 1, sown: 0 } });
    expect(detail.evidence.sizes).toMatchObject([
      { what: 'height', n: 1, mean: 62, on: '2026-09-01' },
      // Its collar is the branch’s.
      { what: 'diameter', n: 1, on: '2026-09-01' },
    ]);
    expect(
      (await crew.refused('checkLayer', { params, body: { id: newId(), on: '2026-09-02', roots: 'many' } }))
        .detail,
    ).toMatch(/severed/);
  });
});

describe('species', () => {
  it('are taken from the library, all or none, and changed from their version', async () => {
    const row = (code: string) => {
      const { common, latin, values } = speciesLibrary.find((s) => s.code === code)!;
      return { id: newId(), code, common, latin, values };
    };
    const add = (codes: string[]) => ({
      params: yard.nursery,
      body: { id: newId(), species: codes.map(row) },
    });
    expect((await yard.owner.refused('addSpecies', add(['OEU', 'BPE']))).detail).toMatch(/code BPE already/);
    const { species } = await yard.owner.ok('addSpecies', add(['OEU', 'FCA']));
    const { id, version: _, ...olive } = species[0];
    const changed = await yard.owner.ok('editSpecies', {
      params: { ...yard.nursery, species: id },
      body: { version: 1, ...olive, values: { ...olive.values, seedsPerKg: 2_300 } },
    });
    expect(changed).toMatchObject({ version: 2, values: { seedsPerKg: 2_300 } });
    const stale = await yard.owner.refused('editSpecies', {
      params: { ...yard.nursery, species: id },
      body: { version: 1, ...olive },
    });
    expect(stale.type).toBe('/problems/stale-edit');
    expect(
      (await yard.owner.ok('catalogue', { params: yard.nursery })).species.some((s) => s.code === 'OEU'),
    ).toBe(true);
  });
});
