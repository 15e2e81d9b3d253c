import type { EpochDay } from '../calendar/day';
import { ruleTerms } from './rules';
import type { LotFacts } from '../forecast/lotFacts';
import type { LotForecast } from '../forecast/forecast';
import type { Standing } from '../forecast/standing';
import type { EmergenceOutlook } from '../sowing/emergenceOutlook';
import type { Act } from './lotActs';
import { leavesSoon, type RootCall } from './rootActs';
import { emergenceActs } from './seedActs';
import type { LotAsks } from './todayOf';

/**
 * What a lot asks for on the day its forecast looks at.
 * @param known the lot as it was known that day
 * @param acts what its forecast alone asks for, as `actsFor` says
 * @param rising how it is coming up; null for a lot that was not sown here
 * @param roots what its pulled plants say
 */
export function lotAsks(
  known: LotFacts,
  forecast: LotForecast,
  standing: Standing,
  rising: EmergenceOutlook | null,
  roots: RootCall,
  acts: Act[],
): LotAsks {
  return {
    lotId: known.id,
    code: known.code,
    standing: standing.tally.standing,
    sown: standing.tally.sown,
    acts,
    late:
      rising && isRising(standing, forecast) && !justCounted(known, forecast.asOf)
        ? emergenceActs(known.id, rising)
        : [],
    roots,
    leavesSoon: leavesSoon(standing, forecast.state.day),
  };
}

/** Whether a late lot was looked at so lately that it is not asked for again. */
function justCounted({ counts }: LotFacts, day: EpochDay): boolean {
  return counts.some((c) => c.day <= day && day - c.day < ruleTerms['late-up'].rest);
}

/** What has not come up so long after the first did waits for another spring: it is not late any more, days. */
const RISES_FOR_DAYS = 120;

/** Whether seed of a lot is still coming up, and nobody has yet to decide on it. */
export function isRising({ tally, decision }: Standing, { emergence, state }: LotForecast): boolean {
  if (tally.sown === 0 || decision.kind === 'write-off') return false;
  return emergence.seen === null || state.day - emergence.seen <= RISES_FOR_DAYS;
}
