import type { LotRow } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, bedPlace, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

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

const entry = (on = '2026-08-01') => ({ id: newId(), on });
const newLot = (code: string, more = {}) => ({
  params: yard.nursery,
  body: {
    id: newId(),
    code,
    speciesId: yard.speciesId('ALN'),
    sownOn: '2026-04-08',
    seedState: 'ready' as const,
    targetHeightCm: 30,
    seeds: 100,
    stage: { kind: 'bed' as const, id: newId(), placeId: yard.bed.id, densityPerM2: 200, areaM2: 0.2 },
    ...more,
  },
});

describe('records of a lot', () => {
  it('are kept with their single values and their summary', async () => {
    const detail = await crew.ok('measureLot', {
      params: yard.onBench,
      body: { ...entry(), heightsCm: [20, 22, 24], diametersMm: [3, 3.4, 3.8] },
    });
    expect(detail.evidence.sizes).toMatchObject([
      { what: 'height', n: 3, mean: 22, sd: 2 },
      { what: 'diameter', n: 3, mean: 3.4 },
    ]);
    const { rows } = await server.owner.query('select "values" from observation where kind = \'size\'');
    expect(rows[0].values).toMatchObject({ heightsCm: [20, 22, 24] });
  });
  it('of pulled plugs take the spoiled ones out', async () => {
    const before = (await crew.ok('lot', { params: yard.onBench })).lot.held.standing;
    const detail = await crew.ok('pullRoots', {
      params: yard.onBench,
      body: { ...entry('2026-09-01'), scores: [1, 2, 2], spoiled: 1, note: 'white tips' },
    });
    expect(detail.lot.held.standing).toBe(before - 1);
    expect(detail.evidence.pulls).toMatchObject([{ scores: [1, 2, 2], spoiled: 1, note: 'white tips' }]);
    expect(
      (await crew.refused('pullRoots', { params: yard.inBed, body: { ...entry(), scores: [2], spoiled: 0 } }))
        .type,
    ).toBe('/problems/no-plugs');
  });
  it('are refused before sowing, and for days still to come', async () => {
    for (const [on, type] of [
      ['2026-04-07', '/problems/before-sowing'],
      ['2026-11-25', '/problems/not-yet'],
      ['2026-02-29', '/problems/invalid'],
      ['1066-10-14', '/problems/invalid'],
    ]) {
      const problem = await crew.refused('countEmergence', {
        params: yard.inBed,
        body: { ...entry(on), counted: 10, cause: null },
      });
      expect(problem).toMatchObject({ status: 422, type });
      expect(problem.fields![0].path).toBe('on');
    }
  });
  it('of a count say what became of those missing', async () => {
    const at = yard.inBed;
    expect(
      (await crew.refused('countEmergence', { params: at, body: { ...entry(), counted: 70, cause: null } }))
        .detail,
    ).toMatch(/what became of them/);
    expect(
      (await crew.refused('countEmergence', { params: at, body: { ...entry(), counted: 101, cause: null } }))
        .detail,
    ).toMatch(/only 100 seeds/);
    const detail = await crew.ok('countEmergence', {
      params: at,
      body: { ...entry(), counted: 70, cause: 'drought' },
    });
    expect(detail.lot.held).toMatchObject({ standing: 70, sown: 20, out: 10 });
  });
  it('of measuring need something standing', async () => {
    const at = await yard.sow(
      'BARE',
      { kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 100, areaM2: 0.1 },
      0,
    );
    expect(
      (
        await crew.refused('measureLot', {
          params: at,
          body: { ...entry(), heightsCm: [4], diametersMm: [] },
        })
      ).type,
    ).toBe('/problems/none-standing');
  });
});

