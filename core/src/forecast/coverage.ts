import { betaQuantile, jeffreys } from '../chance/betaCdf';
import { normalQuantile } from '../chance/normal';
import type { EpochDay } from '../calendar/day';
import { SCORE_FILL, SCORE_SD } from '../roots/vigour';
import { wholeShare } from '../chance/beta';
import { stateOn } from './lotAhead';
import { foretold, type Foretold } from './foretold';
import type { LotFacts } from './lotFacts';
import { factsAt } from './lotHomes';
import type { FeltWeather } from './underCover';

/** A figure that was measured, beside what the forecast of some weeks before would have said of it. */
export interface Held {
  lotId: string;
  what: Foretold;
  /** Day it was measured, and the day the forecast is made as of. */
  on: EpochDay;
  madeOn: EpochDay;
  seen: number;
  middle: number;
  /** Where eight such measurements in ten should fall: the forecast's band and the sample's own error. */
  low: number;
  high: number;
  /** Spread of the forecast itself, and of the measurement: one standard deviation each. */
  sd: number;
  error: number;
  inside: boolean;
}

/** How far ahead a past forecast is asked for, days. */
export const AHEAD_DAYS = 28;
const LOOSEST = SCORE_FILL[0];
const FULLEST = SCORE_FILL[SCORE_FILL.length - 1];
/** A score stands for a range of fills: spread of an even range as wide as the mean step between scores. */
const SCORE_STEP_SD = (FULLEST - LOOSEST) / (SCORE_FILL.length - 1) / Math.sqrt(12);
const TEN_TO_NINETY_SD = 2 * normalQuantile(0.9);
/** Half of a band that holds eight in ten, of a forecast's spread and a measurement's. */
const halfBand = (sd: number, error: number): number => (Math.hypot(sd, error) * TEN_TO_NINETY_SD) / 2;

/**
 * Makes the forecasts of a lot again as they would have been, knowing nothing later, and sets what was then
 * measured beside them. Days before the lot was seen up are left out: there was no growth to foretell.
 * @param at weather as known on a date
 */
export function pastForecasts(
  facts: LotFacts,
  at: (asOf: EpochDay) => FeltWeather,
  ahead = AHEAD_DAYS,
): Held[] {
  const up = facts.counts.find((c) => c.count > 0)?.day ?? Infinity;
  const held: Held[] = [];
  const judge = (what: Foretold, on: EpochDay, seen: number, error: number) => {
    const madeOn = on - ahead;
    if (madeOn < up) return;
    const { outlook, warmth } = at(madeOn).felt(factsAt(facts, madeOn));
    const state = stateOn(facts, outlook, warmth, on);
    const band = what === 'height' ? state.heightCm : what === 'diameter' ? state.diameterMm : state.fill;
    // Loose was foretold and loose it was: scores show no fill below that, and nothing was risked.
    if (what === 'fill' && band.p50 <= LOOSEST && seen <= LOOSEST) return;
    // The scores show no fill below the loosest nor above the most solid plug.
    const middle = what === 'fill' ? Math.min(FULLEST, Math.max(LOOSEST, band.p50)) : band.p50;
    const sd = (band.p90 - band.p10) / TEN_TO_NINETY_SD;
    const half = halfBand(sd, error);
    const [low, high] = [middle - half, middle + half];
    held.push({
      lotId: facts.id,
      what,
      on,
      madeOn,
      seen,
      middle,
      low,
      high,
      sd,
      error,
      inside: seen >= low && seen <= high,
    });
  };
  for (const s of facts.sizes)
    judge(s.what, s.day, s.mean, s.n > 1 ? s.sd / Math.sqrt(s.n) : s.mean * facts.species.plantCv);
  if (facts.home.kind === 'container')
    for (const p of facts.pulls) {
      const read = p.scores.reduce((t, score) => t + SCORE_FILL[score], 0) / p.scores.length;
      judge('fill', p.day, read, Math.hypot(SCORE_SD / Math.sqrt(p.scores.length), SCORE_STEP_SD));
    }
  return held;
}

