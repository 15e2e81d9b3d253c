import type { EpochDay } from '../calendar/day';
import { gompertzTime } from '../growth/gompertz';
import { BOUND_FILL, FULLEST_FILL, READY_FILL, rootStep } from '../roots/rootFill';
import type { Warmth } from '../weather/sums';
import type { Emergence } from './emergence';
import type { GrowthDraws } from './growthDraws';
import { cellMlOf, type LotFacts } from './lotFacts';

/**
 * Every way a lot may go: one run for each weather year and draw, index year·draws + draw. Days are
 * Infinity where a run does not get there within the horizon.
 */
export interface Runs {
  count: number;
  draws: number;
  ready: Float64Array;
  bound: Float64Array;
  /** Days kept, ascending; root volume (mL) and thermal time since emergence by kept day, then run. */
  keptDays: EpochDay[];
  rootMl: Float64Array[];
  thermal: Float64Array[];
}

/**
 * Runs root fill day by day and adds up warmth since emergence: the past once per draw, what is ahead
 * once per weather year and draw.
 * @param keptDays days at which the state is kept, ascending
 */
export function runLot(
  facts: LotFacts,
  warmth: Warmth,
  emergence: Emergence,
  g: GrowthDraws,
  keptDays: EpochDay[],
): Runs {
  const draws = g.vigour.length;
  const years = warmth.years.length;
  const count = years * draws;
  const runs: Runs = {
    count,
    draws,
    ready: new Float64Array(count).fill(Infinity),
    bound: new Float64Array(count).fill(Infinity),
    keptDays,
    rootMl: keptDays.map(() => new Float64Array(count)),
    thermal: keptDays.map(() => new Float64Array(count)),
  };
  const past = runPast(facts, warmth, emergence, g, runs);
  for (let year = 0; year < years; year++) runYear(facts, warmth, emergence, g, runs, past, year);
  return runs;
}

/** State of each draw at the end of the past, and the fill it crosses next, mL. */
interface PastEnd {
  rootMl: Float64Array;
  thermal: Float64Array;
}

/** The past is the same in every weather year: it is run once per draw and copied to all years. */
function runPast(facts: LotFacts, warmth: Warmth, emergence: Emergence, g: GrowthDraws, runs: Runs): PastEnd {
  const { draws, count, keptDays } = runs;
  const { rootInitialMl, rootRatePerDd, rootLinearAtMl } = facts.species;
  const cellMl = cellMlOf(facts.home);
  const rootMl = new Float64Array(draws).fill(rootInitialMl);
  const thermal = new Float64Array(draws);
  let kept = 0;
  const keepUpTo = (day: EpochDay) => {
    for (; kept < keptDays.length && keptDays[kept] <= day && keptDays[kept] <= warmth.asOf; kept++) {
      for (let i = 0; i < count; i++) {
        runs.rootMl[kept][i] = rootMl[i % draws];
        runs.thermal[kept][i] = thermal[i % draws];
      }
    }
  };
  const firstUp = emergence.days.reduce((a, b) => Math.min(a, b), Infinity);
  const start = Math.max(firstUp, warmth.pastStart);
  keepUpTo(Math.min(start - 1, warmth.asOf));
  for (let day = start; day <= warmth.asOf; day++) {
    const dd = warmth.past[day - warmth.pastStart];
    for (let d = 0; d < draws; d++) {
      if (day < emergence.days[d]) continue;
      thermal[d] += dd;
      const grown = rootMl[d] + rootStep(rootMl[d], rootRatePerDd * g.vigour[d] * dd, rootLinearAtMl, cellMl);
      rootMl[d] = grown;
      if (grown >= READY_FILL * cellMl && runs.ready[d] === Infinity) runs.ready[d] = day;
      if (grown >= BOUND_FILL * cellMl && runs.bound[d] === Infinity) runs.bound[d] = day;
    }
    keepUpTo(day);
  }
  keepUpTo(warmth.asOf);
  for (let i = draws; i < count; i++) {
    runs.ready[i] = runs.ready[i % draws];
    runs.bound[i] = runs.bound[i % draws];
  }
  return { rootMl, thermal };
}

/**
 * One weather year ahead, all draws. The hot loop of Kauri: the recursion of {@link rootStep} with its
 * divisions drawn together, one crossing to watch for at a time, nothing allocated.
 */