describe('a retried write', () => {
  it('with the same id gives the first answer and writes once', async () => {
    const body = { id: newId(), on: '2026-11-20', lifted: 3, culled: 0 };
    const first = await crew.ok('liftLot', { params: yard.onBench, body });
    const again = await crew.ok('liftLot', { params: yard.onBench, body });
    expect(again).toEqual(first);
    const at = await Promise.all([1, 2, 3, 4].map(() => crew.ok('liftLot', { params: yard.onBench, body })));
    for (const answer of at) expect(answer).toEqual(first);
    const { rows } = await server.owner.query('select count(*)::int as n from movement where entry_id = $1', [
      body.id,
    ]);
    expect(rows[0].n).toBe(1);
  });
  it('sent twice at the same moment still writes once', async () => {
    const sowing = newLot('TWICE');
    const answers = await Promise.all([1, 2, 3].map(() => yard.owner.ok('sowLot', sowing)));
    expect(answers[1]).toEqual(answers[0]);
    expect(answers[2]).toEqual(answers[0]);
    const { rows } = await server.owner.query("select count(*)::int as n from lot where code = 'TWICE'");
    expect(rows[0].n).toBe(1);
  });
  it('with the same id but other words is refused', async () => {
    const sowing = newLot('ONCE');
    await yard.owner.ok('sowLot', sowing);
    const other = { ...sowing, body: { ...sowing.body, seeds: 200 } };
    expect(await yard.owner.refused('sowLot', other)).toMatchObject({
      status: 409,
      type: '/problems/id-used',
    });
  });
  it('that was refused leaves its id free', async () => {
    const id = newId();
    await crew.refused('liftLot', {
      params: yard.onBench,
      body: { id, on: '2026-11-20', lifted: 9999, culled: 0 },
    });
    await crew.ok('liftLot', { params: yard.onBench, body: { id, on: '2026-11-20', lifted: 1, culled: 0 } });
  });
});

describe('sowing', () => {
  it('is refused whole where it cannot stand', async () => {
    const container = yard.catalogue.containers[0].id;
    const cases = [
      [{ kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 200, areaM2: 50 }, /does not fit/],
      [{ kind: 'bed', id: newId(), placeId: yard.bench.id, densityPerM2: 200, areaM2: 1 }, /bench/],
      [
        { kind: 'container', id: newId(), placeId: yard.bed.id, containerTypeId: container, trays: 1 },
        /bench/,
      ],
      [
        { kind: 'container', id: newId(), placeId: yard.bench.id, containerTypeId: container, trays: 900 },
        /do not fit/,
      ],
      [
        { kind: 'container', id: newId(), placeId: yard.bench.id, containerTypeId: newId(), trays: 1 },
        /container/,
      ],
      [{ kind: 'bed', id: newId(), placeId: newId(), densityPerM2: 200, areaM2: 1 }, /place/],
    ] as const;
    for (const [stage, sentence] of cases) {
      expect((await yard.owner.refused('sowLot', newLot('NOT-THERE', { stage }))).detail).toMatch(sentence);
    }
    const { rows } = await server.owner.query("select count(*)::int as n from lot where code = 'NOT-THERE'");
    expect(rows[0].n).toBe(0);
  });
  it('takes a code once, whatever is written in it', async () => {
    const code = `<i>'; --`;
    const detail = await yard.owner.ok('sowLot', newLot(code));
    expect(detail.lot.code).toBe(code);
    expect(await yard.owner.refused('sowLot', newLot(code))).toMatchObject({
      status: 409,
      detail: 'There is already a lot with that code.',
    });
  });
  it.each([
    [{ seeds: 0 }, 'seeds'],
    [{ seeds: -5 }, 'seeds'],
    [{ seeds: 1.5 }, 'seeds'],
    [{ seeds: 1e12 }, 'seeds'],
    [{ seeds: null }, 'seeds'],
    [{ seeds: '12' }, 'seeds'],
    [{ sownOn: '2027-01-01' }, 'sownOn'],
    [{ sownOn: '2026-02-29' }, 'sownOn'],
    [{ code: ' ' }, 'code'],
    [{ targetHeightCm: -1 }, 'targetHeightCm'],
  ])('with %j names the field', async (more, path) => {
    const problem = await yard.owner.refused('sowLot', newLot('BAD', more));
    expect(problem.status).toBe(422);
    expect(problem.fields!.map((f) => f.path)).toContain(path);
  });
});

