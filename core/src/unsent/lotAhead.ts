import { say, word } from '../speech/say';
import type { Evidence, LotRow, NewStage, Stage } from '../contract';
import { causeOfEvent } from '../growing/events';
import { summarise } from '../growth/sample';
import { countToMovements, type Account } from '../ledger/ledger';
import { goneInMoving, movingToMovements, type Moving } from '../ledger/moving';
import { Unfit } from '../working/unfit';
import { lotsOf, type HeldWrite } from './heldWrite';

/** A lot with its records, as the server answers it. */
export interface LotKnown {
  row: LotRow;
  evidence: Evidence;
}
interface Moved {
  from: Account;
  to: Account;
  count: number;
}

/**
 * A lot as it will be once the server has taken a write in: the same records, the same ledger. Ids that the server gives
 * (of movements) are made from the write’s own until then. A write that the lot holds already, since only the answer was
 * lost, changes nothing, and neither does one that is not about it.
 * @throws Unfit with a sentence where it cannot be: more than stand, more counted than were sown, a move before the last
 */
export function lotAhead(lot: LotKnown, write: HeldWrite): LotKnown {
  const { id: lotId } = lot.row;
  if (!lotsOf(write).includes(lotId)) return lot;
  switch (write.route) {
    case 'countEmergence': {
      const { id, on, note = '', counted, cause, multi = null, damaged = null, patches = [] } = write.body;
      const { standing, sown } = lot.row.held;
      return once(lot, id, () =>
        moved(
          seen(lot, on, {
            counts: [
              ...lot.evidence.counts,
              { entry: id, on, count: counted, multi, damaged, patches, note },
            ],
          }),
          { id, on, note },
          countToMovements(counted, standing, sown, cause),
        ),
      );
    }
    case 'measureLot': {
      const { id, on, heightsCm, diametersMm } = write.body;
      const of = (what: 'height' | 'diameter', values: readonly number[]) => {
        if (!values.length) return [];
        const { n, mean, sd } = summarise(values);
        return [{ entry: id, on, what, n, mean, sd }];
      };
      return once(lot, id, () => {
        someStand(lot, say`count what came up first`);
        return seen(lot, on, {
          sizes: [...lot.evidence.sizes, ...of('height', heightsCm), ...of('diameter', diametersMm)],
        });
      });
    }
    case 'pullRoots': {
      const { id, on, note = '', scores, spoiled } = write.body;
      return once(lot, id, () => {
        if (lot.row.stage.containerTypeId === null)
          throw new Unfit(say`${lot.row.code} stands in a bed: it has no plugs to score.`);
        mustStand(lot, scores.length, say`plugs scored`);
        return moved(
          seen(lot, on, { pulls: [...lot.evidence.pulls, { entry: id, on, scores, spoiled, note }] }),
          { id, on, note },
          [{ from: 'standing', to: 'out:sampled', count: spoiled }],
        );
      });
    }
    case 'inspectRoots': {
      const { id, on, note = '', plant, spoiled } = write.body;
      return once(lot, id, () => {
        someStand(lot, say`there is no plant to pull`);
        return moved(
          seen(lot, on, { roots: [...lot.evidence.roots, { entry: id, on, plant, spoiled, note }] }),
          { id, on, note },
          [{ from: 'standing', to: 'out:sampled', count: spoiled ? 1 : 0 }],
        );
      });
    }
    case 'liftLot': {
      const { id, on, note = '', lifted, culled, culls = [], parcels = [] } = write.body;
      const counts = parcels.length ? parcels.map(({ count }) => count) : [lifted];
      return once(lot, id, () =>
        moved(
          culls.length
            ? seen(lot, on, { culls: [...lot.evidence.culls, { entry: id, on, reasons: culls }] })
            : lot,
          { id, on, note },
          [
            { from: 'standing', to: 'out:culled', count: culled },
            ...counts.map((count): Moved => ({ from: 'standing', to: 'lifted', count })),
          ],
        ),
      );
    }
    case 'writeOff': {
      const { id, on, note = '', from, cause, count } = write.body;
      return once(lot, id, () => moved(lot, { id, on, note }, [{ from, to: `out:${cause}`, count }]));
    }
    case 'shiftLot': {
      const { id, on, note = '', stage, lost, cause, roots = null } = write.body;
      return once(lot, id, () => movedOn(lot, { id, on, note }, stage, { lost, cause, roots }));
    }
    case 'carryLots': {
      const { on, note = '', placeId, lots } = write.body;
      return lots
        .filter((part) => part.lotId === lotId)
        .reduce(
          (before, { id, stageId }) =>
            once(before, id, () => {
              const { containerTypeId, trays } = before.row.stage;
              if (containerTypeId === null || trays === null)
                throw new Unfit(say`${before.row.code} stands in a bed and cannot be carried.`);
              const stage: NewStage = { kind: 'container', id: stageId, placeId, containerTypeId, trays };
              return movedOn(before, { id, on, note }, stage, { lost: 0, cause: null, roots: null });
            }),
          lot,
        );
    }
    case 'recordEvent': {
      const { on, note = '', what, patch = '', photos = [], lots } = write.body;
      const cause = causeOfEvent[what];
      return lots
        .filter((part) => part.lotId === lotId)
        .reduce(
          (before, { id, hit, dead }) =>
            once(before, id, () => {
              mustStand(before, hit, say`hit`);
              const events = [
                ...before.evidence.events,
                { entry: id, on, what, hit, dead, patch, photos, note },
              ];
              return moved(
                seen(before, on, { events }),
                { id, on, note },
                cause === null ? [] : [{ from: 'standing', to: `out:${cause}`, count: dead }],
              );
            }),
          lot,
        );
    }
    case 'recordCare': {
      const { on, note = '', done, lots } = write.body;
      return lots
        .filter((part) => part.lotId === lotId)
        .reduce(
          (before, { id }) =>
            once(before, id, () =>
              seen(before, on, { care: [...before.evidence.care, { entry: id, on, done, note }] }),
            ),
          lot,
        );
    }
    case 'undoEntry':
      return without(lot, write.params.entry, write.body);
    case 'undoTogether':
      return write.body.entries
        .filter((one) => one.lot === lotId)
        .reduce((before, { entry }) => without(before, entry, write.body), lot);
    default:
      return lot;
  }
}

