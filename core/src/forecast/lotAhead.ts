import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { cellMlAt, type HomeSpell } from '../home/home';
import type { EpochDay } from '../calendar/day';
import { bandOf, shareAtOrBelow, type Band } from '../chance/quantile';
import { normalCdf } from '../chance/normal';
import { pooledCv } from '../growth/sizeBelief';
import { BOUND_FILL, FULLEST_FILL, READY_FILL } from '../roots/rootFill';
import type { Outlook } from '../weather/ensemble';
import { warmthFor, type Warmth } from '../weather/sums';
import { emergenceOf, type Emergence } from './emergence';
import { lotDraws, type LotDraws } from './lotDraws';
import type { LotFacts } from './lotFacts';
import { factsAt, homesOf } from './lotHomes';
import { runLot, type Runs } from './runs';
import type { SizeRuns } from './sizeRuns';

/** A lot run ahead: what is known of it, and every weather year times every draw, from which forecasts are read off. */
export interface LotAhead {
  /** The lot as known on the outlook's date. */
  seen: LotFacts;
  warmth: Warmth;
  emergence: Emergence;
  /** Days on which it comes up, or came up. */
  upBand: Band;
  g: LotDraws;
  runs: Runs;
  /** Days kept, where the date looked at is among them, and mean heights on each, run by run. */
  days: EpochDay[];
  viewAt: number;
  heights: Float64Array[];
  /** Sizes on a day of the first so many runs. */
  sizesOn: (sizes: SizeRuns, day: EpochDay, members: number) => Float64Array;
}

/** Draws of a lot’s own values for each weather year. */
export const DRAWS = 24;

/**
 * Runs a lot ahead from what was known of it on the outlook's date.
 * @param view the date looked at
 * @param course also keeps each week of a stretch of days
 * @param planned homes it has after the outlook's date are what is planned for it, not what was not known yet
 * @throws Unfit when the date looked at lies before the outlook's
 */
export function runAhead(
  facts: LotFacts,
  outlook: Outlook,
  usual: Warmth,
  view: EpochDay,
  {
    draws = DRAWS,
    course,
    move = null,
    planned = false,
  }: {
    draws?: number;
    course?: { from: EpochDay; to: EpochDay };
    move?: HomeSpell | null;
    planned?: boolean;
  } = {},
): LotAhead {
  if (view < outlook.asOf) throw new Unfit(say`A forecast looks at its own date or a later one.`);
  const warmth = warmthFor(facts.species, outlook, usual);
  const seen = {
    ...(planned ? facts : factsAt(facts, outlook.asOf, move)),
    sizes: facts.sizes.filter((s) => s.day <= outlook.asOf),
  };
  const emergence = emergenceOf(seen, warmth, draws);
  const { seen: up } = emergence;
  const upBand = up === null ? bandOf(Float64Array.from(emergence.days)) : { p10: up, p50: up, p90: up };
  const g = lotDraws(seen, outlook.site.latitudeDeg, warmth, up ?? upBand.p50, draws);
  const days = keptDays(view, course);
  const runs = runLot(seen, warmth, emergence, g, days);
  const sizesOn = (sizes: SizeRuns, day: EpochDay, members: number): Float64Array =>
    Float64Array.from({ length: members }, (_, run) => {
      const up = emergence.days[run];
      if (up === Infinity) return 0;
      const year = Math.floor(run / draws);
      return sizes.sizeAt(g.plantIn(year, up), year, run % draws, day);
    });
  const heights = days.map((day, at) => sizesOn(g.heights, day, runs.rootMl[at].length));
  return { seen, warmth, emergence, upBand, g, runs, days, viewAt: days.indexOf(view), heights, sizesOn };
}

/** Days at which state is kept: the date looked at, and each week of a course. */
function keptDays(view: EpochDay, course: { from: EpochDay; to: EpochDay } | undefined): EpochDay[] {
  const days = new Set([view]);
  if (course) for (let day = course.from; day <= course.to; day += 7) days.add(day);
  return [...days].sort((a, b) => a - b);
}

/** What a lot is like on the date looked at. */
export interface LotState {
  day: EpochDay;
  heightCm: Band;
  diameterMm: Band;
  fill: Band;
  /** Share of runs whose plug holds, and that are root-bound, by then. */
  chanceReady: number;
  chanceBound: number;
  /** Share of plants at or above the target height; null without a target. */
  shareToSize: number | null;
}

