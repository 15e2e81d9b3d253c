import type { PlannedSowing, RaisingRoute } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, benchPlace, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let visitor: Caller;
let placeId: string;
let containerTypeId: string;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  visitor = await addPerson(server, yard.nurseryId, 'visitor@testing.example', 'visitor');
  const { places, containers } = await yard.owner.ok('catalogue', { params: yard.nursery });
  placeId = places.find(({ place }) => place.kind === 'bench')!.id;
  containerTypeId = containers[0].id;
});
afterAll(() => server.close());

const stage = (more: Partial<RaisingRoute['stages'][number]> = {}) => ({
  placeId,
  containerTypeId,
  densityPerM2: null,
  ends: null,
  goesOn: 0.9,
  hoursPer100: 0.5,
  ...more,
});
const route = (more: Partial<RaisingRoute> = {}): RaisingRoute => ({
  id: newId(),
  speciesId: yard.speciesId('ALN'),
  name: 'Cells',
  start: 'treated seed',
  cutting: null,
  stages: [stage()],
  ...more,
});
const routes = (version: number, ...list: RaisingRoute[]) => ({
  params: yard.nursery,
  body: { version, routes: { schema: 1 as const, routes: list } },
});

describe('routes', () => {
  it('are none until the nursery writes some, are kept by version, and are for all to read', async () => {
    const before = await visitor.ok('routes', { params: yard.nursery });
    expect(before).toMatchObject({ version: 0, routes: { schema: 1, routes: [] } });
    const kept = await yard.owner.ok('setRoutes', routes(0, route()));
    expect(kept.version).toBe(1);
    expect((await yard.owner.send('setRoutes', routes(0, route()))).status).toBe(409);
    expect((await visitor.send('setRoutes', routes(1, route()))).status).toBe(403);
    expect((await visitor.ok('routes', { params: yard.nursery })).routes.routes).toHaveLength(1);
  });
  it.each([
    ['never ends', () => route({ stages: [stage(), stage()] }), /never ends/],
    [
      'goes on after its last stage',
      () => route({ stages: [stage({ ends: 'plug holds' })] }),
      /nothing else ends it/,
    ],
    [
      'is in nothing',
      () => route({ stages: [stage({ containerTypeId: null })] }),
      /in a container, or in a bed/,
    ],
    ['begins with cuttings of no kind', () => route({ start: 'cuttings' }), /which cuttings/],
    ['has no name', () => route({ name: ' ' }), /has a name/],
    [
      'names a place of nowhere',
      () => route({ stages: [stage({ placeId: newId() })] }),
      /“Cells” names a place that/,
    ],
    [
      'names a container of nowhere',
      () => route({ stages: [stage({ containerTypeId: newId() })] }),
      /a container that/,
    ],
    ['names a species of nowhere', () => route({ speciesId: newId() }), /a species that/],
  ])('that %s is refused in a sentence, and nothing is kept', async (_, bad, sentence) => {
    const { version, routes: before } = await yard.owner.ok('routes', { params: yard.nursery });
    const refused = await yard.owner.send('setRoutes', routes(version, bad()));
    expect(refused.status).toBe(422);
    expect(await refused.text()).toMatch(sentence);
    expect(await yard.owner.ok('routes', { params: yard.nursery })).toMatchObject({
      version,
      routes: before,
    });
  });
});

describe('what own lots and hours say of stages', () => {
  const learnt = async () => (await visitor.ok('routes', { params: yard.nursery })).learnt;
  it('is nothing while lots stand, a share once one is empty, and a pace once hours were written', async () => {
    const before = await learnt();
    expect(before.shares).toEqual([]);
    expect(before.paces.sow).toEqual({ factor: 1, times: 0 });
    await yard.owner.ok('liftLot', {
      params: yard.inBed,
      body: { id: newId(), on: '2026-11-20', lifted: 60, culled: 20 },
    });
    await yard.owner.ok('markAct', {
      params: yard.nursery,
      body: {
        id: newId(),
        rule: 'sow-batch',
        subjectId: yard.inBed.lot,
        mark: 'done',
        on: '2026-11-20',
        until: '2026-11-21',
        minutes: 240,
        trees: 100,
      },
    });
    const { shares, paces } = await learnt();
    const [share] = shares;
    expect(shares).toHaveLength(1);
    expect(share).toMatchObject({ speciesId: yard.speciesId('ALN'), kind: 'bed', lots: 1 });
    expect(share.kept / (share.kept + share.gone)).toBeCloseTo(60 / 80, 9);
    expect(paces.sow.times).toBe(1);
    expect(paces.sow.factor).toBeGreaterThan(1);
    expect(paces.move).toEqual({ factor: 1, times: 0 });
  });
});

