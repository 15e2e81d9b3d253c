import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { EpochDay } from '../calendar/day';
import { quantileSorted } from '../chance/quantile';
import { dayAt21, DAYS_PER_MONTH, TO_80_PERCENT } from '../medium/controlledRelease';
import type { Outlook } from '../weather/ensemble';

/** When a feed mixed in on a day has released 80 %, over the weather-year ensemble. */
export interface RunOut {
  ratedMonths: number;
  early: EpochDay;
  median: EpochDay;
  late: EpochDay;
  /** Share of it still unspent on the last day asked about, median. */
  unspentAtEnd: number;
}

/**
 * Run-out of each rating offered, and which is the longest that is not wasted: at least 80 % released
 * by the last day it is wanted.
 * @param warmerByC medium against air, for example under cover
 */
export function releaseChoice(
  outlook: Outlook,
  from: EpochDay,
  until: EpochDay,
  ratings: readonly number[] = [3, 5, 8, 12, 16],
  warmerByC = 0,
): { choices: RunOut[]; best: number | null } {
  if (!(until > from)) throw new Unfit(say`The feed must be wanted until a day after it is mixed in.`);
  const choices = ratings.map((ratedMonths) => {
    const ends: number[] = [];
    const unspent: number[] = [];
    for (const year of outlook.years) {
      let worth = 0;
      let end = Infinity;
      let atEnd = 1;
      for (let day = from; day <= outlook.asOf + outlook.horizonDays; day++) {
        worth += dayAt21(meanOn(outlook, year, day) + warmerByC);
        const progress = worth / (DAYS_PER_MONTH * ratedMonths);
        if (progress >= 1 && end === Infinity) end = day;
        if (day === until) atEnd = Math.exp(-TO_80_PERCENT * progress);
      }
      ends.push(end);
      unspent.push(atEnd);
    }
    ends.sort((a, b) => a - b);
    unspent.sort((a, b) => a - b);
    return {
      ratedMonths,
      early: quantileSorted(ends, 0.1),
      median: quantileSorted(ends, 0.5),
      late: quantileSorted(ends, 0.9),
      unspentAtEnd: quantileSorted(unspent, 0.5),
    };
  });
  const fit = choices.filter((c) => c.median <= until);
  return { choices, best: fit.length ? Math.max(...fit.map((c) => c.ratedMonths)) : null };
}

function meanOn(outlook: Outlook, year: Outlook['years'][number], day: EpochDay): number {
  if (day <= outlook.asOf) {
    const i = Math.max(0, day - outlook.pastStart);
    return (outlook.pastMinC[i] + outlook.pastMaxC[i]) / 2;
  }
  const i = Math.min(outlook.horizonDays, day - outlook.asOf) - 1;
  return (year.tMinC[i] + year.tMaxC[i]) / 2;
}
