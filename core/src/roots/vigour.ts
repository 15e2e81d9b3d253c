import { rootClock, rootsAfter, type RootClock, type RootParameters } from './rootFill';

/** Words for plug scores 0–4, as a grower says them with the plug in hand. */
export const plugScores = ['loose', 'crumbles', 'holds', 'tight', 'solid'] as const;
export type PlugScore = 0 | 1 | 2 | 3 | 4;

/** Root fill each score is read as, and the spread of that reading. */
export const SCORE_FILL: readonly number[] = [0.3, 0.5, 0.75, 1.0, 1.2];
export const SCORE_SD = 0.12;

/** Starting value of vigour: log-normal, median 1. */
export const VIGOUR_SD_LOG = 0.35;
const GRID = 200;
const WIDTH_SD = 3.2;

/** Plugs pulled on one day: the day's index into the warmth given, and each plug's score. */
export interface Pull {
  dayIndex: number;
  scores: readonly number[];
  /** Pulled before a move of the same day. */
  before?: boolean;
}

/** A cell's volume from a day on, mL, for a lot that was moved. */
export interface CellSpell {
  dayIndex: number;
  cellMl: number;
}

export interface VigourPosterior {
  vigours: Float64Array;
  weights: Float64Array;
  mean: number;
  /** Mean and standard deviation of ln θ. */
  logMean: number;
  logSd: number;
  /** Spread of ln θ now over its spread at the start. */
  startingShare: number;
}

/**
 * Posterior of a lot's vigour on a 200-point grid from pulled plugs. Plugs of one lot share its vigour;
 * each score is an independent reading of its fill with sd 0.12.
 * @param dailyDd warmth of each day since emergence, °C·d
 * @param cells volumes in turn where the lot was moved; without them `p.cellMl` throughout
 * @param sdLog spread of ln θ at the start
 */
export function vigourPosterior(
  p: Omit<RootParameters, 'vigour'>,
  dailyDd: ArrayLike<number>,
  pulls: readonly Pull[],
  cells: readonly CellSpell[] = [],
  sdLog = VIGOUR_SD_LOG,
): VigourPosterior {
  const ordered = pulls.filter((pull) => pull.dayIndex >= 0).sort((a, b) => a.dayIndex - b.dayIndex);
  const vigours = lines.map((line) => Math.exp(sdLog * line));
  if (ordered.length === 0) {
    const mean = vigours.reduce((total, vigour, i) => total + prior[i] * vigour, 0);
    return { vigours, weights: prior, mean, logMean: 0, logSd: sdLog * priorSpread, startingShare: 1 };
  }
  const weights = Float64Array.from(logPrior);
  const seen = seenOf(p.cellMl, dailyDd, ordered, cells);
  const volumes = [p.cellMl, ...cells.map((cell) => cell.cellMl)];
  const clocks = new Map(volumes.map((cellMl) => [cellMl, rootClock(cellMl, p.linearAtMl)]));
  for (let i = 0; i < GRID; i++) weights[i] += logLikelihood(p, clocks, vigours[i], seen);
  normalise(weights);
  const mean = weights.reduce((total, w, i) => total + w * vigours[i], 0);
  const { middle, spread } = momentsOf(weights);
  return {
    vigours,
    weights,
    mean,
    logMean: sdLog * middle,
    logSd: sdLog * spread,
    startingShare: Math.min(1, spread),
  };
}

/** Grid lines in standard deviations from the median, and the starting weights on them. */
const lines = Float64Array.from({ length: GRID }, (_, i) => (i / (GRID - 1) - 0.5) * 2 * WIDTH_SD);
const logPrior = lines.map((line) => -0.5 * line ** 2);
const prior = Float64Array.from(logPrior);
normalise(prior);
const priorSpread = momentsOf(prior).spread;

/** Weights of sum 1 from their logarithms, in place. */
function normalise(weights: Float64Array): void {
  let most = -Infinity;
  for (const w of weights) most = Math.max(most, w);
  let total = 0;
  for (let i = 0; i < weights.length; i++) total += weights[i] = Math.exp(weights[i] - most);
  for (let i = 0; i < weights.length; i++) weights[i] /= total;
}

/** Mean and spread over the grid lines, in standard deviations of the start. */
function momentsOf(weights: Float64Array): { middle: number; spread: number } {
  let middle = 0;
  let square = 0;
  for (let i = 0; i < GRID; i++) {
    middle += weights[i] * lines[i];
    square += weights[i] * lines[i] ** 2;
  }
  return { middle, spread: Math.sqrt(Math.max(0, square - middle ** 2)) };
}

/** What was read off plugs on a day, and the warmth the lot had had by its end in each cell it stood in until then. */
interface Seen {
  scores: readonly number[];
  stretches: { cellMl: number; warmth: number }[];
}

function seenOf(
  cellMl: number,
  dailyDd: ArrayLike<number>,
  pulls: readonly Pull[],
  cells: readonly CellSpell[],
): Seen[] {
  const warmthBy = new Float64Array(dailyDd.length + 1);
  for (let day = 0; day < dailyDd.length; day++) warmthBy[day + 1] = warmthBy[day] + dailyDd[day];
  const upTo = (dayIndex: number) => warmthBy[Math.max(0, Math.min(dailyDd.length, dayIndex))];
  return pulls.map(({ dayIndex, scores, before = false }) => {
    const moves = cells.filter((cell) => (before ? cell.dayIndex < dayIndex : cell.dayIndex <= dayIndex));
    const stretches = [{ dayIndex: 0, cellMl }, ...moves].map((cell, i) => ({
      cellMl: cell.cellMl,
      warmth: upTo(moves[i]?.dayIndex ?? dayIndex + 1) - upTo(cell.dayIndex),
    }));
    return { scores, stretches };
  });
}

function logLikelihood(
  p: Omit<RootParameters, 'vigour'>,
  clocks: ReadonlyMap<number, RootClock>,
  vigour: number,
  seen: readonly Seen[],
): number {
  let log = 0;
  for (const { scores, stretches } of seen) {
    let rootMl = p.initialMl;
    for (const { cellMl, warmth } of stretches)
      rootMl = rootsAfter(clocks.get(cellMl)!, rootMl, p.ratePerDd * vigour * warmth);
    const fill = rootMl / stretches[stretches.length - 1].cellMl;
    for (const score of scores) log -= offBy(score, fill) ** 2 / (2 * SCORE_SD ** 2);
  }
  return log;
}

/** Equally likely draws of vigour from its posterior, low to high. */
export function drawVigours(posterior: VigourPosterior, draws: number): Float64Array {
  const out = new Float64Array(draws);
  let cell = 0;
  let cumulated = posterior.weights[0];
  for (let d = 0; d < draws; d++) {
    while (cumulated < (d + 0.5) / draws && cell < GRID - 1) cumulated += posterior.weights[++cell];
    out[d] = posterior.vigours[cell];
  }
  return out;
}

/**
 * How far a fill lies from what a score is read as. The ends of the scale are open: a plug that falls apart says
 * «at most», one as hard as wood «at least».
 */
function offBy(score: number, fill: number): number {
  const off = SCORE_FILL[score] - fill;
  if (score === 0) return Math.min(0, off);
  return score === SCORE_FILL.length - 1 ? Math.max(0, off) : off;
}
