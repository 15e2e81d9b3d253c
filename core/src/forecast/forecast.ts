import { sampleSize } from '../growth/sample';
import { Unfit } from '../working/unfit';
import { cellMlAt, homeAt, type Home, type HomeSpell } from '../home/home';
import type { EpochDay } from '../calendar/day';
import { bandOf, shareAtOrBelow, type Band } from '../chance/quantile';
import { normalCdf, normalQuantile } from '../chance/normal';
import { nextWinter } from '../calendar/season';
import { meetingHeightCm } from '../growing/canopy';
import { gompertz } from '../growth/gompertz';
import { grownTo, timeToGrow, WHOLE, type Leg } from '../growth/legs';
import { liftingWindow, type LiftingWindow } from '../lifting/liftingWindow';
import { BOUND_FILL, READY_FILL } from '../roots/rootFill';
import type { Outlook } from '../weather/ensemble';
import type { Warmth } from '../weather/sums';
import type { Step } from '../working/working';
import { apartAt, feedRunOut } from './careSeen';
import { explainForecast } from './explain';
import { emergenceOf, type Emergence } from './emergence';
import { growthDraws } from './growthDraws';
import { factsAt, homesOf } from './lotHomes';
import type { LotFacts } from './lotFacts';
import { comingMove, daysToSize, runLot, type Runs } from './runs';

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

/** The course of a lot, for its chart: past from the records' draws, future from all runs. */
export interface LotCourse {
  days: EpochDay[];
  heightCm: Band[];
  fill: Band[];
}

/** A lot's forecast as of a date. Bands of days hold Infinity beyond the horizon. */
export interface LotForecast {
  lotId: string;
  asOf: EpochDay;
  emergence: { seen: EpochDay | null; band: Band };
  ready: Band;
  bound: Band;
  toTarget: Band | null;
  /** Day on which the tallest tenth touch the lid. */
  lid: Band | null;
  /** Day on which neighbours' leaves meet; null where their distance is not known. */
  leavesMeet: Band | null;
  /** Times the room its cells have against packed tight. */
  apart: number;
  /** Day on which the last rated feed has run out; null where none was given. */
  feedOut: Band | null;
  /** End of the season in which it came to where it stands: container lots are shifted by then. */
  shiftDue: EpochDay | null;
  lifting: LiftingWindow;
  state: LotState;
  course: LotCourse | null;
  vigour: { mean: number; startingShare: number };
  heightStartingShare: number;
  weather: { recordedYears: number; generatedYears: number; filledPastDays: number };
  working: Step[];
}

export interface ForecastOptions {
  /** The date looked at, on or after the outlook's date. */
  view: EpochDay;
  draws?: number;
  /** Also lay out the course for a chart, from → to. */
  course?: { from: EpochDay; to: EpochDay };
  /** Also explain. */
  explain?: boolean;
  /** A move that might be made, the day after the outlook's date at the earliest. */
  move?: HomeSpell;
  /** Cells set apart to so many times their room, as they might be. */
  apart?: number;
}

/**
 * Forecast of one lot: every weather year of the outlook times draws from the lot's own posterior.
 * @throws Unfit when the date looked at lies before the outlook's
 */
