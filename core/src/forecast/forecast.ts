import { sampleSize } from '../growth/sample';
import { cellMlAt, homeAt, type Home, type HomeSpell } from '../home/home';
import type { EpochDay } from '../calendar/day';
import { bandOf, type Band } from '../chance/quantile';
import { normalQuantile } from '../chance/normal';
import { autumnStart, nextWinter } from '../calendar/season';
import { meetingHeightCm } from '../growing/canopy';
import { lastDays, rootStress, type RootStress } from '../growing/rootStress';
import { liftingWindow, type LiftingWindow } from '../lifting/liftingWindow';
import type { Outlook } from '../weather/ensemble';
import { growsOn } from '../weather/growingPeriods';
import type { Warmth } from '../weather/sums';
import type { Step } from '../working/working';
import { apartAt, feedRunOut } from './careSeen';
import { explainForecast } from './explain';
import type { Emergence } from './emergence';
import type { LotDraws } from './lotDraws';
import {
  DRAWS,
  daysAfterUp,
  daysOfHeights,
  TRUE_LEAVES_DD,
  sharesWithin,
  plantCv,
  runAhead,
  shareTo,
  shownFill,
  stateOf,
  type LotAhead,
  type LotState,
} from './lotAhead';
import { homesOf } from './lotHomes';
import type { HeightLoss, LotFacts } from './lotFacts';
import { comingMove } from './runs';

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
  /** `usual` is what lots of its kind do, before counts of none were taken in. */
  emergence: { seen: EpochDay | null; band: Band; usual: Band };
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
  /** Whether shoots grow on the date looked at, in half of the weather years or more. */
  growing: boolean;
  /** Whether it rests in winter where it stands; what never rests has no lifting window by chill. */
  rests: boolean;
  /** Close of the last winter's window that it stood through; null where it missed none. */
  missedLift: EpochDay | null;
  /** When seedlings in an open flat are pricked out: first true leaves, and roots meeting; null elsewhere. */
  prick: { from: Band; by: Band } | null;
  /** Frost or heat at its roots on the outlook's date; null on other dates, and where there is none. */
  rootStress: RootStress | null;
  /** The last loss of height since heights were last measured. */
  lostHeight: HeightLoss | null;
  /** Size at the end of this season and of the next ones, with heights now run by run; null unless asked for. */
  seasonEnds: { now: Float64Array; ends: SeasonEnd[]; cv: number } | null;
  /** Share of its plants within the sizes asked about on the date looked at; null unless asked. */
  inSize: Band | null;
  state: LotState;
  course: LotCourse | null;
  vigour: { mean: number; startingShare: number };
  heightStartingShare: number;
  weather: { recordedYears: number; generatedYears: number; filledPastDays: number };
  working: Step[];
}

/** A lot's size once a season's growth is over. */
export interface SeasonEnd {
  on: EpochDay;
  heightCm: Band;
  diameterMm: Band;
  /** Share of plants at or above the target height; null without a target. */
  shareToSize: number | null;
  /** Mean height run by run, cm: what hold or move is weighed over. */
  heights: Float64Array;
}

