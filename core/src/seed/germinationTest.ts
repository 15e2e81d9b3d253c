import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { wholeShare } from '../chance/beta';

/** Seeds germinated by a day of a test; counts are of that day alone. */
export interface DailyCount {
  /** Days since the test began, 1 or more. */
  day: number;
  germinated: number;
}

export interface GerminationReading {
  k: number;
  share: number;
  /** Day by which half of those that came had come; null when none came. */
  halfDay: number | null;
  /** Mean days to germinate of those that came. */
  meanDays: number | null;
  /** Whether seed still came within the last fifth of the run: the test ended too soon. */
  endedEarly: boolean;
}

/**
 * Reads a germination test from its daily counts.
 * @throws Unfit with a sentence for counts beyond the seeds tried, days outside the run or out of order
 */
export function readGermination(
  counts: readonly DailyCount[],
  n: number,
  daysRun: number,
): GerminationReading {
  if (!(Number.isInteger(n) && n >= 1)) throw new Unfit(say`A test tries at least one seed.`);
  if (!(daysRun >= 1)) throw new Unfit(say`A germination test runs at least one day.`);
  let k = 0;
  let before = 0;
  let daySum = 0;
  for (const { day, germinated } of counts) {
    if (!(day > before && day <= daysRun))
      throw new Unfit(say`Day ${day} does not follow day ${before} within a run of ${daysRun} days.`);
    if (!(Number.isInteger(germinated) && germinated >= 0))
      throw new Unfit(say`Each day’s count is a whole number of seeds.`);
    before = day;
    k += germinated;
    daySum += day * germinated;
  }
  if (k > n) throw new Unfit(say`${k} of ${n}: no more seeds can germinate than were tried.`);
  let sofar = 0;
  const half = counts.find((c) => (sofar += c.germinated) * 2 >= k)?.day ?? null;
  const late = counts.filter((c) => c.day > daysRun * 0.8).reduce((t, c) => t + c.germinated, 0);
  return {
    k,
    share: wholeShare(k, n),
    halfDay: k ? half : null,
    meanDays: k ? daySum / k : null,
    endedEarly: late > 0,
  };
}