export function forecastLot(
  facts: LotFacts,
  outlook: Outlook,
  warmth: Warmth,
  options: ForecastOptions,
): LotForecast {
  const { view, draws = 30, course, explain = false } = options;
  if (view < outlook.asOf) throw new Unfit('A forecast looks at its own date or a later one.');
  const seen = {
    ...factsAt(facts, outlook.asOf, options.move ?? null),
    sizes: facts.sizes.filter((s) => s.day <= outlook.asOf),
  };
  const move = comingMove(seen, outlook.asOf);
  const home = homeAt(homesOf(seen), move ? Infinity : outlook.asOf);
  const emergence = emergenceOf(seen, outlook.site.latitudeDeg, warmth, draws);
  const emergenceBand =
    emergence.seen === null
      ? bandOf(Float64Array.from(emergence.days))
      : { p10: emergence.seen, p50: emergence.seen, p90: emergence.seen };
  const g = growthDraws(seen, warmth, emergence.seen ?? emergenceBand.p50, draws);
  const days = keptDays(view, course, move);
  const runs = runLot(seen, warmth, emergence, g, days);
  const viewAt = days.indexOf(view);
  const height: Curve = {
    asymptote: g.heightAsymptote,
    rate: g.heightRate,
    initial: facts.species.seedlingHeightCm,
    legsOf: legsOfRun(g.legs, move && scaled(seen, move.home, g.scaleIn.height), runs, move),
  };
  const diameter: Curve = {
    asymptote: g.diameterAsymptote,
    rate: g.diameterRate,
    initial: facts.species.seedlingDiameterMm,
    legsOf: legsOfRun(g.diameterLegs, move && scaled(seen, move.home, g.scaleIn.diameter), runs, move),
  };
  const heights = days.map((_, at) => sizesAt(runs, at, height));
  const state = stateAt(seen, runs, viewAt, heights[viewAt], diameter, emergence, view);
  const lifting = liftingWindow(facts.species, outlook.site.latitudeDeg, warmth, view, {
    notBefore: Math.min(emergenceBand.p50, view + 400),
    leafFall: facts.leafFallOn !== null && facts.leafFallOn <= outlook.asOf ? facts.leafFallOn : null,
  });
  const warmthFor = (run: number, size: number) => {
    const d = run % runs.draws;
    return timeToGrow(height.asymptote[d], height.initial, height.rate[d], height.legsOf(run), size);
  };
  const sizeDays = (size: number) => {
    // Unless a move is still to come, a draw needs the same warmth whatever the weather year.
    const perDraw = move === null && Float64Array.from({ length: runs.draws }, (_, d) => warmthFor(d, size));
    const needed = perDraw
      ? (run: number) => perDraw[run % runs.draws]
      : (run: number) => warmthFor(run, size);
    return bandOf(daysToSize(needed, runs.draws, emergence, warmth));
  };
  const headroom = home.kind === 'bed' ? home.headroomCm : null;
  const tallest = 1 + normalQuantile(0.9) * plantCv(seen);
  const spells = homesOf(seen);
  const apart = options.apart ?? (move ? 1 : apartAt(seen, outlook.asOf));
  const meets = meetingHeightCm(facts.species, home, apart);
  return {
    lotId: facts.id,
    asOf: outlook.asOf,
    emergence: { seen: emergence.seen, band: emergenceBand },
    ready: bandOf(runs.ready),
    bound: bandOf(runs.bound),
    toTarget: facts.targetHeightCm === null ? null : sizeDays(facts.targetHeightCm),
    lid: headroom === null ? null : sizeDays(headroom / tallest),
    leavesMeet: meets === null ? null : sizeDays(meets),
    apart,
    feedOut: feedRunOut(facts, warmth),
    shiftDue: shiftDueOf(home, spells, emergenceBand.p50, outlook.site.latitudeDeg),
    lifting: lifting.value,
    state,
    course: course
      ? {
          days,
          heightCm: heights.map((h) => bandOf(Float64Array.from(h))),
          fill: runs.rootMl.map((r, at) => {
            const cellMl = cellMlAt(spells, days[at]);
            return bandOf(Float64Array.from(r, (ml) => ml / cellMl));
          }),
        }
      : null,
    vigour: { mean: g.meanVigour, startingShare: g.vigourStartingShare },
    heightStartingShare: g.heightStartingShare,
    weather: {
      recordedYears: outlook.recordedYears,
      generatedYears: outlook.generatedYears,
      filledPastDays: outlook.filledPastDays,
    },
    working: explain
      ? [
          ...explainForecast(seen, outlook, warmth, emergence, g, runs, viewAt, heights[viewAt]),
          ...lifting.working,
        ]
      : [],
  };
}

/** A lot in cells is moved up, or out, once each growing season. */
function shiftDueOf(
  home: Home,
  spells: readonly HomeSpell[],
  up: EpochDay,
  latitudeDeg: number,
): EpochDay | null {
  if (home.kind !== 'container') return null;
  const since = Math.max(up, spells.length > 1 ? spells[spells.length - 1].from : -Infinity);
  return Number.isFinite(since) ? nextWinter(latitudeDeg, since) : null;
}