const kinds = ['counts', 'sizes', 'pulls', 'roots', 'culls', 'events', 'care', 'shifts'] as const;

/** Whether a lot has a record already. */
function has({ evidence }: LotKnown, entry: string): boolean {
  return (
    evidence.movements.some((m) => m.entry === entry) ||
    kinds.some((kind) => evidence[kind].some((one) => one.entry === entry))
  );
}
const once = (lot: LotKnown, entry: string, take: () => LotKnown): LotKnown =>
  has(lot, entry) ? lot : take();

/** Days and ids are written so that their letters are in order. */
const order = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** Records are in the order of their days, as the server has them. */
const byDay = <R extends { on: string; entry: string }>(records: readonly R[]): R[] =>
  [...records].sort((a, b) => (a.on === b.on ? order(a.entry, b.entry) : order(a.on, b.on)));

/** With records of a day added. */
function seen({ row, evidence }: LotKnown, on: string, added: Partial<Evidence>): LotKnown {
  const ordered = Object.fromEntries(
    Object.entries(added).map(([kind, records]) => [kind, byDay(records as { on: string; entry: string }[])]),
  );
  const { lastRecordOn } = row;
  return {
    row: { ...row, lastRecordOn: lastRecordOn !== null && lastRecordOn > on ? lastRecordOn : on },
    evidence: { ...evidence, ...ordered },
  };
}

/** Of the accounts of a lot, those that a row tells by name; the others are out. */
const named = ['seed', 'sown', 'standing', 'lifted', 'sent', 'planted'] as const;
const keyOf = (account: Account): keyof LotRow['held'] | null =>
  account === 'supply' ? null : (named.find((name) => name === account) ?? 'out');

/** With trees moved; counts of none leave no trace. */
function moved(
  { row, evidence }: LotKnown,
  { id, on, note }: { id: string; on: string; note: string },
  moves: readonly (Moved & { reverses?: string })[],
): LotKnown {
  const held = { ...row.held };
  const some = moves.filter(({ count }) => count > 0);
  for (const { from, to, count } of some) {
    const [left, gained] = [keyOf(from), keyOf(to)];
    if (left) held[left] -= count;
    if (gained) held[gained] += count;
    if (left && held[left] < 0)
      throw new Unfit(
        say`${count} ${from === 'standing' ? say`trees` : say`of what is ${word(from)}`} to go, but ${held[left] + count} of ${row.code} are there.`,
      );
  }
  const before = evidence.movements.length;
  const added = some.map(({ from, to, count, reverses = null }, i) => ({
    id: `${id}.${before + i}`,
    entry: id,
    on,
    from,
    to,
    count,
    note,
    reverses,
  }));
  const movements = [...evidence.movements, ...added].sort((a, b) => order(a.on, b.on));
  return { row: { ...row, held }, evidence: { ...evidence, movements } };
}

