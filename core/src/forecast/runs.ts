import { firstAtLeast } from '../chance/quantile';
import type { EpochDay } from '../calendar/day';
import { cellMlOf, type HomeSpell } from '../home/home';
import { BOUND_FILL, linearIn, READY_FILL, rootClock, type RootClock } from '../roots/rootFill';
import type { Warmth } from '../weather/sums';
import type { Emergence } from './emergence';
import type { LotDraws } from './lotDraws';
import type { LotFacts } from './lotFacts';
import { homesOf } from './lotHomes';

/**
 * Every way a lot may go: one run for each weather year and draw, index year·draws + draw. Days are
 * Infinity where a run does not get there within the horizon.
 */
export interface Runs {
  count: number;
  draws: number;
  ready: Float64Array;
  bound: Float64Array;
  /**
   * Days kept, ascending; root volume (mL) by kept day, then run. On a day of the past of a lot seen up every weather
   * year is the same, and only the draws are listed.
   */
  keptDays: EpochDay[];
  rootMl: Float64Array[];
}

/**
 * Root volume and warmth of every run on the days kept, and the days on which its plug holds and is bound. Roots follow
 * their closed form, so that a run asks the running sums of warmth a few times and never goes day by day.
 * @param keptDays days at which the state is kept, ascending; the day before a coming move must be among them
 */
export function runLot(
  facts: LotFacts,
  warmth: Warmth,
  emergence: Emergence,
  g: LotDraws,
  keptDays: EpochDay[],
): Runs {
  const draws = g.vigour.length;
  const years = warmth.years.length;
  const count = years * draws;
  const { rootInitialMl, rootRatePerDd, rootLinearAtMl } = facts.species;
  // A day’s plugs are fuller or looser than the lot’s own: a run’s plug holds, and is bound, by as much sooner or later.
  const limits = Array.from(g.dayLuck, (luck) => ({ ready: READY_FILL / luck, bound: BOUND_FILL / luck }));
  const cells = homesOf(facts).map((spell) => ({
    from: spell.from,
    clock: rootClock(cellMlOf(spell.home), linearIn(rootLinearAtMl, cellMlOf(spell.home))),
  }));
  // Seen up: its past is one for all years, and the years part only with the weather to come.
  const { seen } = emergence;
  const known = seen === null ? 0 : keptDays.filter((day) => day <= warmth.asOf).length;
  const kept = () => keptDays.map((_, i) => new Float64Array(i < known ? draws : count));
  const runs: Runs = {
    count,
    draws,
    ready: new Float64Array(count),
    bound: new Float64Array(count),
    keptDays,
    rootMl: kept(),
  };
  const sinceSeen = seen === null ? null : warmth.years.map((_, year) => warmthSince(warmth, year, seen));
  for (let d = 0; d < draws; d++) {
    const rate = rootRatePerDd * g.vigour[d];
    let shared: Course | null = null;
    for (let year = 0; year < years; year++) {
      const run = year * draws + d;
      const up = emergence.days[run];
      if (up === Infinity) {
        keptDays.forEach((_, i) => (runs.rootMl[i][run] = rootInitialMl));
        runs.ready[run] = Infinity;
        runs.bound[run] = Infinity;
        continue;
      }
      const since = sinceSeen?.[year] ?? warmthSince(warmth, year, up);
      const start = shared ?? { at: firstCell(cells, up), rootMl: rootInitialMl, heat: 0 };
      if (seen !== null && shared === null) {
        shared = followRoots(runs, d, cells, up, since, rate, limits[d], start, 0, known, warmth.asOf + 1);
        followRoots(runs, run, cells, up, since, rate, limits[d], shared, known, keptDays.length, Infinity);
      } else
        followRoots(runs, run, cells, up, since, rate, limits[d], start, known, keptDays.length, Infinity);
    }
  }
  return runs;
}

/** A cell from a day on, with its clock. */
interface Cell {
  from: EpochDay;
  clock: RootClock;
}

/** Warmth of one weather year since a plant came up. */
interface WarmthSince {
  /** By the end of a day; 0 before it came up. */
  by: (day: EpochDay) => number;
  /** First day by whose end it reaches a sum; Infinity beyond the horizon. */
  dayOf: (sum: number) => EpochDay;
}

/** @param up day the plant came up, whose own warmth counts */
function warmthSince({ sums, asOf, pastStart }: Warmth, year: number, up: EpochDay): WarmthSince {
  const ahead = sums.years[year];
  const { past } = sums;
  const pastEnd = past[past.length - 1];
  // Warmth since the start of the past, at the end of the day before it came up.
  const start =
    up > asOf
      ? pastEnd + ahead[Math.min(ahead.length - 1, up - asOf - 1)]
      : past[Math.max(0, up - pastStart)];
  return {
    by: (day) => {
      if (day < up) return 0;
      const sum =
        day <= asOf
          ? past[Math.max(0, day - pastStart + 1)]
          : pastEnd + ahead[Math.min(ahead.length - 1, day - asOf)];
      return sum - start;
    },
    dayOf: (sum) => {
      const wanted = start + sum;
      return wanted <= pastEnd && up <= asOf
        ? pastStart + firstAtLeast(past, wanted) - 1
        : asOf + firstAtLeast(ahead, wanted - pastEnd);
    },
  };
}

/** Where a run has come to: the cell it is in, and its roots and warmth when it was put there. */
interface Course {
  at: number;
  rootMl: number;
  heat: number;
}

/** Cells left before it came up did not hold a root. */
function firstCell(cells: readonly Cell[], up: EpochDay): number {
  let at = cells.length - 1;
  while (at > 0 && cells[at].from > up) at--;
  return at;
}

/**
 * One run through its cells, keeping its state on some of the days kept. In a new home a plug has to fill again.
 * @param before follows it up to the last home taken before this day; with Infinity also dates plug and bound
 */
function followRoots(
  runs: Runs,
  run: number,
  cells: readonly Cell[],
  up: EpochDay,
  since: WarmthSince,
  rate: number,
  limits: { ready: number; bound: number },
  start: Course,
  keptFrom: number,
  keptTo: number,
  before: EpochDay,
): Course {
  const { keptDays } = runs;
  let { at, rootMl, heat } = start;
  let kept = keptFrom;
  for (; ; at++) {
    const { clock } = cells[at];
    const until = at + 1 < cells.length ? cells[at + 1].from : Infinity;
    const g = clock.at(rootMl);
    const from = rootMl;
    const heatThen = heat;
    const after = (sum: number) =>
      g === Infinity || sum <= heatThen ? from : clock.rootsAt(g + rate * (sum - heatThen));
    for (; kept < keptTo && keptDays[kept] < until; kept++) {
      const sum = since.by(keptDays[kept]);
      runs.rootMl[kept][run] = after(sum);
    }
    if (until >= before) {
      if (before === Infinity) {
        // Roots larger than its new cell asks for hold from the first day.
        const there = Math.max(up, cells[at].from);
        const day = (fill: number) => {
          const limit = clock.at(fill * clock.cellMl);
          return limit <= g ? there : since.dayOf(heat + (limit - g) / rate);
        };
        runs.ready[run] = day(limits.ready);
        runs.bound[run] = day(limits.bound);
      }
      return { at, rootMl, heat };
    }
    heat = since.by(until - 1);
    rootMl = after(heat);
  }
}

/** A move still to come, with the day before it, whose state is kept. */
export function comingMove(facts: LotFacts, asOf: EpochDay): HomeSpell | null {
  const last = homesOf(facts).at(-1)!;
  return last.from > asOf ? last : null;
}