describe('sowings planned', () => {
  const sowing = (more: Partial<PlannedSowing> = {}): PlannedSowing => ({
    id: newId(),
    speciesId: yard.speciesId('ALN'),
    lineId: null,
    route: 'Cells',
    start: 'treated seed',
    cutting: null,
    wanted: { on: '2027-10-01', until: '2027-11-01', fromCm: 20, toCm: null, trees: 100, chance: 0.9 },
    stages: [{ ...stage(), from: '2027-03-01', plants: 120, trays: 2, areaM2: null }],
    until: '2027-11-01',
    chance: 0.7,
    workedOn: '2026-11-24',
    pinned: false,
    ...more,
  });
  const plan = (version: number, ...sowings: PlannedSowing[]) => ({
    params: yard.nursery,
    body: { version, plan: { schema: 1 as const, sowings } },
  });
  it('are kept by version: of two people planning at once the second is told, with what stands', async () => {
    const [mine, theirs] = [sowing(), sowing()];
    await yard.owner.ok('setPlan', plan(0, mine));
    const stale = await yard.owner.send('setPlan', plan(0, theirs));
    expect(stale.status).toBe(409);
    expect(await stale.json()).toMatchObject({
      current: { version: 1, value: { sowings: [{ id: mine.id }] } },
    });
    expect((await yard.owner.ok('setPlan', plan(1, mine, theirs))).plan.sowings).toHaveLength(2);
    expect((await visitor.send('setPlan', plan(2))).status).toBe(403);
  });
  it('are weeks in the calendar, each step once, and go when they are taken out', async () => {
    const { version } = await yard.owner.ok('plan', { params: yard.nursery });
    const two = sowing({
      stages: [
        { ...stage({ ends: 'plug holds' }), from: '2027-03-01', plants: 120, trays: 2, areaM2: null },
        { ...stage(), from: '2027-06-07', plants: 110, trays: 2, areaM2: null },
      ],
    });
    // Today asks for what is near: it is among its acts, and not told twice.
    const near = sowing({ stages: [{ ...sowing().stages[0], from: '2026-11-30' }] });
    await yard.owner.ok('setPlan', plan(version, two, near));
    const { path } = await yard.owner.ok('makeCalendar', { params: yard.nursery, body: {} });
    const text = async () => (await (await fetch(`${server.url}${path}`)).text()).replaceAll('\r\n ', '');
    const events = (await text()).split('BEGIN:VEVENT').slice(1);
    const planned = events.filter((event) => /SUMMARY:.*planned/.test(event));
    expect(planned.map((event) => /SUMMARY:(.*)/.exec(event)![1].trim())).toEqual([
      'Begin treating common alder for its planned sowing',
      'Sow common alder as planned: Cells',
      'Sow common alder\\, planned',
      'Move on common alder\\, planned',
    ]);
    expect(planned[2]).toMatch(/DTSTART;VALUE=DATE:20270301\r\nDTEND;VALUE=DATE:20270308/);
    const uids = events.map((event) => /UID:(.+)\r\n/.exec(event)![1]);
    expect(new Set(uids).size).toBe(uids.length);
    await yard.owner.ok('setPlan', plan(version + 1));
    expect(await text()).not.toMatch(/planned/);
  });
  it('whose place was taken down stand, are no hindrance to others, and can be taken out', async () => {
    const { version } = await yard.owner.ok('plan', { params: yard.nursery });
    const spare = await yard.owner.ok('addPlace', {
      params: yard.nursery,
      body: { id: newId(), place: benchPlace('Spare') },
    });
    const there = sowing({ stages: [{ ...sowing().stages[0], placeId: spare.id }] });
    await yard.owner.ok('setPlan', plan(version, there));
    await yard.owner.ok('arrangeYard', {
      params: yard.nursery,
      body: {
        id: newId(),
        site: null,
        added: [],
        moved: [],
        removed: [{ id: spare.id, version: spare.version }],
      },
    });
    const mine = sowing();
    const both = await yard.owner.ok('setPlan', plan(version + 1, there, mine));
    expect(both.plan.sowings).toHaveLength(2);
    const moved = { ...there, pinned: true };
    expect((await yard.owner.send('setPlan', plan(version + 2, moved, mine))).status).toBe(422);
    const left = await yard.owner.ok('setPlan', plan(version + 2, mine));
    expect(left.plan.sowings).toEqual([mine]);
  });
  it.each([
    ['whose stages are out of order', () => sowing({ until: '2027-02-01' }), /leave after they came/],
    [
      'in a place of nowhere',
      () => sowing({ stages: [{ ...sowing().stages[0], placeId: newId() }] }),
      /a place that this nursery does not have/,
    ],
  ])('%s are refused, and the last good plan stands', async (_, bad, sentence) => {
    const before = await yard.owner.ok('plan', { params: yard.nursery });
    const refused = await yard.owner.send('setPlan', plan(before.version, bad()));
    expect(refused.status).toBe(422);
    expect(await refused.text()).toMatch(sentence);
    expect(await yard.owner.ok('plan', { params: yard.nursery })).toEqual(before);
  });
});