/** Days at which state is kept: the date looked at, and each week of a course. */
function keptDays(
  view: EpochDay,
  course: { from: EpochDay; to: EpochDay } | undefined,
  move: HomeSpell | null,
): EpochDay[] {
  const days = new Set([view]);
  if (move) days.add(move.from - 1);
  if (course) for (let day = course.from; day <= course.to; day += 7) days.add(day);
  return [...days].sort((a, b) => a - b);
}

/** A size by run: draws of its curve, and the legs each run goes through. */
interface Curve {
  asymptote: Float64Array;
  rate: Float64Array;
  initial: number;
  legsOf: (run: number) => readonly Leg[];
}

/** A home's factor on an asymptote against the present home's. */
const scaled = (facts: LotFacts, home: Home, scaleIn: (home: Home) => number): number =>
  scaleIn(home) / scaleIn(facts.home);

const neverMoved = (): readonly Leg[] => WHOLE;

/** Past legs are the same in every run; a move to come falls on each run's own warmth. */
function legsOfRun(
  past: readonly Leg[],
  scale: number | null,
  runs: Runs,
  move: HomeSpell | null,
): (run: number) => readonly Leg[] {
  if (scale === null || move === null) return past.length === 1 ? neverMoved : () => past;
  const thermal = runs.thermal[runs.keptDays.indexOf(move.from - 1)];
  return (run) => [...past, { from: thermal[run % thermal.length], scale }];
}

function sizesAt(runs: Runs, at: number, curve: Curve): Float64Array {
  if (curve.legsOf === neverMoved) {
    const { asymptote, rate, initial } = curve;
    return runs.thermal[at].map((tau, i) =>
      gompertz(asymptote[i % runs.draws], initial, rate[i % runs.draws], tau),
    );
  }
  return runs.thermal[at].map((tau, i) => {
    const d = i % runs.draws;
    return grownTo(curve.asymptote[d], curve.initial, curve.rate[d], curve.legsOf(i), tau);
  });
}

function stateAt(
  facts: LotFacts,
  runs: Runs,
  at: number,
  heights: Float64Array,
  diameter: Curve,
  emergence: Emergence,
  view: EpochDay,
): LotState {
  const cellMl = cellMlAt(homesOf(facts), view);
  // A day on which all years are the same lists the draws of a lot seen up.
  const up = heights.map((_, i) => (emergence.days[i] <= view ? 1 : 0));
  const shown = heights.map((h, i) => h * up[i]);
  const fill = runs.rootMl[at].map((ml, i) => (ml / cellMl) * up[i]);
  const diameters = sizesAt(runs, at, diameter).map((x, i) => x * up[i]);
  const cv = plantCv(facts);
  const target = facts.targetHeightCm;
  let toSize = 0;
  if (target !== null) {
    for (const h of shown) if (h > 0) toSize += (1 - normalCdf((target - h) / (cv * h))) / shown.length;
  }
  const fillBand = bandOf(fill);
  return {
    day: view,
    heightCm: bandOf(shown),
    diameterMm: bandOf(diameters),
    fill: fillBand,
    chanceReady: 1 - shareAtOrBelow(fill, READY_FILL - 1e-12),
    chanceBound: 1 - shareAtOrBelow(fill, BOUND_FILL - 1e-12),
    shareToSize: target === null ? null : toSize,
  };
}

/** A mean is known well enough once it is known to a tenth of itself, nine times in ten. */
export const MEASURE_MARGIN = 0.1;

/** Plants to measure of a lot, so that their mean is known to `MEASURE_MARGIN`: never more than stand. */
export const plantsToMeasure = (facts: LotFacts, standing: number): number =>
  Math.min(standing, sampleSize(plantCv(facts), MEASURE_MARGIN));

/** Spread between plants: the latest sample of six or more, else the species' starting value. */
export function plantCv(facts: LotFacts): number {
  const samples = facts.sizes
    .filter((s) => s.what === 'height' && s.n >= 6 && s.sd > 0)
    .sort((a, b) => a.day - b.day);
  const last = samples[samples.length - 1];
  return last ? last.sd / last.mean : facts.species.plantCv;
}