/** How often past forecasts held: of eight in ten promised, how many came true. */
export interface Coverage {
  n: number;
  inside: number;
  share: number;
  /** What the share may be in truth, eight chances in ten. */
  p10: number;
  p90: number;
  /** Geometric mean of seen over foretold, less one: above 0, more grew than was foretold. */
  bias: number;
  /** Mean width of the bands over their middle. */
  width: number;
}

/** What evidence and forecast disagree about, twice running and to the same side. */
export interface Disagreement {
  what: Foretold;
  /** Whether more was seen than foretold, both times. */
  above: boolean;
  /** The two measurements, the earlier first. */
  last: readonly [Held, Held];
}

/**
 * Whether the last two measurements of a kind both fell outside what was forecast of them, to the same side: by chance
 * that is one lot in fifty or so, and worth a second look at label, place, weather and species.
 */
export function disagreement(held: readonly Held[]): Disagreement | null {
  for (const what of foretold) {
    const [before, now] = held
      .filter((h) => h.what === what)
      .sort((a, b) => a.on - b.on)
      .slice(-2);
    if (!before || !now || before.inside || now.inside) continue;
    const above = now.seen > now.high;
    if (above === before.seen > before.high) return { what, above, last: [before, now] };
  }
  return null;
}

export function coverageOf(held: readonly Held[]): Coverage {
  const n = held.length;
  const inside = held.filter((h) => h.inside).length;
  const share = jeffreys(inside, n);
  const ratios = held.filter((h) => h.middle > 0 && h.seen > 0).map((h) => Math.log(h.seen / h.middle));
  return {
    n,
    inside,
    share: wholeShare(inside, n),
    p10: betaQuantile(0.1, share),
    p90: betaQuantile(0.9, share),
    width: n > 0 ? held.reduce((t, h) => t + (h.middle > 0 ? (h.high - h.low) / h.middle : 0), 0) / n : 0,
    bias: ratios.length ? Math.exp(ratios.reduce((t, r) => t + r, 0) / ratios.length) - 1 : 0,
  };
}

/** Measurements below which bands are left as they are: fewer tell too little of how often they hold. */
export const FEWEST_TO_WIDEN = 20;
/** Bands as they start are believed as much as so many measurements. */
const START_WEIGHT = 20;
const NARROWEST = 0.7;
const WIDEST = 1.8;

/** How many times as wide bands should be, by what was measured. */
export interface Widening {
  width: number;
  n: number;
  /** Share that held, and that would have held so widened. */
  share: number;
  then: number;
}

/**
 * By how much bands of one kind of figure should be widened or narrowed so that eight in ten hold, leaning on the bands as
 * they are the less was measured; null where too little was, or where they hold as often as they promise.
 * @param held past forecasts made with bands as they start
 */
export function widening(held: readonly Held[]): Widening | null {
  const n = held.length;
  if (n < FEWEST_TO_WIDEN) return null;
  const { share, p10, p90 } = coverageOf(held);
  if (p10 <= PROMISED && PROMISED <= p90) return null;
  // Only what is forecast is widened; how far a measurement itself strays stays as it is.
  const heldAt = (width: number) =>
    held.filter((h) => Math.abs(h.seen - h.middle) <= halfBand(width * h.sd, h.error)).length / n;
  let [low, high] = [NARROWEST, WIDEST];
  for (let i = 0; i < 20; i++) {
    const middle = Math.sqrt(low * high);
    if (heldAt(middle) >= PROMISED) high = middle;
    else low = middle;
  }
  const width = high ** (n / (n + START_WEIGHT));
  return { width, n, share, then: heldAt(width) };
}

/** Share of measurements that a band promises to hold. */
const PROMISED = 0.8;
