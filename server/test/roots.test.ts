import { dayOf, lotVerdict, usualRootRules, type RootPlant } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let crew: Caller;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  crew = await addPerson(server, yard.nurseryId, 'crew@testing.example', 'crew');
});
afterAll(() => server.close());

const noSizes = { heightCm: null, diameterMm: null, shootDryG: null, rootDryG: null };
const drawn = (path: 'straight' | 'circling', score: 0 | 1 | 2 | 3 | 4 | null = 2): RootPlant => ({
  kind: 'drawn',
  laterals: [0, 70, 140, 210, 290].map((azimuthDeg) => ({
    azimuthDeg,
    path,
    thicknessMm: 1.2,
    band: 'top' as const,
  })),
  tap: 'stopped',
  plug: {
    score,
    fibre: { top: 2, middle: 2, low: 2 },
    surface: 1,
    tips: 'white',
    nodules: 'few',
  },
  ...noSizes,
});
const look = (plant: RootPlant, more: object = {}) => ({
  params: yard.onBench,
  body: { id: newId(), on: '2026-11-01', plant, spoiled: false, ...more },
});

describe('the root bench', () => {
  it('keeps each plant as it was drawn, and a spoiled one leaves the lot', async () => {
    const before = (await crew.ok('lot', { params: yard.onBench })).lot.held;
    const first = await crew.ok('inspectRoots', look(drawn('straight')));
    expect(first.evidence.roots).toMatchObject([{ plant: drawn('straight'), spoiled: false }]);
    expect(first.lot.held.standing).toBe(before.standing);
    const second = await crew.ok('inspectRoots', look(drawn('circling', 3), { spoiled: true }));
    expect(second.lot.held).toMatchObject({ standing: before.standing - 1, out: before.out + 1 });
    const pulled = second.evidence.roots.map((r) => ({ id: r.entry, day: dayOf(r.on), plant: r.plant }));
    expect(lotVerdict(pulled, usualRootRules.cards.structure).value.sequential).toMatchObject({
      pulled: 2,
      failing: 1,
      call: 'pull',
    });
  });

  it('gives a spoiled plant back when its record is taken back', async () => {
    const asked = look(drawn('straight'), { spoiled: true });
    const kept = await crew.ok('inspectRoots', asked);
    const undone = await crew.ok('undoEntry', {
      params: { ...yard.onBench, entry: asked.body.id },
      body: { id: newId(), on: '2026-11-02' },
    });
    expect(undone.lot.held.standing).toBe(kept.lot.held.standing + 1);
    expect(undone.evidence.roots.some((r) => r.entry === asked.body.id)).toBe(false);
  });

  it('answers a retry with the first answer, and two people at once with both plants', async () => {
    const { owner } = yard;
    const asked = look(drawn('straight'));
    const n = async () => (await crew.ok('lot', { params: yard.onBench })).evidence.roots.length;
    const before = await n();
    await crew.ok('inspectRoots', asked);
    await crew.ok('inspectRoots', asked);
    expect(await n()).toBe(before + 1);
    await Promise.all([
      crew.ok('inspectRoots', look(drawn('straight'))),
      owner.ok('inspectRoots', look(drawn('circling'))),
    ]);
    expect(await n()).toBe(before + 3);
  });

  it('refuses a plug of a bed, the last plant spoiled, what does not stand yet, and figures out of bounds', async () => {
    const inBed = { params: yard.inBed };
    expect((await crew.refused('inspectRoots', { ...look(drawn('straight')), ...inBed })).detail).toMatch(
      /no plug/,
    );
    await crew.ok('inspectRoots', { ...look(drawn('straight', null)), ...inBed });
    const stage = {
      kind: 'bed' as const,
      id: newId(),
      placeId: yard.bed.id,
      densityPerM2: 100,
      areaM2: 0.1,
    };
    const one = await yard.sow('ONE', stage, 1);
    const last = { ...look(drawn('straight', null), { spoiled: true }), params: one };
    expect(await crew.refused('inspectRoots', last)).toMatchObject({ type: '/problems/last-plant' });
    const none = await yard.sow('NONE', { ...stage, id: newId() }, 0);
    expect((await crew.refused('inspectRoots', { ...last, params: none })).detail).toMatch(/Nothing of NONE/);
    const early = look(drawn('straight'), { on: '2020-01-01' });
    expect((await crew.refused('inspectRoots', early)).type).toBe('/problems/before-sowing');
    const plant = drawn('straight');
    if (plant.kind === 'drawn') plant.laterals[0].azimuthDeg = 400;
    expect((await crew.refused('inspectRoots', look(plant))).detail).toMatch(/Direction/);
  });
});

describe('scorecards', () => {
  it('start with the three schools, are changed from their version, and refuse nonsense', async () => {
    const { owner } = yard;
    const params = yard.nursery;
    const start = await crew.ok('rootRules', { params });
    expect(start).toMatchObject({ version: 0, rules: { school: 'structure' } });
    const rules = { ...start.rules, school: 'fibre' as const, cap: 12 };
    expect((await crew.refused('setRootRules', { params, body: { version: 0, rules } })).status).toBe(403);
    const kept = await owner.ok('setRootRules', { params, body: { version: 0, rules } });
    expect(kept).toMatchObject({ version: 1, rules: { school: 'fibre', cap: 12 } });
    const stale = await owner.refused('setRootRules', { params, body: { version: 0, rules } });
    expect(stale.type).toBe('/problems/stale-edit');
    const muddled = { ...rules, terms: { ...rules.terms, acceptable: 0.5 } };
    expect(
      (await owner.refused('setRootRules', { params, body: { version: 1, rules: muddled } })).detail,
    ).toMatch(/below that of a bad one/);
    const empty = { ...rules, cards: { ...rules.cards, depth: { ...rules.cards.depth, criteria: [] } } };
    expect(
      (await owner.refused('setRootRules', { params, body: { version: 1, rules: empty } })).detail,
    ).toMatch(/at least one/);
  });
});
