import type { EpochDay } from '../calendar/day';
import type { Standing } from '../forecast/standing';
import { whenFor, type When } from '../calendar/when';
import type { SequentialVerdict } from '../roots/sequentialPlan';

/** What the root bench asks for: a rejected lot to be dealt with, or lots to be judged before they go. */
export interface RootAct {
  rule: 'roots-rejected' | 'judge-roots';
  lotIds: string[];
  when: When;
  by: EpochDay | null;
  figures: Record<string, number>;
}

/** What is known of a lot's roots: the sequential plan's call, from so many plants pulled. */
export type RootCall = Pick<SequentialVerdict, 'call' | 'failing' | 'pulled'>;

/** A lot with what is known of its roots. */
export interface JudgedLot {
  lotId: string;
  /** Trees standing. */
  trees: number;
  /** Whether it leaves where it stands within weeks. */
  leavesSoon: boolean;
  verdict: RootCall;
}

/** Whether a lot leaves where it stands within weeks of a day, if its standing says so. */
export function leavesSoon({ status, decision }: Standing, day: EpochDay): boolean {
  const by =
    decision.kind === 'move-by' ? decision.by : decision.kind === 'lift' ? decision.bestBefore : Infinity;
  return status === 'lift' || whenFor(by, day) !== 'watch';
}

/** A lot whose pulled plants were rejected is dealt with this week. */
function rejectedAct({ lotId, verdict }: Pick<JudgedLot, 'lotId' | 'verdict'>): RootAct[] {
  const { call, failing, pulled } = verdict;
  return call === 'reject'
    ? [{ rule: 'roots-rejected', lotIds: [lotId], when: 'week', by: null, figures: { failing, pulled } }]
    : [];
}

/**
 * What roots ask for. Rejected lots one by one; lots that leave soon and are not judged as one act, so that they do not
 * drown what else is to be done.
 */
export function rootActs(lots: readonly JudgedLot[]): RootAct[] {
  const standing = lots.filter((lot) => lot.trees > 0);
  const acts = standing.flatMap(rejectedAct);
  const open = standing.filter((lot) => lot.verdict.call === 'pull' && lot.leavesSoon);
  if (open.length)
    acts.push({
      rule: 'judge-roots',
      lotIds: open.map((lot) => lot.lotId),
      when: 'weeks',
      by: null,
      figures: { lots: open.length, begun: open.filter((lot) => lot.verdict.pulled > 0).length },
    });
  return acts;
}