export interface ForecastOptions {
  /** The date looked at, on or after the outlook's date. */
  view: EpochDay;
  draws?: number;
  /** Also lay out the course for a chart, from → to. */
  course?: { from: EpochDay; to: EpochDay };
  /** Also say what this season and the next ones leave. */
  seasons?: boolean;
  /** Also explain. */
  explain?: boolean;
  /** Also say what share of its plants lies between two heights, cm; either may be left open. */
  sizes?: { fromCm: number | null; toCm: number | null };
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
  usual: Warmth,
  options: ForecastOptions,
): LotForecast {
  const { view, draws = DRAWS, course, explain = false } = options;
  const { latitudeDeg } = outlook.site;
  const ahead = runAhead(facts, outlook, usual, view, { draws, course, move: options.move });
  const { seen, warmth, emergence, upBand: emergenceBand, g, runs, days, viewAt, heights, sizesOn } = ahead;
  const state = stateOf(ahead, view);
  const move = comingMove(seen, outlook.asOf);
  const home = homeAt(homesOf(seen), move ? Infinity : outlook.asOf);
  const lifting = liftingWindow(facts.species, latitudeDeg, usual, view, {
    notBefore: Math.min(emergenceBand.p50, view + 400),
    leafFall: facts.leafFallOn !== null && facts.leafFallOn <= outlook.asOf ? facts.leafFallOn : null,
  });
  const headroom = home.kind === 'bed' ? home.headroomCm : null;
  const tallest = 1 + normalQuantile(0.9) * plantCv(seen);
  const spells = homesOf(seen);
  const apart = options.apart ?? (move ? 1 : apartAt(seen, outlook.asOf));
  const meets = meetingHeightCm(facts.species, home, apart);
  const lidAt = headroom === null ? null : headroom / tallest;
  const reached = daysOfHeights(ahead, outlook, [facts.targetHeightCm, lidAt, meets]).map(
    (days) => days && bandOf(days),
  );
  return {
    lotId: facts.id,
    asOf: outlook.asOf,
    emergence: {
      seen: emergence.seen,
      band: emergenceBand,
      usual: emergence.seen === null ? bandOf(Float64Array.from(emergence.usual)) : emergenceBand,
    },
    ready: bandOf(runs.ready),
    bound: bandOf(runs.bound),
    toTarget: reached[0],
    lid: reached[1],
    leavesMeet: reached[2],
    apart,
    feedOut: feedRunOut(facts, usual),
    shiftDue: shiftDueOf(home, spells, emergenceBand.p50, latitudeDeg),
    lifting: lifting.value,
    growing: growsOnDay(g, emergence, draws, runs.count / draws, view),
    rests: !growsOn(facts.species, warmth),
    missedLift: missedLift(facts, emergenceBand.p50, latitudeDeg, usual, view, lifting.value),
    prick: prickDays(home, ahead),
    rootStress: view === outlook.asOf ? stressOf(home, emergence, outlook) : null,
    lostHeight: lostHeight(seen, outlook.asOf),
    seasonEnds: options.seasons
      ? {
          now: sizesOn(g.heights, view, runs.count),
          ends: seasonEnds(ahead, outlook, view),
          cv: plantCv(seen),
        }
      : null,
    inSize: options.sizes ? bandOf(sharesWithin(options.sizes, heights[viewAt], plantCv(seen))) : null,
    state,
    course: course
      ? {
          days,
          heightCm: heights.map((h) => bandOf(Float64Array.from(h))),
          fill: runs.rootMl.map((r, at) => {
            const cellMl = cellMlAt(spells, days[at]);
            return bandOf(Float64Array.from(r, (ml, run) => shownFill(ml / cellMl, g.dayLuck[run % draws])));
          }),
        }
      : null,
    vigour: { mean: g.roots.mean, startingShare: g.roots.startingShare },
    heightStartingShare: g.height.belief.startingShare,
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

/** Whether shoots grow on a day, in half of the weather years or more. */
function growsOnDay(g: LotDraws, emergence: Emergence, draws: number, years: number, day: EpochDay): boolean {
  let grows = 0;
  for (let year = 0; year < years; year++) {
    const up = emergence.days[year * draws + Math.floor(draws / 2)];
    if (up <= day && g.plantIn(year, up).seasons.some(({ from, to }) => from <= day && day <= to)) grows++;
  }
  return grows >= years / 2;
}

/** Close of the window of the winter before, for a bed lot that was up by then and stands still in its next season. */
function missedLift(
  facts: LotFacts,
  upOn: EpochDay,
  latitudeDeg: number,
  warmth: Warmth,
  view: EpochDay,
  coming: LiftingWindow,
): EpochDay | null {
  if (facts.home.kind !== 'bed' || !(upOn <= view)) return null;
  const winter = autumnStart(latitudeDeg, coming.autumn - 200);
  if (winter <= upOn || winter < warmth.pastStart) return null;
  const { until } = liftingWindow(facts.species, latitudeDeg, warmth, winter + 60).value;
  return Number.isFinite(until) && until < view ? until : null;
}

/** Warmth from coming up until roots of neighbours meet in a flat, °C·d; a rule of thumb. */
const FLAT_MEETS_DD = 380;

function prickDays(home: Home, ahead: LotAhead): LotForecast['prick'] {
  if (home.kind !== 'container' || home.pitchMm !== null) return null;
  return { from: daysAfterUp(ahead, TRUE_LEAVES_DD), by: daysAfterUp(ahead, FLAT_MEETS_DD) };
}

/** Frost or heat at the roots of a lot that is up, from the days measured. */
function stressOf(home: Home, { seen }: Emergence, outlook: Outlook): RootStress | null {
  // What was only filled in from averages is no night that anybody measured.
  const { asOf, measuredTo, pastStart } = outlook;
  if (seen === null || asOf - measuredTo > 1) return null;
  const days = (values: Float64Array) => lastDays(values, pastStart, measuredTo);
  return rootStress(home, days(outlook.pastMinC), days(outlook.pastMaxC));
}

function lostHeight({ losses = [], sizes }: LotFacts, asOf: EpochDay): HeightLoss | null {
  const last = losses.filter((loss) => loss.day <= asOf).at(-1);
  return last && !sizes.some((s) => s.what === 'height' && s.day >= last.day) ? last : null;
}

/** Seasons ahead that are told. */
const SEASONS_AHEAD = 3;

function seasonEnds(
  { seen: facts, g, emergence, sizesOn }: LotAhead,
  { asOf, horizonDays }: Outlook,
  view: EpochDay,
): SeasonEnd[] {
  const members = emergence.days.length;
  // The middle year's seasons give the dates; every run has its own.
  const up = emergence.seen ?? bandOf(Float64Array.from(emergence.days)).p50;
  if (!Number.isFinite(up)) return [];
  const cv = plantCv(facts);
  return g
    .plantIn(0, Math.round(up))
    .seasons.filter(({ season }, i, all) => all[i + 1]?.season !== season)
    .filter(({ to }) => to >= view && to <= asOf + horizonDays)
    .slice(0, SEASONS_AHEAD)
    .map(({ to }) => {
      // A little later, so that years whose growth ends later have had theirs.
      const day = Math.min(to + 14, asOf + horizonDays);
      const heights = sizesOn(g.heights, day, members);
      return {
        on: to,
        heightCm: bandOf(Float64Array.from(heights)),
        diameterMm: bandOf(sizesOn(g.diameters, day, members)),
        shareToSize: facts.targetHeightCm === null ? null : shareTo(facts.targetHeightCm, heights, cv),
        heights,
      };
    });
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

/** A mean is known well enough once it is known to a tenth of itself, nine times in ten. */
export const MEASURE_MARGIN = 0.1;

/** Plants to measure of a lot, so that their mean is known to `MEASURE_MARGIN`: never more than stand. */
export const plantsToMeasure = (facts: LotFacts, standing: number): number =>
  Math.min(standing, sampleSize(plantCv(facts), MEASURE_MARGIN));
