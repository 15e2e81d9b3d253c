import { rootStep, type RootParameters } from './rootFill';

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
  const vigours = Float64Array.from({ length: GRID }, (_, i) => Math.exp(sdLog * z(i)));
  const weights = Float64Array.from({ length: GRID }, (_, i) => -0.5 * z(i) ** 2);
  const ordered = pulls.filter((pull) => pull.dayIndex >= 0).sort((a, b) => a.dayIndex - b.dayIndex);
  if (ordered.length) {
    for (let i = 0; i < GRID; i++) weights[i] += logLikelihood(p, vigours[i], dailyDd, ordered, cells);
  }
  let most = -Infinity;
  for (const w of weights) most = Math.max(most, w);
  let total = 0;
  for (let i = 0; i < GRID; i++) total += weights[i] = Math.exp(weights[i] - most);
  let mean = 0;
  let logMean = 0;
  let logSquare = 0;
  for (let i = 0; i < GRID; i++) {
    const w = (weights[i] /= total);
    mean += w * vigours[i];
    logMean += w * z(i);
    logSquare += w * z(i) ** 2;
  }
  const spread = Math.sqrt(Math.max(0, logSquare - logMean ** 2));
  return {
    vigours,
    weights,
    mean,
    logMean: sdLog * logMean,
    logSd: sdLog * spread,
    startingShare: Math.min(1, spread),
  };
}

function z(i: number): number {
  return (i / (GRID - 1) - 0.5) * 2 * WIDTH_SD;
}

function logLikelihood(
  p: Omit<RootParameters, 'vigour'>,
  vigour: number,
  dailyDd: ArrayLike<number>,
  pulls: readonly Pull[],
  cells: readonly CellSpell[],
): number {
  let rootMl = p.initialMl;
  let { cellMl } = p;
  let spell = 0;
  let day = 0;
  let log = 0;
  for (const pull of pulls) {
    const end = Math.min(pull.dayIndex + 1, dailyDd.length);
    while (day < end) {
      // Stretch by stretch in one cell, so that the inner loop asks nothing.
      while (spell < cells.length && cells[spell].dayIndex <= day) cellMl = cells[spell++].cellMl;
      const stop = spell < cells.length ? Math.min(end, cells[spell].dayIndex) : end;
      for (; day < stop; day++)
        rootMl += rootStep(rootMl, p.ratePerDd * vigour * dailyDd[day], p.linearAtMl, cellMl);
    }
    const fill = rootMl / cellMl;
    for (const score of pull.scores) log -= offBy(score, fill) ** 2 / (2 * SCORE_SD ** 2);
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