/** Reads the state on the date looked at off a lot run ahead. */
export function stateOf(
  { seen: facts, runs, g, emergence, viewAt: at, heights, sizesOn }: LotAhead,
  view: EpochDay,
): LotState {
  const cellMl = cellMlAt(homesOf(facts), view);
  // A day on which all years are the same lists the draws of a lot seen up.
  const fill = runs.rootMl[at].map((ml, i) =>
    emergence.days[i] <= view ? shownFill(ml / cellMl, g.dayLuck[i % runs.draws]) : 0,
  );
  const cv = plantCv(facts);
  const target = facts.targetHeightCm;
  const fillBand = bandOf(fill);
  return {
    day: view,
    heightCm: bandOf(Float64Array.from(heights[at])),
    diameterMm: bandOf(sizesOn(g.diameters, view, heights[at].length)),
    fill: fillBand,
    chanceReady: 1 - shareAtOrBelow(fill, READY_FILL - 1e-12),
    chanceBound: 1 - shareAtOrBelow(fill, BOUND_FILL - 1e-12),
    shareToSize: target === null ? null : shareTo(target, heights[at], cv),
  };
}

/** What a lot will be like on a day, and nothing else of it: what past forecasts are held against. */
export function stateOn(facts: LotFacts, outlook: Outlook, usual: Warmth, view: EpochDay): LotState {
  return stateOf(runAhead(facts, outlook, usual, view), view);
}

/** Warmth from coming up to the first true leaves, °C·d; a rule of thumb. */
export const TRUE_LEAVES_DD = 130;

/** Days by which so much warmth has come since a plant came up. */
export function daysAfterUp({ g, runs: { count, draws }, emergence }: LotAhead, warmthDd: number): Band {
  return bandOf(
    Float64Array.from({ length: count }, (_, run) => {
      const up = emergence.days[run];
      if (up === Infinity) return Infinity;
      const { warmth } = g.plantIn(Math.floor(run / draws), up);
      return warmth.dayOf(warmth.by(up - 1) + warmthDd);
    }),
  );
}

/**
 * Days on which mean heights are reached, run by run, in the order asked; Infinity where a run does not get there.
 * @param heights cm; null where none is asked
 */
export function daysOfHeights(
  { g, runs: { count, draws }, emergence }: LotAhead,
  { asOf, horizonDays }: Outlook,
  heights: readonly (number | null)[],
): (Float64Array | null)[] {
  const asked = heights.flatMap((cm, i) => (cm === null ? [] : [{ cm, i }])).sort((a, b) => a.cm - b.cm);
  const wanted = asked.map(({ cm }) => cm);
  const days = asked.map(() => new Float64Array(count).fill(Infinity));
  const horizon = asOf + horizonDays;
  for (let year = 0; year < count / draws; year++) {
    if (emergence.seen !== null) {
      g.heights.daysOfSizes(g.plantIn(year, emergence.seen), year, [0, draws], wanted, horizon, days);
      continue;
    }
    for (let d = 0; d < draws; d++) {
      const up = emergence.days[year * draws + d];
      if (up !== Infinity)
        g.heights.daysOfSizes(g.plantIn(year, up), year, [d, d + 1], wanted, horizon, days);
    }
  }
  const reached: (Float64Array | null)[] = heights.map(() => null);
  asked.forEach(({ i }, k) => (reached[i] = days[k]));
  return reached;
}

/** Share of plants between two heights, run by run of their mean; none where none is up. */
export function sharesWithin(
  { fromCm, toCm }: { fromCm: number | null; toCm: number | null },
  heights: Float64Array,
  cv: number,
): Float64Array {
  const below = (cm: number, mean: number) => normalCdf((cm - mean) / (cv * mean));
  return heights.map((mean) =>
    mean > 0 ? (toCm === null ? 1 : below(toCm, mean)) - (fromCm === null ? 0 : below(fromCm, mean)) : 0,
  );
}

/** Share of plants at or above a height, over runs of their mean. */
export function shareTo(target: number, heights: Float64Array, cv: number): number {
  let share = 0;
  for (const h of heights) if (h > 0) share += (1 - normalCdf((target - h) / (cv * h))) / heights.length;
  return share;
}

/** Fill as a day's plugs would show it. */
export const shownFill = (fill: number, luck: number): number => Math.min(FULLEST_FILL, fill * luck);

/** Spread between plants over their mean, from the lot's samples and the species' own. */
export const plantCv = (facts: LotFacts): number =>
  pooledCv(
    facts.sizes.filter((s) => s.what === 'height'),
    facts.species.plantCv,
  );
