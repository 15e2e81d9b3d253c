import type { EpochDay } from '../calendar/day';

/** A sowing on a day, and the days on which each of its runs is ready and root-bound; Infinity for never. */
export interface SowingRuns {
  on: EpochDay;
  ready: ArrayLike<number>;
  bound: ArrayLike<number>;
}

/**
 * The two-sided window of sowing for a day on which trees are wanted: earlier than its first day too many would be
 * root-bound by then, later than its last too few would be ready. The two may cross: then no sowing does both.
 * @param readyChance share of runs that must be ready on or before the day
 * @param boundChance share that may be root-bound on or before it
 * @returns null on a side where no sowing will do
 */
export function sowingWindow({
  sowings,
  wantedOn,
  readyChance,
  boundChance,
}: {
  sowings: readonly SowingRuns[];
  wantedOn: EpochDay;
  readyChance: number;
  boundChance: number;
}): { earliest: EpochDay | null; latest: EpochDay | null } {
  let earliest: EpochDay | null = null;
  let latest: EpochDay | null = null;
  for (const { on, ready, bound } of sowings) {
    if (shareBy(bound, wantedOn) <= boundChance + 1e-9 && (earliest === null || on < earliest)) earliest = on;
    if (shareBy(ready, wantedOn) >= readyChance - 1e-9 && (latest === null || on > latest)) latest = on;
  }
  return { earliest, latest };
}

/** What a sowing on a day comes to, as shares of its runs. */
export interface SowingPoint {
  on: EpochDay;
  /** Share ready by the last day that will do, and past (bound, or too tall) before the first. */
  ready: number;
  past: number;
  /** Share both in time and not past. */
  chance: number;
}

/** What weeks of sowing come to: the window, or where its two sides cross, and the week with the best chance. */
export interface WeeksOfSowing<P extends SowingPoint> {
  /** First day on which few enough are past, and last on which enough are ready; null where there is none. */
  earliest: EpochDay | null;
  latest: EpochDay | null;
  /** Whether a sowing keeps both sides. */
  isOpen: boolean;
  /**
   * The sowing with the best chance; of several nearly as good the middle of the longest run of them, furthest from either
   * edge.
   */
  best: P | null;
}

/** Chances nearer than this are as good as one another. */
const AS_GOOD = 0.01;

/**
 * The window of sowing by weeks that were run ahead.
 * @param chance wanted of being in time, and of not being past
 */
export function weeksOfSowing<P extends SowingPoint>(points: readonly P[], chance: number): WeeksOfSowing<P> {
  const inTime = points.filter(({ ready }) => ready >= chance - 1e-9).map(({ on }) => on);
  const notPast = points.filter(({ past }) => past <= 1 - chance + 1e-9).map(({ on }) => on);
  const most = Math.max(0, ...points.map((point) => point.chance));
  return {
    earliest: notPast.length ? Math.min(...notPast) : null,
    latest: inTime.length ? Math.max(...inTime) : null,
    isOpen: points.some(({ ready, past }) => ready >= chance - 1e-9 && past <= 1 - chance + 1e-9),
    best: most > 0 ? bestOf(points, most) : null,
  };
}

function bestOf<P extends SowingPoint>(points: readonly P[], most: number): P {
  let longest: P[] = [];
  let run: P[] = [];
  for (const point of points) {
    run = point.chance >= most - AS_GOOD ? [...run, point] : [];
    if (run.length > longest.length) longest = run;
  }
  return longest[Math.floor(longest.length / 2)];
}

/** Share of runs that are there by a day. */
export function shareBy(days: ArrayLike<number>, by: EpochDay): number {
  let n = 0;
  for (let i = 0; i < days.length; i++) if (days[i] <= by) n++;
  return days.length ? n / days.length : 0;
}
