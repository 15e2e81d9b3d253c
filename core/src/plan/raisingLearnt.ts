import { betaMean } from '../chance/beta';
import { betweenLots, pooledWeights, predictiveShare, type Outcome } from '../chance/pooledShare';
import type { EpochDay } from '../calendar/day';
import { containerVolume, type ContainerValues } from '../container/container';
import { causeTerms, outCauses, type Account, type Movement } from '../ledger/ledger';
import type { LearntRate, WorkKind } from '../today/work';
import { POT_FROM_ML } from './orderLine';
import type { RouteStart, StageEnd } from './route';

/** Kinds of home whose losses are learnt apart. */
export const stageKinds = ['bed', 'flat', 'cells', 'pots'] as const;
export type StageKind = (typeof stageKinds)[number];

export function stageKindOf(container: ContainerValues | null): StageKind {
  if (container === null) return 'bed';
  if (container.kind === 'flat') return 'flat';
  return containerVolume(container).value >= POT_FROM_ML ? 'pots' : 'cells';
}

/** A lot in one home after the other, first to last. */
export interface RaisedLot {
  speciesId: string;
  spells: readonly { kind: StageKind; from: EpochDay }[];
  movements: readonly Movement[];
}

/** Accounts of trees that left alive; those looked into tell nothing. */
const leftAlive: readonly Account[] = ['lifted', 'out:pricked-out', 'out:split', 'out:given', 'out:sold'];
const lostAccounts: readonly Account[] = outCauses
  .filter((cause) => ['growing', 'grading'].includes(causeTerms[cause].lost))
  .map((cause): Account => `out:${cause}`);

/**
 * Of the plants that stood in each home of a lot, how many went on alive, by its ledger. A home it still stands in says nothing
 * yet. What was taken back has its reverse among the movements, and counts for nothing.
 */
export function stageOutcomes({ spells, movements }: RaisedLot): { kind: StageKind; outcome: Outcome }[] {
  let before = 0;
  return spells.flatMap(({ kind }, i) => {
    const from = i === 0 ? -Infinity : spells[i].from;
    const until = spells[i + 1]?.from ?? Infinity;
    // What is done on the day of a move is done to the home it leaves.
    const here = movements.filter(({ day }) => day > from && day <= until);
    const net = (accounts: readonly Account[]) =>
      here.reduce(
        (sum, m) =>
          sum +
          (m.from === 'standing' && accounts.includes(m.to)
            ? m.count
            : m.to === 'standing' && accounts.includes(m.from)
              ? -m.count
              : 0),
        0,
      );
    const standing = here.reduce(
      (sum, m) => sum + (m.to === 'standing' ? m.count : 0) - (m.from === 'standing' ? m.count : 0),
      before,
    );
    const isLast = i === spells.length - 1;
    before = standing;
    if (isLast && standing > 0) return [];
    const kept = net(leftAlive) + (isLast ? 0 : standing);
    const n = kept + net(lostAccounts);
    return kept >= 0 && n > 0 ? [{ kind, outcome: { k: Math.min(kept, n), n } }] : [];
  });
}

/** What own lots of a species in a kind of home add to the share that goes on. */
export interface LearntShare {
  speciesId: string;
  kind: StageKind;
  /** Weight of plants that went on, and that did not: one large lot does not speak for all. */
  kept: number;
  gone: number;
  /** How much lots differ, 0–1. */
  between: number;
  lots: number;
}

/** Work at the beginning of a stage that recorded hours tell of. */
export const stageWorks = ['sow', 'prick', 'move'] as const satisfies readonly WorkKind[];
export type StageWork = (typeof stageWorks)[number];

/** What a nursery's own lots and recorded hours say of stages of routes. */
export interface RaisingLearnt {
  shares: LearntShare[];
  /** Recorded time over the starting rates', and times it was recorded. */
  paces: Record<StageWork, Pick<LearntRate, 'factor' | 'times'>>;
}

export const nothingLearnt: RaisingLearnt = {
  shares: [],
  paces: { sow: { factor: 1, times: 0 }, prick: { factor: 1, times: 0 }, move: { factor: 1, times: 0 } },
};

/** Shares that go on as the nursery's lots teach them, by species and kind of home. */
export function learntShares(lots: readonly RaisedLot[]): LearntShare[] {
  const groups = new Map<string, { speciesId: string; kind: StageKind; outcomes: Outcome[] }>();
  for (const lot of lots)
    for (const { kind, outcome } of stageOutcomes(lot)) {
      const key = `${lot.speciesId} ${kind}`;
      if (!groups.has(key)) groups.set(key, { speciesId: lot.speciesId, kind, outcomes: [] });
      groups.get(key)!.outcomes.push(outcome);
    }
  return [...groups.values()].map(({ outcomes, ...group }) => {
    const { alpha, beta } = pooledWeights(outcomes);
    return { ...group, kept: alpha, gone: beta, between: betweenLots(outcomes), lots: outcomes.length };
  });
}

/** Plants that a share which somebody wrote, or a rule of thumb, weighs as much as. */
const WRITTEN_WEIGHS = 40;

/** A share that goes on, and how well it is known of the next lot. */
export interface StageShare {
  goesOn: number;
  /** As if so many plants had been counted. */
  counted: number;
  /** Own lots it rests on beside what was written. */
  lots: number;
}

/** A written share with what own lots add to it. Where all are said to go on, and no lot says otherwise, all do. */
export function stageShare(written: number, learnt?: LearntShare): StageShare {
  const lots = learnt?.lots ?? 0;
  const alpha = WRITTEN_WEIGHS * written + (learnt?.kept ?? 0);
  const beta = WRITTEN_WEIGHS * (1 - written) + (learnt?.gone ?? 0);
  if (!(beta > 0)) return { goesOn: 1, counted: Infinity, lots };
  const next = predictiveShare({ alpha, beta }, learnt?.between ?? betweenLots([]));
  return { goesOn: betaMean(next), counted: next.alpha + next.beta, lots };
}

export const shareLearnt = (
  { shares }: Pick<RaisingLearnt, 'shares'>,
  speciesId: string,
  kind: StageKind,
): LearntShare | undefined => shares.find((share) => share.speciesId === speciesId && share.kind === kind);

/** What is done at the beginning of a stage, where recorded hours tell of it: cuttings are stuck, which they do not. */
export function workOfStage(start: RouteStart, endedBefore: StageEnd | null): StageWork | null {
  if (endedBefore === null) return start === 'cuttings' ? null : 'sow';
  return endedBefore === 'true leaves' ? 'prick' : 'move';
}
