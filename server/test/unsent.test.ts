import { bookAhead, isoOf, dayOf, lotAhead, Unfit, type HeldWrite, type LotKnown } from '@kauri/core';
import type { BodyInputOf, LotDetail, RouteName } from '@kauri/core/contract';
import fc from 'fast-check';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { benchPlace, openTestServer, setUpLots, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let otherBench: string;
let lots = 0;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  otherBench = (
    await yard.owner.ok('addPlace', { params: yard.nursery, body: { id: newId(), place: benchPlace('Far') } })
  ).id;
});
afterAll(() => server.close());

const entry = (day: number) => ({ id: newId(), on: isoOf(dayOf('2026-06-01') + day), note: `day ${day}` });
const few = fc.integer({ min: 0, max: 90 });
const causes = fc.constantFrom('died', 'rot', null);
const onLot = (lot: string) => ({ ...yard.nursery, lot });
type Made = (lot: LotKnown, day: number, done: readonly string[]) => HeldWrite;

const looked: BodyInputOf<'inspectRoots'>['plant'] = {
  kind: 'quick',
  look: { score: null, round: 'all round', runs: 'straight', surface: 'clean', tips: 'white' },
  heightCm: 30,
  diameterMm: null,
  shootDryG: null,
  rootDryG: null,
};

/** What roots looked like on the way, of a few or of more than stand. */
const rootsMoving = fc
  .tuple(fc.integer({ min: 1, max: 90 }), fc.nat(9), fc.nat(9))
  .map(([looked, circling, rejected]) => ({
    looked,
    circling: Math.min(looked, circling),
    teased: 0,
    shaved: 1,
    rejected: Math.min(looked, rejected),
  }));

/** A write of each kind, of a lot on its day, some of them impossible. */
const writes: fc.Arbitrary<Made> = fc.oneof(
  fc.tuple(few, causes).map(([counted, cause]): Made => ({ row }, day) => ({
    route: 'countEmergence',
    params: onLot(row.id),
    body: { ...entry(day), counted, cause, patches: [] },
  })),
  fc
    .array(fc.integer({ min: 5, max: 60 }), { minLength: 1, maxLength: 4 })
    .map((heightsCm): Made => ({ row }, day) => ({
      route: 'measureLot',
      params: onLot(row.id),
      body: { ...entry(day), heightsCm, diametersMm: heightsCm.slice(1).map((h) => h / 7) },
    })),
  fc
    .array(fc.constantFrom(0, 1, 2, 3), { minLength: 1, maxLength: 3 })
    .map((scores): Made => ({ row }, day) => ({
      route: 'pullRoots',
      params: onLot(row.id),
      body: { ...entry(day), scores, spoiled: 1 },
    })),
  fc.boolean().map((spoiled): Made => ({ row }, day) => ({
    route: 'inspectRoots',
    params: onLot(row.id),
    body: { ...entry(day), plant: looked, spoiled },
  })),
  fc.tuple(few, fc.integer({ min: 0, max: 9 })).map(([lifted, culled]): Made => ({ row }, day) => ({
    route: 'liftLot',
    params: onLot(row.id),
    body: {
      ...entry(day),
      lifted,
      culled: culled + (lifted ? 0 : 1),
      culls: culled ? [{ why: 'thin', count: culled }] : [],
    },
  })),
  fc
    .tuple(fc.constantFrom('sown', 'standing', 'lifted'), fc.integer({ min: 1, max: 60 }))
    .map(([from, count]): Made => ({ row }, day) => ({
      route: 'writeOff',
      params: onLot(row.id),
      body: { ...entry(day), from: from as 'sown', cause: 'lost', count },
    })),
  fc.tuple(few, few).map(([a, b]): Made => ({ row }, day) => {
    const { id, ...rest } = entry(day);
    return {
      route: 'recordEvent',
      params: yard.nursery,
      body: {
        ...rest,
        id: newId(),
        what: 'browsing',
        patch: 'north',
        lots: [{ id, lotId: row.id, hit: Math.max(a, b), dead: Math.min(a, b) }],
      },
    };
  }),
  fc.constant<Made>(({ row }, day) => {
    const { id, ...rest } = entry(day);
    return {
      route: 'recordCare',
      params: yard.nursery,
      body: { ...rest, id: newId(), done: { what: 'weed', how: 'pulled' }, lots: [{ id, lotId: row.id }] },
    };
  }),
  fc.constant<Made>(({ row }, day) => {
    const { id, ...rest } = entry(day);
    const placeId = row.stage.placeId === otherBench ? yard.bench.id : otherBench;
    return {
      route: 'carryLots',
      params: yard.nursery,
      body: { ...rest, id: newId(), placeId, lots: [{ id, lotId: row.id, stageId: newId() }] },
    };
  }),
  fc
    .tuple(fc.integer({ min: 0, max: 5 }), causes, fc.option(rootsMoving))
    .map(([lost, cause, roots]): Made => ({ row }, day) => ({
      route: 'shiftLot',
      params: onLot(row.id),
      body: {
        ...entry(day),
        lost,
        cause,
        roots,
        stage: {
          kind: 'container',
          id: newId(),
          placeId: row.stage.placeId,
          containerTypeId: yard.catalogue.containers[1].id,
          trays: 3,
        },
      },
    })),
  fc.nat(5).map((back): Made => ({ row }, day, done) => ({
    route: 'undoEntry',
    params: { ...onLot(row.id), entry: done[Math.max(0, done.length - 1 - back)] ?? row.id },
    body: entry(day),
  })),
);