describe('who may do what', () => {
  it('visitors read and write nothing', async () => {
    await visitor.ok('lots', { params: yard.nursery });
    expect(
      await visitor.refused('liftLot', { params: yard.onBench, body: { ...entry(), lifted: 1, culled: 0 } }),
    ).toMatchObject({ status: 403, type: '/problems/role' });
    expect((await visitor.refused('sowLot', newLot('V'))).status).toBe(403);
  });
  it('crew record and redesign nothing', async () => {
    await crew.ok('countEmergence', {
      params: yard.onBench,
      body: { ...entry('2026-11-24'), counted: 1, cause: 'browsed' },
    });
    expect((await crew.refused('sowLot', newLot('C'))).status).toBe(403);
    expect(
      (await crew.refused('addPlace', { params: yard.nursery, body: { id: newId(), place: bedPlace('C') } }))
        .status,
    ).toBe(403);
  });
  it('nobody who is not signed in, nor a stranger', async () => {
    expect((await server.visitor().refused('lots', { params: yard.nursery })).status).toBe(401);
    expect((await crew.refused('lots', { params: { nursery: newId() } })).status).toBe(404);
  });
});

describe('editing', () => {
  it('a lot that someone else changed meanwhile is refused, with theirs', async () => {
    const { lot } = await yard.owner.ok('lot', { params: yard.inBed });
    const edit = (targetHeightCm: number, version: number) =>
      ({ params: yard.inBed, body: { version, targetHeightCm, leafFallOn: null, note: '' } }) as const;
    await yard.owner.ok('editLot', edit(40, lot.version));
    const problem = await yard.owner.refused('editLot', edit(50, lot.version));
    expect(problem).toMatchObject({
      status: 409,
      type: '/problems/stale-edit',
      current: { targetHeightCm: 40, version: lot.version + 1 },
    });
    const saved = await yard.owner.ok('editLot', edit(50, lot.version + 1));
    expect(saved.lot.targetHeightCm).toBe(50);
    expect(saved.journal[0]).toMatchObject({ act: 'change lot', before: { targetHeightCm: 40 } });
  });
  it('a place likewise, and it stays the kind it is', async () => {
    const edit = (version: number, place: ReturnType<typeof bedPlace>) => ({
      params: { ...yard.nursery, place: yard.bed.id },
      body: { version, place },
    });
    await yard.owner.ok('editPlace', edit(1, bedPlace('Bed, renamed')));
    expect(await yard.owner.refused('editPlace', edit(1, bedPlace('Other')))).toMatchObject({
      status: 409,
      current: { version: 2 },
    });
    const wrongKind = {
      params: { ...yard.nursery, place: yard.bench.id },
      body: { version: 1, place: bedPlace('x') },
    };
    expect((await yard.owner.refused('editPlace', wrongKind)).status).toBe(422);
  });
  it('a bed that cannot be built is refused with a sentence', async () => {
    const place = bedPlace('Impossible');
    for (const [design, sentence] of [
      [{ ...place.design, fillBelowRimMm: 500 }, /no medium/],
      [{ ...place.design, lengthMm: 400_000 }, /30\s000 mm/],
      [{ ...place.design, tiers: [] }, /tier/],
      [{ ...place.design, tiers: ['2x7'] }, /board/],
      [{ ...place.design, widthMm: NaN }, /Bed width/],
    ] as const) {
      const body = { id: newId(), place: { ...place, design: design as typeof place.design } };
      expect((await yard.owner.refused('addPlace', { params: yard.nursery, body })).detail).toMatch(sentence);
    }
  });
});

