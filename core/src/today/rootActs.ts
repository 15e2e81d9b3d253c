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

/** A lot with what is known of its roots. */
export interface JudgedLot {
  lotId: string;
  standing: Standing;
  verdict: SequentialVerdict;
}

/** Day by which a lot leaves where it is, if its standing says one. */
function leavesBy({ decision }: Standing): EpochDay {
  if (decision.kind === 'move-by') return decision.by;
  return decision.kind === 'lift' ? decision.bestBefore : Infinity;
}

/** A lot whose pulled plants were rejected is dealt with this week. */
export function rejectedAct({ lotId, verdict }: Pick<JudgedLot, 'lotId' | 'verdict'>): RootAct[] {
  const { call, failing, pulled } = verdict;
  return call === 'reject'
    ? [{ rule: 'roots-rejected', lotIds: [lotId], when: 'week', by: null, figures: { failing, pulled } }]
    : [];
}

/**
 * What roots ask for on a date. Rejected lots one by one; lots that leave soon and are not judged as one act, so that
 * they do not drown what else is to be done.
 */
export function rootActs(lots: readonly JudgedLot[], today: EpochDay): RootAct[] {
  const standing = lots.filter((lot) => lot.standing.tally.standing > 0);
  const acts = standing.flatMap(rejectedAct);
  const open = standing.filter(
    (lot) =>
      lot.verdict.call === 'pull' &&
      (lot.standing.status === 'lift' || whenFor(leavesBy(lot.standing), today) !== 'watch'),
  );
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
