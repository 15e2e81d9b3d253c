import { firstAtLeast } from '../chance/quantile';
import { cellMlAt, cellMlOf, type HomeSpell } from '../home/home';
import type { EpochDay } from '../calendar/day';
import { BOUND_FILL, FULLEST_FILL, READY_FILL, rootStep } from '../roots/rootFill';
import type { Warmth } from '../weather/sums';
import type { Emergence } from './emergence';
import type { GrowthDraws } from './growthDraws';
import { homesOf } from './lotHomes';
import { type LotFacts } from './lotFacts';

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
 * @param keptDays days at which the state is kept, ascending; the day before a coming move must be among them
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
  const spells = homesOf(facts);
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
  let cellMl = cellMlAt(spells, start);
  const moves = spells.filter((spell, i) => i > 0 && spell.from > start && spell.from <= warmth.asOf);
  for (let day = start; day <= warmth.asOf; day++) {
    if (moves.length && moves[0].from <= day) {
      cellMl = cellMlOf(moves.shift()!.home);
      startAnew(runs, 0, draws);
    }
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

/** In a new home a plug has to fill again: what was reached in the old one no longer counts. */
function startAnew(runs: Runs, from: number, to: number): void {
  runs.ready.fill(Infinity, from, to);
  runs.bound.fill(Infinity, from, to);
}

/** A move still to come, with the day before it, whose state is kept. */
export function comingMove(facts: LotFacts, asOf: EpochDay): HomeSpell | null {
  const last = homesOf(facts).at(-1)!;
  return last.from > asOf ? last : null;
}

/**
 * One weather year ahead, all draws. The hot loop of Kauri: the recursion of {@link rootStep}, four draws
 * side by side, since each day's division waits for the day before but not for the other draws.
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
  const first = year * draws;
  const { rootRatePerDd, rootLinearAtMl } = facts.species;
  const move = comingMove(facts, warmth.asOf);
  // A move on the very next day is made before anything grows.
  const atOnce = move !== null && move.from === warmth.asOf + 1;
  const before = atOnce ? cellMlOf(move.home) : cellMlAt(homesOf(facts), warmth.asOf);
  if (atOnce) startAnew(runs, first, first + draws);
  let cellMl = before;
  const days = warmth.years[year];
  const keptFrom = keptDays.findIndex((day) => day > warmth.asOf);
  const kept = keptFrom < 0 ? [] : keptDays.slice(keptFrom);
  // Each stretch ends on a day whose state is kept; the last runs to the horizon.
  const ends = [...kept.map((day) => Math.min(days.length, day - warmth.asOf)), days.length];
  const started = (d: number) =>
    Math.min(days.length, Math.max(0, emergence.days[first + d] - warmth.asOf - 1));
  const four: Four = {
    days,
    linear: rootLinearAtMl,
    perRoom: 1 / (FULLEST_FILL * cellMl),
    root: new Float64Array(4),
    rate: new Float64Array(4),
    next: new Float64Array(4),
    start: new Int32Array(4),
    cross: () => undefined,
  };
  for (let d0 = 0; d0 < draws; d0 += 4) {
    cellMl = before;
    four.perRoom = 1 / (FULLEST_FILL * cellMl);
    for (let lane = 0; lane < 4; lane++) {
      // Lanes beyond the last draw run idle: no rate, nothing to cross.
      const d = d0 + lane;
      const idle = d >= draws;
      four.root[lane] = idle ? 0 : past.rootMl[d];
      four.rate[lane] = idle ? 0 : rootRatePerDd * rootLinearAtMl * g.vigour[d];
      four.start[lane] = idle ? 0 : started(d);
      four.next[lane] = idle ? Infinity : nextFill(runs, first + d, cellMl);
    }
    four.cross = (lane, day, grown) => {
      const run = first + d0 + lane;
      if (runs.ready[run] === Infinity) runs.ready[run] = warmth.asOf + 1 + day;
      if (grown >= BOUND_FILL * cellMl) runs.bound[run] = warmth.asOf + 1 + day;
      four.next[lane] = nextFill(runs, run, cellMl);
    };
    let from = 0;
    for (let stretch = 0; stretch < ends.length; stretch++) {
      const last = stretch === kept.length;
      if (last && four.next.every((fill) => fill === Infinity)) break;
      runFour(four, from, ends[stretch], last);
      from = ends[stretch];
      if (last) break;
      const moving = move !== null && kept[stretch] === move.from - 1;
      if (moving) {
        cellMl = cellMlOf(move.home);
        four.perRoom = 1 / (FULLEST_FILL * cellMl);
      }
      for (let lane = 0; lane < 4 && d0 + lane < draws; lane++) {
        const run = first + d0 + lane;
        runs.rootMl[keptFrom + stretch][run] = four.root[lane];
        if (!moving) continue;
        startAnew(runs, run, run + 1);
        four.next[lane] = nextFill(runs, run, cellMl);
      }
    }
  }
  keepThermal(runs, past, warmth.sums.years[year], kept, keptFrom, first, warmth.asOf, started);
}

/** The fill a run has to watch for next, mL; Infinity when it has passed both. */
function nextFill(runs: Runs, run: number, cellMl: number): number {
  if (runs.bound[run] < Infinity) return Infinity;
  return (runs.ready[run] < Infinity ? BOUND_FILL : READY_FILL) * cellMl;
}

/** Warmth since emergence on the days kept. */
function keepThermal(
  runs: Runs,
  past: PastEnd,
  heat: Float64Array,
  kept: EpochDay[],
  keptFrom: number,
  first: number,
  asOf: EpochDay,
  started: (d: number) => number,
): void {
  if (kept.length === 0) return;
  for (let d = 0; d < runs.draws; d++) {
    const start = started(d);
    kept.forEach((day, i) => {
      const end = Math.min(heat.length - 1, day - asOf);
      runs.thermal[keptFrom + i][first + d] = past.thermal[d] + (end > start ? heat[end] - heat[start] : 0);
    });
  }
}

/** Four draws on their way: their roots, rates, the fills they watch for, the days they come up. */
interface Four {
  days: Float64Array;
  linear: number;
  perRoom: number;
  root: Float64Array;
  rate: Float64Array;
  next: Float64Array;
  start: Int32Array;
  /** Notes a crossing and sets the fill to watch for after it. */
  cross: (lane: number, day: number, grown: number) => void;
}

/** Grows four draws from one day up to, but without, another; may stop early once nothing is left to watch for. */
function runFour(four: Four, from: number, to: number, mayStop: boolean): void {
  const { days, linear, perRoom, root, rate, next, start, cross } = four;
  // Draws that come up on different days go alone until all four are up.
  const together = Math.min(to, Math.max(from, start[0], start[1], start[2], start[3]));
  for (let lane = 0; lane < 4; lane++) {
    let r = root[lane];
    for (let t = Math.max(from, start[lane]); t < together; t++) {
      r += (rate[lane] * days[t] * r * Math.max(0, 1 - r * perRoom)) / (linear + r);
      if (r >= next[lane]) cross(lane, t, r);
    }
    root[lane] = r;
  }
  // Read by index, one by one: so they stay plain numbers in registers for the whole loop.
  let r0 = root[0];
  let r1 = root[1];
  let r2 = root[2];
  let r3 = root[3];
  const k0 = rate[0];
  const k1 = rate[1];
  const k2 = rate[2];
  const k3 = rate[3];
  let n0 = next[0];
  let n1 = next[1];
  let n2 = next[2];
  let n3 = next[3];
  for (let t = together; t < to; t++) {
    const dd = days[t];
    // A day too cold to grow leaves every root as it was.
    if (dd === 0) continue;
    r0 += (k0 * dd * r0 * Math.max(0, 1 - r0 * perRoom)) / (linear + r0);
    r1 += (k1 * dd * r1 * Math.max(0, 1 - r1 * perRoom)) / (linear + r1);
    r2 += (k2 * dd * r2 * Math.max(0, 1 - r2 * perRoom)) / (linear + r2);
    r3 += (k3 * dd * r3 * Math.max(0, 1 - r3 * perRoom)) / (linear + r3);
    if (r0 < n0 && r1 < n1 && r2 < n2 && r3 < n3) continue;
    if (r0 >= n0) cross(0, t, r0);
    if (r1 >= n1) cross(1, t, r1);
    if (r2 >= n2) cross(2, t, r2);
    if (r3 >= n3) cross(3, t, r3);
    n0 = next[0];
    n1 = next[1];
    n2 = next[2];
    n3 = next[3];
    if (mayStop && n0 === Infinity && n1 === Infinity && n2 === Infinity && n3 === Infinity) break;
  }
  root[0] = r0;
  root[1] = r1;
  root[2] = r2;
  root[3] = r3;
}

/**
 * Day each run's plants reach a size, from the thermal time the curve needs.
 * @param thermalNeeded warmth since emergence at which a run has that size, °C·d
 */
export function daysToSize(
  thermalNeeded: (run: number) => number,
  draws: number,
  emergence: Emergence,
  warmth: Warmth,
): Float64Array {
  const out = new Float64Array(emergence.days.length).fill(Infinity);
  const { past } = warmth.sums;
  for (let year = 0; year < warmth.years.length; year++) {
    const ahead = warmth.sums.years[year];
    for (let d = 0; d < draws; d++) {
      const i = year * draws + d;
      const up = emergence.days[i];
      const needed = thermalNeeded(i);
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
