import type { BodyInputOf } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let grower: Caller;
let crew: Caller;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  grower = await addPerson(server, yard.nurseryId, 'grower@testing.example', 'grower');
  crew = await addPerson(server, yard.nurseryId, 'crew@testing.example', 'crew');
});
afterAll(() => server.close());

type Scheme = BodyInputOf<'setGrading'>['grading']['schemes'][number];
const grade = (fromCm: number | null, toCm: number | null, collarMm: number | null = null) => ({
  name: '',
  fromCm,
  toCm,
  collarMm,
});
const scheme = (more: Partial<Scheme> = {}): Scheme => ({
  id: newId(),
  name: 'By height',
  speciesIds: [],
  grades: [grade(20, 40), grade(40, 60, 6), grade(60, null)],
  ...more,
});
const body = (version: number, ...schemes: Scheme[]) => ({
  params: yard.nursery,
  body: { version, grading: { schema: 1 as const, schemes } },
});

describe('grading schemes', () => {
  it('are kept, read by everybody, written by growers, and a later writer is told of the earlier', async () => {
    expect(await crew.ok('grading', { params: yard.nursery })).toEqual({
      version: 0,
      grading: { schema: 1, schemes: [] },
    });
    const first = scheme();
    const kept = await grower.ok('setGrading', body(0, first));
    expect(kept).toEqual({ version: 1, grading: { schema: 1, schemes: [first] } });
    expect(await crew.ok('grading', { params: yard.nursery })).toEqual(kept);
    expect((await crew.send('setGrading', body(1, first))).status).toBe(403);
    const late = await grower.refused('setGrading', body(0, scheme({ name: 'Other' })));
    expect(late.type).toContain('stale-edit');
    expect((await crew.ok('grading', { params: yard.nursery })).grading.schemes[0].name).toBe('By height');
  });
  it.each([
    ['a grade that overlaps another', { grades: [grade(20, 45), grade(40, 60)] }, /overlap/],
    ['one that ends where it begins', { grades: [grade(40, 40)] }, /ends above/],
    ['one without heights', { grades: [grade(null, null, 5)] }, /heights of the grade/],
    ['none at all', { grades: [] }, /a grade at least/],
    ['no name', { name: '' }, /has a name/],
  ] as const)('are refused with %s', async (_, more, sentence) => {
    const { version } = await crew.ok('grading', { params: yard.nursery });
    const refused = await grower.refused('setGrading', body(version, scheme(more as Partial<Scheme>)));
    expect(JSON.stringify(refused)).toMatch(sentence);
  });
  it('have each a name of its own', async () => {
    const { version } = await crew.ok('grading', { params: yard.nursery });
    const refused = await grower.refused(
      'setGrading',
      body(version, scheme(), scheme({ name: ' by height' })),
    );
    expect(JSON.stringify(refused)).toMatch(/one name/);
  });
});

describe('culls of a lift', () => {
  const at = () =>
    yard.sow(
      'CULLS',
      { kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 200, areaM2: 0.05 },
      80,
    );
  it('say why, are read with the lot, and go when the lift is taken back', async () => {
    const lot = await at();
    const lift = {
      id: newId(),
      on: '2026-11-20',
      lifted: 40,
      culled: 7,
      culls: [
        { why: 'roots' as const, count: 4 },
        { why: 'small' as const, count: 2 },
      ],
    };
    await crew.ok('liftLot', { params: lot, body: lift });
    const { evidence, lot: row } = await crew.ok('lot', { params: lot });
    expect(evidence.culls).toEqual([{ entry: lift.id, on: '2026-11-20', reasons: lift.culls }]);
    expect(row.held.standing).toBe(33);
    await crew.ok('undoEntry', {
      params: { ...lot, entry: lift.id },
      body: { id: newId(), on: '2026-11-20' },
    });
    const after = await crew.ok('lot', { params: lot });
    expect(after.evidence.culls).toEqual([]);
    expect(after.lot.held.standing).toBe(80);
    for (const culls of [
      [{ why: 'roots' as const, count: 8 }],
      [
        { why: 'roots' as const, count: 1 },
        { why: 'roots' as const, count: 1 },
      ],
    ]) {
      const refused = await crew.refused('liftLot', { params: lot, body: { ...lift, id: newId(), culls } });
      expect(JSON.stringify(refused)).toMatch(/for a reason|named twice/);
    }
    expect((await crew.ok('lot', { params: lot })).lot.held.standing).toBe(80);
  });
});