function runYear(
  facts: LotFacts,
  warmth: Warmth,
  emergence: Emergence,
  g: GrowthDraws,
  runs: Runs,
  past: PastEnd,
  year: number,
): void {
  const { draws, keptDays } = runs;
  const { rootRatePerDd, rootLinearAtMl: linear } = facts.species;
  const cellMl = cellMlOf(facts.home);
  const boundMl = BOUND_FILL * cellMl;
  const perRoom = 1 / (FULLEST_FILL * cellMl);
  const first = year * draws;
  const days = warmth.years[year];
  const root = past.rootMl.slice();
  const rate = new Float64Array(draws);
  const next = new Float64Array(draws);
  const startsAt = new Float64Array(draws);
  let lastStart = -1;
  for (let d = 0; d < draws; d++) {
    rate[d] = rootRatePerDd * linear * g.vigour[d];
    next[d] =
      runs.bound[first + d] < Infinity
        ? Infinity
        : runs.ready[first + d] < Infinity
          ? boundMl
          : READY_FILL * cellMl;
    startsAt[d] = Math.max(0, emergence.days[first + d] - warmth.asOf - 1);
    lastStart = Math.max(lastStart, startsAt[d]);
  }
  let kept = keptDays.findIndex((day) => day > warmth.asOf);
  if (kept < 0) kept = keptDays.length;
  let keepAt = kept < keptDays.length ? keptDays[kept] - warmth.asOf - 1 : -1;
  const heat = cumulated(days);

  let toCross = 0;
  for (let d = 0; d < draws; d++) if (next[d] < Infinity) toCross++;

  for (let t = 0; t < days.length; t++) {
    if (toCross === 0 && keepAt < t) break;
    const dd = days[t];
    // A day too cold to grow leaves every root as it was.
    for (let d = dd > 0 ? 0 : draws; d < draws; d++) {
      if (t < lastStart && t < startsAt[d]) continue;
      const r = root[d];
      const room = 1 - r * perRoom;
      if (room <= 0) continue;
      const grown = r + (rate[d] * dd * r * room) / (linear + r);
      root[d] = grown;
      if (grown >= next[d]) {
        const day = warmth.asOf + 1 + t;
        if (next[d] < boundMl) runs.ready[first + d] = day;
        if (grown >= boundMl) runs.bound[first + d] = day;
        next[d] = grown >= boundMl ? Infinity : boundMl;
        if (grown >= boundMl) toCross--;
      }
    }
    if (t !== keepAt) continue;
    for (let d = 0; d < draws; d++) {
      runs.rootMl[kept][first + d] = root[d];
      const before = startsAt[d] > t ? heat[t + 1] : heat[Math.min(startsAt[d], days.length)];
      runs.thermal[kept][first + d] = past.thermal[d] + heat[t + 1] - before;
    }
    kept++;
    keepAt = kept < keptDays.length ? keptDays[kept] - warmth.asOf - 1 : -1;
  }
}

/**
 * Day each run's plants reach a size, from the thermal time the curve needs.
 * @param size in the unit of the asymptotes
 */
export function daysToSize(
  size: number,
  asymptote: Float64Array,
  rate: Float64Array,
  initial: number,
  emergence: Emergence,
  warmth: Warmth,
): Float64Array {
  const draws = asymptote.length;
  const out = new Float64Array(emergence.days.length).fill(Infinity);
  const past = cumulated(warmth.past);
  for (let year = 0; year < warmth.years.length; year++) {
    const ahead = cumulated(warmth.years[year]);
    for (let d = 0; d < draws; d++) {
      const i = year * draws + d;
      const up = emergence.days[i];
      const needed = gompertzTime(asymptote[d], initial, rate[d], size);
      if (needed === Infinity || up === Infinity) continue;
      if (up > warmth.asOf) {
        const start = up - warmth.asOf - 1;
        out[i] = warmth.asOf + 1 + firstAtLeast(ahead, ahead[Math.min(start, ahead.length - 1)] + needed) - 1;
        continue;
      }
      const start = Math.max(0, up - warmth.pastStart);
      const soFar = past[past.length - 1] - past[start];
      out[i] =
        soFar >= needed
          ? warmth.pastStart + firstAtLeast(past, past[start] + needed) - 1
          : warmth.asOf + firstAtLeast(ahead, needed - soFar);
    }
  }
  return out;
}

/** Sums up to and including each day, from 0: index t holds the warmth of the first t days. */
function cumulated(days: Float64Array): Float64Array {
  const sums = new Float64Array(days.length + 1);
  for (let t = 0; t < days.length; t++) sums[t + 1] = sums[t] + days[t];
  return sums;
}

/** First index of an ascending array that is at least a value; Infinity if none is. */
function firstAtLeast(sums: Float64Array, value: number): number {
  let low = 0;
  let high = sums.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (sums[mid] < value) low = mid + 1;
    else high = mid;
  }
  return low < sums.length ? low : Infinity;
}
