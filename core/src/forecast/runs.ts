import type { EpochDay } from '../calendar/day';
import { gompertzTime } from '../growth/gompertz';
import { BOUND_FILL, FULLEST_FILL, READY_FILL } from '../roots/rootFill';
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
export function runLot(facts: LotFacts, warmth: Warmth, emergence: Emergence, g: GrowthDraws, keptDays: EpochDay[]): Runs {
  const draws = g.vigour.length;
  const years = warmth.years.length;
  const count = years * draws;
  const { rootInitialMl, rootRatePerDd, rootLinearAtMl } = facts.species;
  const cellMl = cellMlOf(facts.home);
  const readyMl = READY_FILL * cellMl;
  const boundMl = BOUND_FILL * cellMl;
  const perRoom = 1 / (FULLEST_FILL * cellMl);
  const runs: Runs = {
    count,
    draws,
    ready: new Float64Array(count).fill(Infinity),
    bound: new Float64Array(count).fill(Infinity),
    keptDays,
    rootMl: keptDays.map(() => new Float64Array(count)),
    thermal: keptDays.map(() => new Float64Array(count)),
  };
  const root = new Float64Array(count).fill(rootInitialMl);
  const heat = new Float64Array(count);
  const rate = new Float64Array(count);
  const next = new Float64Array(count).fill(readyMl);
  for (let i = 0; i < count; i++) rate[i] = rootRatePerDd * rootLinearAtMl * g.vigour[i % draws];

  const keep = (day: EpochDay, members: number) => {
    const at = keptDays.indexOf(day);
    if (at < 0) return;
    for (let i = 0; i < count; i++) {
      runs.rootMl[at][i] = root[i % members];
      runs.thermal[at][i] = heat[i % members];
    }
  };
  const crossed = (i: number, day: EpochDay) => {
    if (runs.ready[i] === Infinity) {
      runs.ready[i] = day;
      next[i] = boundMl;
    }
    if (root[i] >= boundMl) {
      runs.bound[i] = day;
      next[i] = Infinity;
    }
  };

  // The past is the same in every weather year: run the first year's draws, then copy.
  const firstUp = emergence.days.reduce((a, b) => Math.min(a, b), Infinity);
  for (const day of keptDays) if (day < firstUp) keep(day, count);
  for (let day = Math.max(firstUp, warmth.pastStart); day <= warmth.asOf; day++) {
    const dd = warmth.past[day - warmth.pastStart];
    for (let i = 0; i < draws; i++) {
      if (day < emergence.days[i]) continue;
      const r = root[i];
      const room = 1 - r * perRoom;
      if (room > 0) root[i] = r + (rate[i] * dd * r * room) / (rootLinearAtMl + r);
      heat[i] += dd;
      if (root[i] >= next[i]) crossed(i, day);
    }
    keep(day, draws);
  }
  for (let i = draws; i < count; i++) {
    const d = i % draws;
    root[i] = root[d];
    heat[i] = heat[d];
    next[i] = next[d];
    runs.ready[i] = runs.ready[d];
    runs.bound[i] = runs.bound[d];
  }

  const horizon = warmth.years[0]?.length ?? 0;
  const lastKept = keptDays.length ? keptDays[keptDays.length - 1] : -Infinity;
  const allUp = emergence.days.every((day) => day <= warmth.asOf);
  for (let t = 0; t < horizon; t++) {
    const day = warmth.asOf + 1 + t;
    for (let year = 0; year < years; year++) {
      const dd = warmth.years[year][t];
      const first = year * draws;
      for (let i = first; i < first + draws; i++) {
        if (!allUp && day < emergence.days[i]) continue;
        heat[i] += dd;
        const r = root[i];
        const room = 1 - r * perRoom;
        if (room <= 0) continue;
        const grown = r + (rate[i] * dd * r * room) / (rootLinearAtMl + r);
        root[i] = grown;
        if (grown >= next[i]) crossed(i, day);
      }
    }
    if (day <= lastKept) keep(day, count);
  }
  return runs;
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
  for (let year = 0; year < warmth.years.length; year++) {
    const ahead = warmth.years[year];
    for (let d = 0; d < draws; d++) {
      const i = year * draws + d;
      const up = emergence.days[i];
      let left = gompertzTime(asymptote[d], initial, rate[d], size);
      if (left === Infinity || up === Infinity) continue;
      let day = Math.max(up, warmth.pastStart);
      for (; day <= warmth.asOf && left > 0; day++) left -= warmth.past[day - warmth.pastStart];
      for (; day > warmth.asOf && day - warmth.asOf - 1 < ahead.length && left > 0; day++) left -= ahead[day - warmth.asOf - 1];
      if (left <= 0) out[i] = day - 1;
    }
  }
  return out;
}