describe('lists', () => {
  it('page by code without leaving out or repeating', async () => {
    for (let i = 0; i < 7; i++)
      await yard.owner.ok(
        'sowLot',
        newLot(`P-${i}`, {
          stage: { kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 100, areaM2: 0.05 },
        }),
      );
    const all = await visitor.ok('lots', { params: yard.nursery, query: { limit: 500 } });
    const codes: string[] = [];
    let after: string | undefined;
    do {
      const page = await visitor.ok('lots', { params: yard.nursery, query: { limit: 3, after } });
      codes.push(...page.lots.map((lot) => lot.code));
      after = page.next ?? undefined;
    } while (after !== undefined);
    expect(codes).toEqual(all.lots.map((lot) => lot.code));
    expect(new Set(codes).size).toBe(codes.length);
    const records = await visitor.ok('evidence', { params: yard.nursery, query: { limit: 500 } });
    expect(records.evidence).toHaveLength(codes.length);
  });
  it('refuse a page that makes no sense', async () => {
    for (const limit of [0, -1, 5000, 'many']) {
      expect(
        (await visitor.refused('lots', { params: yard.nursery, query: { limit } as never })).status,
      ).toBe(422);
    }
  });
});

describe('a lot moved on', () => {
  const cells = (trays = 1, type = 1) => ({
    kind: 'container' as const,
    id: newId(),
    placeId: yard.bench.id,
    containerTypeId: yard.catalogue.containers[type].id,
    trays,
  });
  const shift = (at: object, more: object = {}) => ({
    params: at as typeof yard.onBench,
    body: { id: newId(), on: '2026-09-01', note: '', stage: cells(), lost: 0, cause: null, ...more },
  });
  it('stands in its new home, its old stage ended, what was lost out of its ledger; and back again', async () => {
    const at = await yard.sow('MOVE-1', cells(1, 0), 50);
    const first = (await crew.ok('lot', { params: at })).lot.stage;
    const asked = shift(at, { lost: 3, cause: 'culled', stage: cells(2) });
    const moved = await crew.ok('shiftLot', asked);
    expect(moved.lot).toMatchObject({
      stage: { id: asked.body.stage.id, startedOn: '2026-09-01', endedOn: null },
      held: { standing: 47, out: 3 },
    });
    expect(moved.evidence.stages).toMatchObject([
      { id: first.id, endedOn: '2026-09-01' },
      { id: asked.body.stage.id },
    ]);
    // A retry is the same move.
    expect((await crew.ok('shiftLot', asked)).evidence.stages).toHaveLength(2);
    const again = shift(at, { on: '2026-10-01' });
    await crew.ok('shiftLot', again);
    const undo = (entry: string) => ({
      params: { ...at, entry },
      body: { id: newId(), on: '2026-11-01' },
    });
    expect((await crew.refused('undoEntry', undo(asked.body.id))).type).toBe('/problems/moved-since');
    await crew.ok('undoEntry', undo(again.body.id));
    const back = await crew.ok('undoEntry', undo(asked.body.id));
    expect(back.lot).toMatchObject({
      stage: { id: first.id, endedOn: null },
      held: { standing: 50, out: 0 },
    });
    expect(back.evidence.stages).toHaveLength(1);
  });
  it('is told of before anything seen in its old home is kept', async () => {
    const at = await yard.sow('MOVE-SEEN', cells(1, 0), 50);
    const seen = (await crew.ok('lot', { params: at })).lot.stage.id;
    const asked = shift(at);
    await crew.ok('shiftLot', asked);
    const sample = { on: '2026-09-02', note: '', heightsCm: [20, 21], diametersMm: [], seen };
    const refused = await crew.refused('measureLot', { params: at, body: { id: newId(), ...sample } });
    expect(refused).toMatchObject({ status: 409, type: '/problems/moved-meanwhile' });
    expect(refused.detail).toMatch(/MOVE-SEEN was moved meanwhile: it stands in .+ since 2026-09-01/);
    expect((refused.current as LotRow).stage.id).toBe(asked.body.stage.id);
    const care = (stage: string) => ({
      params: yard.nursery,
      body: {
        id: newId(),
        on: '2026-09-02',
        note: '',
        done: { what: 'water' as const, mm: 5 },
        lots: [{ id: newId(), lotId: at.lot, seen: stage }],
      },
    });
    expect((await crew.refused('recordCare', care(seen))).type).toBe('/problems/moved-meanwhile');
    expect((await crew.ok('lot', { params: at })).evidence).toMatchObject({ sizes: [], care: [] });
    // Told, and meant for the lot as it stands; or by someone who does not say what they saw.
    await crew.ok('recordCare', care(asked.body.stage.id));
    await crew.ok('measureLot', {
      params: at,
      body: { id: newId(), ...sample, seen: asked.body.stage.id },
    });
    await crew.ok('measureLot', { params: at, body: { id: newId(), ...sample, seen: undefined } });
  });
  it('carries flats elsewhere with all that stands in them', async () => {
    const flat = yard.catalogue.containers.findIndex((c) => c.values.name === 'Open flat');
    const at = await yard.sow('MOVE-F', cells(1, flat), 80);
    const moved = await crew.ok('shiftLot', shift(at, { stage: cells(1, flat) }));
    expect(moved.evidence.stages).toHaveLength(2);
    const pot = { ...cells(1, 0), trays: 1 };
    expect((await crew.ok('shiftLot', shift(at, { on: '2026-10-01', stage: pot }))).lot.held.standing).toBe(
      80,
    );
  });
  it('keeps what its roots looked like on the way; what was rejected leaves by its own movement', async () => {
    const at = await yard.sow('MOVE-ROOTS', cells(1, 0), 50);
    const roots = { looked: 50, circling: 12, teased: 9, shaved: 3, rejected: 4 };
    const asked = shift(at, { lost: 1, cause: 'broken', stage: cells(2), roots });
    const moved = await crew.ok('shiftLot', asked);
    expect(moved.lot.held).toMatchObject({ standing: 45, out: 5 });
    expect(moved.evidence.shifts).toMatchObject([{ entry: asked.body.id, roots }]);
    expect(moved.evidence.movements.filter((m) => m.entry === asked.body.id)).toMatchObject([
      { to: 'out:broken', count: 1 },
      { to: 'out:culled', count: 4 },
    ]);
    // In the year they are among what was culled for its roots, until the move is taken back.
    const culledForRoots = async () => {
      const query = { from: '2026-09-01', until: '2026-09-01' };
      const { culls } = await crew.ok('year', { params: yard.nursery, query });
      return culls.find(({ why }) => why === 'roots')?.count ?? 0;
    };
    expect(await culledForRoots()).toBe(4);
    const undone = await crew.ok('undoEntry', {
      params: { ...at, entry: asked.body.id },
      body: { id: newId(), on: '2026-11-01' },
    });
    expect(undone.lot.held).toMatchObject({ standing: 50, out: 0 });
    expect(undone.evidence.shifts).toEqual([]);
    expect(await culledForRoots()).toBe(0);
    const said = async (more: object) => {
      const { detail, fields } = await crew.refused('shiftLot', shift(at, { roots: { ...roots, ...more } }));
      return `${detail} ${fields?.map((field) => `${field.path}: ${field.message}`).join()}`;
    };
    expect(await said({ looked: 51 })).toMatch(/51 looked at, but 50 .+ roots\.looked: 50 stand/);
    expect(await said({ circling: 51 })).toMatch(/roots\.circling: No more than were looked at/);
    const both = await crew.refused('shiftLot', shift(at, { lost: 47, cause: 'died', roots }));
    expect(both.detail).toMatch(/51 lost or rejected, but 50/);
  });
  it('is refused where it does not fit, before it stood there, or without saying what was lost', async () => {
    const at = await yard.sow('MOVE-2', cells(1, 0), 80);
    const said = async (more: object) => (await crew.refused('shiftLot', shift(at, more))).detail;
    expect(await crew.refused('shiftLot', shift(at, { stage: cells(9_000) }))).toMatchObject({
      detail: expect.stringMatching(/do not fit/),
      fields: [{ path: 'stage.trays', message: expect.stringMatching(/Room for \d+/) }],
    });
    expect(await said({ lost: 2 })).toMatch(/what became of those/);
    expect(await said({ lost: 81, cause: 'died' })).toMatch(/81 lost, but 80/);
    expect(await said({ on: '2026-04-08' })).toMatch(/a move comes after/);
    expect(await said({ on: '2026-12-25' })).toMatch(/still to come/);
    const pots = yard.catalogue.containers.findIndex((c) => c.values.cellsPerTray < 10);
    expect(await said({ stage: cells(1, pots) })).toMatch(/trees; 80 are to be moved/);
    const none = await yard.sow('MOVE-3', cells(1, 0), 0);
    expect((await crew.refused('shiftLot', shift(none))).detail).toMatch(/nothing to move/);
    expect((await crew.ok('lot', { params: at })).evidence.stages).toHaveLength(1);
  });
});