function someStand({ row }: LotKnown, first: string): void {
  if (row.held.standing === 0) throw new Unfit(say`Nothing of ${row.code} stands; ${first}.`);
}
function mustStand({ row }: LotKnown, count: number, what: string): void {
  if (count > row.held.standing)
    throw new Unfit(say`${count} ${what}, but ${row.held.standing} of ${row.code} stand.`);
}

/** Standing somewhere else from a day on. */
function movedOn(
  lot: LotKnown,
  entry: { id: string; on: string; note: string },
  to: NewStage,
  moving: Moving,
): LotKnown {
  const { row, evidence } = lot;
  const { on } = entry;
  someStand(lot, say`there is nothing to move`);
  if (on <= row.stage.startedOn)
    throw new Unfit(
      say`${row.code} has stood where it is since ${row.stage.startedOn}; a move comes after that.`,
    );
  if (moving.lost > 0 && moving.cause === null)
    throw new Unfit(say`Say what became of those lost in moving.`);
  if (moving.roots) mustStand(lot, moving.roots.looked, say`looked at`);
  mustStand(lot, goneInMoving(moving), say`lost or rejected`);
  const stage: Stage = {
    id: to.id,
    placeId: to.placeId,
    containerTypeId: to.kind === 'container' ? to.containerTypeId : null,
    trays: to.kind === 'container' ? to.trays : null,
    densityPerM2: to.kind === 'bed' ? to.densityPerM2 : null,
    areaM2: to.kind === 'bed' ? to.areaM2 : null,
    startedOn: on,
    endedOn: null,
  };
  const there = {
    row: { ...row, stage },
    evidence: {
      ...evidence,
      stages: [...evidence.stages.map((s) => (s.id === row.stage.id ? { ...s, endedOn: on } : s)), stage],
    },
  };
  const shifts = [
    ...evidence.shifts,
    { entry: entry.id, on, to: stage.id, roots: moving.roots, note: entry.note },
  ];
  return moved(seen(there, on, { shifts }), entry, movingToMovements(moving));
}

/** With a record struck and what it moved moved back; one that is not there, or is back already, changes nothing. */
function without(lot: LotKnown, entry: string, undo: { id: string; on: string }): LotKnown {
  if (lot.evidence.movements.some((m) => m.entry === undo.id)) return lot;
  const { row, evidence } = lot;
  const shift = evidence.shifts.find((one) => one.entry === entry);
  if (shift && shift.to !== row.stage.id)
    throw new Unfit(say`It has been moved again since; take the later move back first.`);
  const struck = Object.fromEntries(
    kinds.map((kind) => [kind, evidence[kind].filter((one) => one.entry !== entry)]),
  ) as Pick<Evidence, (typeof kinds)[number]>;
  const stages = shift
    ? evidence.stages
        .filter(({ id }) => id !== shift.to)
        .map((stage, i, all) => (i === all.length - 1 ? { ...stage, endedOn: null } : stage))
    : evidence.stages;
  const last = kinds.flatMap((kind) => struck[kind].map(({ on }) => on)).sort();
  const reversed = new Set(evidence.movements.map((m) => m.reverses));
  const back = evidence.movements
    .filter((m) => m.entry === entry && !reversed.has(m.id))
    .reverse()
    .map((m) => ({ ...m, from: m.to, to: m.from, reverses: m.id }));
  const there = {
    row: { ...row, stage: shift ? stages[stages.length - 1] : row.stage, lastRecordOn: last.at(-1) ?? null },
    evidence: { ...evidence, ...struck, stages },
  };
  return back.reduce(
    (before, m) =>
      moved(before, { id: undo.id, on: m.on > undo.on ? m.on : undo.on, note: say`taken back` }, [m]),
    there,
  );
}
