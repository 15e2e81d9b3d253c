import type { EpochDay } from '../calendar/day';
import { quantileSorted } from '../chance/quantile';
import type { Outlook } from '../weather/ensemble';
import { put, type Worked } from '../working/working';

const RATED_AT_C = 21;
export const DAYS_PER_MONTH = 30.4;
/** ln 5: the rating is the time to 80 % released. */
const TO_80_PERCENT = 1.609;

/** How far a controlled-release feed has run. */
export interface Release {
  /** 1 at the rated life. */
  progress: number;
  /** Share of the nutrients let go, 0–1. */
  released: number;
}

/**
 * Nutrients released by coated prills rated in months at 21 °C; the rate doubles with every 10 °C.
 * @param meanTempsC mean temperature of the medium, day by day
 * @param ratedMonths above 0
 * @throws RangeError when the rating is not above 0
 */
export function controlledRelease({
  meanTempsC,
  ratedMonths,
}: {
  meanTempsC: readonly number[];
  ratedMonths: number;
}): Worked<Release> {
  if (!(ratedMonths > 0)) throw new RangeError('A feed is rated in months above 0.');
  const days = meanTempsC.reduce((total, t) => total + dayAt21(t), 0);
  const progress = days / (DAYS_PER_MONTH * ratedMonths);
  const released = 1 - Math.exp(-TO_80_PERCENT * progress);
  return {
    value: { progress, released },
    working: [
      {
        what: 'Days at 21 °C that the days so far are worth',
        how: 'Each day counts 2^((mean − 21) ÷ 10).',
        result: days,
        unit: 'd',
      },
      {
        what: 'Share of the rated life run',
        expression: `${put(days)} ÷ (${DAYS_PER_MONTH} × ${put(ratedMonths)})`,
        result: progress,
      },
      {
        what: 'Share of the feed released',
        expression: `1 − exp(−${TO_80_PERCENT} × ${put(progress)})`,
        result: released,
        source: 'First order, 80 % at the rated life at 21 °C; rate doubling per 10 °C',
      },
    ],
  };
}

/** What one day at a temperature counts for in days at 21 °C. */
export function dayAt21(meanC: number): number {
  return 2 ** ((meanC - RATED_AT_C) / 10);
}

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
  if (!(until > from)) throw new RangeError('The feed must be wanted until a day after it is mixed in.');
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