describe('lots by name, and the records of some', () => {
  const stampOf = async (id: string) => {
    const { stamps } = await crew.ok('lotStamps', { params: yard.nursery });
    return stamps.find((lot) => lot.id === id)!;
  };
  it('change their stamp with anything of them, and no other', async () => {
    const at = await yard.sow(
      'STAMP-1',
      { kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 100, areaM2: 0.1 },
      10,
    );
    const other = (await stampOf(yard.onBench.lot)).stamp;
    const before = await stampOf(at.lot);
    expect(before).toMatchObject({ code: 'STAMP-1', closedOn: null });
    const body = { id: newId(), on: '2026-09-02', note: '', heightsCm: [20, 21], diametersMm: [] };
    await crew.ok('measureLot', { params: at, body });
    const measured = await stampOf(at.lot);
    expect(measured.stamp).not.toBe(before.stamp);
    await crew.ok('undoEntry', {
      params: { ...at, entry: body.id },
      body: { id: newId(), on: '2026-09-03' },
    });
    const undone = await stampOf(at.lot);
    expect([before.stamp, measured.stamp]).not.toContain(undone.stamp);
    const lost = {
      id: newId(),
      on: '2026-09-04',
      note: '',
      from: 'standing' as const,
      cause: 'died' as const,
    };
    const { standing } = (await crew.ok('lot', { params: at })).lot.held;
    await crew.ok('writeOff', { params: at, body: { ...lost, count: standing } });
    const { sown } = (await crew.ok('lot', { params: at })).lot.held;
    if (sown > 0)
      await crew.ok('writeOff', { params: at, body: { ...lost, id: newId(), from: 'sown', count: sown } });
    expect((await stampOf(at.lot)).closedOn).toBe('2026-09-04');
    expect((await stampOf(yard.onBench.lot)).stamp).toBe(other);
  });
  it('are answered for as many as are asked, up to a stated number, of this nursery alone', async () => {
    const ids = [yard.onBench.lot, yard.inBed.lot];
    const { lots, evidence } = await crew.ok('lotRecords', {
      params: yard.nursery,
      query: { ids: ids.join() },
    });
    expect(lots.map(({ id }) => id).sort()).toEqual([...ids].sort());
    const alone = (await crew.ok('lot', { params: yard.onBench })).evidence;
    expect(evidence.find((e) => e.lotId === yard.onBench.lot)).toEqual(alone);
    const none = await crew.ok('lotRecords', { params: yard.nursery, query: { ids: newId() } });
    expect(none).toEqual({ lots: [], evidence: [] });
    const many = Array.from({ length: 51 }, () => newId()).join();
    for (const wrong of ['', 'nonsense', many])
      expect((await crew.refused('lotRecords', { params: yard.nursery, query: { ids: wrong } })).status).toBe(
        422,
      );
  });
  it('say what changed last, as the day does', async () => {
    const { changed } = await crew.ok('lotStamps', { params: yard.nursery });
    expect((await crew.ok('day', { params: yard.nursery })).changed).toBe(changed);
  });
});