/** Movements are named by the server; which of them one takes back is told by its place among them. */
function plain({ row, evidence }: LotKnown) {
  const index = new Map(evidence.movements.map((m, i) => [m.id, i]));
  const movements = evidence.movements
    .map(({ id: _, reverses, ...m }) => ({
      ...m,
      reverses:
        reverses === null ? null : { ...evidence.movements[index.get(reverses)!], id: '', reverses: '' },
    }))
    .map((m) => JSON.stringify(m))
    .sort();
  return { row, evidence: { ...evidence, movements } };
}
const known = ({ lot: row, evidence }: LotDetail): LotKnown => ({ row, evidence });

describe('what a device shows of a lot before the server has a write', () => {
  it('is what the server answers once it has it, whatever is written in whatever order', async () => {
    const kinds = [
      'carryLots',
      'countEmergence',
      'inspectRoots',
      'liftLot',
      'measureLot',
      'pullRoots',
      'recordCare',
      'recordEvent',
      'shiftLot',
      'undoEntry',
      'writeOff',
    ];
    const taken = new Set<string>();
    const follow = async (made: readonly Made[], standing: number) => {
      const stage = {
        kind: 'container' as const,
        id: newId(),
        placeId: yard.bench.id,
        containerTypeId: yard.catalogue.containers[0].id,
        trays: 1,
      };
      const at = await yard.sow(`U-${++lots}`, stage, standing);
      let lot = known(await yard.owner.ok('lot', { params: at }));
      const done: string[] = [];
      for (const [day, make] of made.entries()) {
        const write = make(lot, day, done);
        let ahead: LotKnown | null = null;
        try {
          ahead = lotAhead(lot, write);
        } catch (error) {
          expect(error).toBeInstanceOf(Unfit);
        }
        const response = await yard.owner.send(write.route as RouteName, write as never);
        const now = known(await yard.owner.ok('lot', { params: at }));
        if (response.ok) {
          expect(ahead, `${write.route} was taken: ${JSON.stringify(write.body)}`).not.toBeNull();
          expect(plain(ahead!)).toEqual(plain(now));
          // The answer was lost: it is there already, and is not taken in twice.
          expect(lotAhead(now, write)).toEqual(now);
          taken.add(write.route);
          if (write.route !== 'undoEntry') done.push(entryOf(write, at.lot));
        } else expect(now).toEqual(lot);
        lot = now;
      }
    };
    await fc.assert(
      fc.asyncProperty(fc.array(writes, { minLength: 1, maxLength: 9 }), fc.constantFrom(60, 60, 0), follow),
      { numRuns: 25 },
    );
    // What luck left out is tried on lots that stand: each kind is taken once at least.
    for (const made of fc.sample(fc.tuple(writes, writes), 300))
      if (taken.size < kinds.length) await follow(made, 60);
    // None of the kinds was refused each time.
    expect([...taken].sort()).toEqual(kinds);
  });

  it('of marks in Today too', async () => {
    const { owner, nursery, inBed } = yard;
    const mark = (more: object) =>
      ({
        id: newId(),
        rule: 'measure',
        subjectId: inBed.lot,
        mark: 'done',
        on: '2026-11-20',
        until: null,
        trees: 60,
        minutes: 25,
        ...more,
      }) as BodyInputOf<'markAct'>;
    let book = await owner.ok('todayBook', { params: nursery });
    const one = mark({});
    const skipped = mark({
      mark: 'skipped',
      until: '2026-12-01',
      reason: 'Frozen',
      rule: 'count-up',
      on: '2026-11-21',
    });
    const asked: HeldWrite[] = [
      { route: 'markAct', params: nursery, body: one },
      { route: 'markTogether', params: nursery, body: { id: newId(), marks: [skipped] } },
      { route: 'undoMark', params: { ...nursery, mark: one.id }, body: { id: newId() } },
    ];
    for (const write of asked) {
      const ahead = bookAhead(book, write, 'Owner');
      book = (await owner.ok(write.route as 'markAct', write as never)) as typeof book;
      expect(ahead).toEqual(book);
    }
  });
});

/** The record that a write made of a lot. */
function entryOf(write: HeldWrite, lotId: string): string {
  if (write.route === 'recordEvent' || write.route === 'recordCare' || write.route === 'carryLots')
    return (write.body as { lots: { id: string; lotId: string }[] }).lots.find((l) => l.lotId === lotId)!.id;
  return (write.body as { id: string }).id;
}
