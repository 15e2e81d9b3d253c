import { normalCdf } from '../chance/normal';
import { linearIn, rootClock, rootsAfter, type RootClock, type RootParameters } from './rootFill';

/** Words for plug scores 0–4, as a grower says them with the plug in hand. */
export const plugScores = ['loose', 'crumbles', 'holds', 'tight', 'solid'] as const;
export type PlugScore = 0 | 1 | 2 | 3 | 4;

/** Root fill each score stands for in the middle, and the fills at which one score passes into the next. */
export const SCORE_FILL: readonly number[] = [0.3, 0.5, 0.75, 1.0, 1.2];
const SCORE_CUTS: readonly number[] = [0.4, 0.625, 0.875, 1.1];
/** Plants of a lot differ, and the more the fuller they are: sd² = 0.12² + (0.15·F)². */
export const SCORE_SD = 0.12;
const PLANTS_DIFFER = 0.15;
/** How far one judge’s scores lie off the true ones, in fill; shared by all that judge scores. */
export const JUDGE_SD = 0.12;
/** How far a day’s plugs lie off the lot’s own, of the logarithm; drawn anew each day. */
export const DAY_SD = 0.08;
/** A score that fits nothing is a slip now and then. */
const SLIP = 1e-4;

/** Starting value of vigour: log-Student (4 degrees), median 1. */
export const VIGOUR_SD_LOG = 0.35;
/** How vigour of root and shoot go together, −1 to 1: a lot taller than its kind fills its cell sooner. */
const SHOOT_ROOT = 0.3;
const GRID = 200;
const REACH = 6;
/** Scale of a Student t with 4 degrees whose spread is like a normal’s of 1. */
const T_SCALE = 0.836;

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
  /** Logarithm of what the plugs say of each vigour; null without plugs. */
  said: Float64Array | null;
  /** Spread of ln θ at the start. */
  sdLog: number;
}

/**
 * Posterior of a lot's vigour on a 200-point grid from pulled plugs, by a cumulative model of their scores: plugs of a
 * day share its luck, and all of them the eye of who judged them.
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
  if (ordered.length === 0) return atTheStart(sdLog);
  const vigours = lines.map((line) => Math.exp(sdLog * line));
  const seen = seenOf(p.cellMl, dailyDd, ordered, cells);
  const volumes = [p.cellMl, ...cells.map((cell) => cell.cellMl)];
  const clocks = new Map(
    volumes.map((cellMl) => [cellMl, rootClock(cellMl, linearIn(p.linearAtMl, cellMl))]),
  );
  const said = vigours.map((vigour) => logLikelihood(p, clocks, vigour, seen));
  const weights = logPrior.map((log, i) => log + said[i]);
  normalise(weights);
  const mean = weights.reduce((total, w, i) => total + w * vigours[i], 0);
  const { middle, spread } = momentsOf(weights);
  return {
    vigours,
    weights,
    mean,
    logMean: sdLog * middle,
    logSd: Math.min(sdLog, (sdLog * spread) / priorSpread),
    startingShare: Math.min(1, spread / priorSpread),
    said,
    sdLog,
  };
}

/** What is believed before any plug was pulled; the same for every lot of a spread. */
const starts = new Map<number, VigourPosterior>();
function atTheStart(sdLog: number): VigourPosterior {
  let known = starts.get(sdLog);
  if (!known) {
    const vigours = lines.map((line) => Math.exp(sdLog * line));
    known = {
      vigours,
      weights: prior,
      mean: vigours.reduce((total, vigour, i) => total + prior[i] * vigour, 0),
      logMean: 0,
      logSd: sdLog,
      startingShare: 1,
      said: null,
      sdLog,
    };
    starts.set(sdLog, known);
  }
  return known;
}

/** Grid lines in standard deviations from the median, and the starting weights on them. */
const lines = Float64Array.from({ length: GRID }, (_, i) => (i / (GRID - 1) - 0.5) * 2 * REACH * T_SCALE);
const logPrior = lines.map((line) => -2.5 * Math.log1p((line / T_SCALE) ** 2 / 4));
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
  const byJudge = new Float64Array(NODES.length);
  for (const { scores, stretches } of seen) {
    let rootMl = p.initialMl;
    for (const { cellMl, warmth } of stretches)
      rootMl = rootsAfter(clocks.get(cellMl)!, rootMl, p.ratePerDd * vigour * warmth);
    const fill = rootMl / stretches[stretches.length - 1].cellMl;
    for (let judge = 0; judge < NODES.length; judge++) {
      let like = 0;
      for (let day = 0; day < NODES.length; day++)
        like += NODE_WEIGHTS[day] * chanceOfScores(judge, fill * dayLuck[day], scores);
      byJudge[judge] += Math.log(Math.max(1e-300, like));
    }
  }
  let most = -Infinity;
  for (const log of byJudge) most = Math.max(most, log);
  let total = 0;
  for (let judge = 0; judge < NODES.length; judge++)
    total += NODE_WEIGHTS[judge] * Math.exp(byJudge[judge] - most);
  return most + Math.log(total);
}

/** Gauss–Hermite nodes and weights for a standard normal (Abramowitz & Stegun 25.4.46, five points). */
const NODES = [-2.8569700138728, -1.3556261799743, 0, 1.3556261799743, 2.8569700138728];
const NODE_WEIGHTS = [0.0112574113277, 0.2220759220056, 0.5333333333333, 0.2220759220056, 0.0112574113277];
const dayLuck = NODES.map((node) => Math.exp(DAY_SD * node));

const FILL_STEP = 0.01;
const FILL_MOST = 2;
const SCORES = SCORE_FILL.length;
/** Each score’s chance, by judge, fill and score: worked out once, when first asked. */
let chances: Float64Array | null = null;
function chancesOf(): Float64Array {
  const fills = Math.round(FILL_MOST / FILL_STEP) + 1;
  const table = new Float64Array(NODES.length * fills * SCORES);
  NODES.forEach((node, judge) => {
    for (let f = 0; f < fills; f++) {
      const fill = f * FILL_STEP;
      const sd = Math.hypot(SCORE_SD, PLANTS_DIFFER * fill);
      let below = 0;
      for (let score = 0; score < SCORES; score++) {
        const upTo =
          score < SCORE_CUTS.length ? normalCdf((SCORE_CUTS[score] - fill - JUDGE_SD * node) / sd) : 1;
        table[(judge * fills + f) * SCORES + score] = Math.max(SLIP, upTo - below);
        below = upTo;
      }
    }
  });
  return table;
}

/** Chance of plugs’ scores at a fill, as one judge sees them. */
function chanceOfScores(judge: number, fill: number, scores: readonly number[]): number {
  chances ??= chancesOf();
  const fills = Math.round(FILL_MOST / FILL_STEP) + 1;
  const at = Math.min(fills - 1.000001, Math.max(0, fill / FILL_STEP));
  const low = Math.floor(at);
  const part = at - low;
  const base = (judge * fills + low) * SCORES;
  let chance = 1;
  for (let i = 0; i < scores.length; i++) {
    const score = base + scores[i];
    chance *= chances[score] * (1 - part) + chances[score + SCORES] * part;
  }
  return chance;
}

/** Quantile of Student’s t with 4 degrees, in closed form (Shaw 2006, J. Comput. Finance 9:37). */
function t4Quantile(p: number): number {
  const alpha = 4 * p * (1 - p);
  const q = Math.cos(Math.acos(Math.sqrt(alpha)) / 3) / Math.sqrt(alpha);
  return Math.sign(p - 0.5) * 2 * Math.sqrt(Math.max(0, q - 1));
}

const leftOver = Math.sqrt(1 - SHOOT_ROOT ** 2);
/** Weight of a vigour, in standard deviations, for a lot whose size lies some off its kind’s. */
function besideShoot(z: number, shootZ: number): number {
  const u = (z - SHOOT_ROOT * shootZ) / (T_SCALE * leftOver);
  const q = 1 + (u * u) / 4;
  return 1 / (q * q * Math.sqrt(q));
}

/** What plugs say of the lot’s shoots, as a logarithm: a lot whose roots are fast has taller shoots as a rule. */
export function shootsFromRoots(posterior: VigourPosterior): ((shootZ: number) => number) | null {
  const { said } = posterior;
  if (said === null) return null;
  let most = -Infinity;
  for (const log of said) most = Math.max(most, log);
  const likely = said.map((log) => Math.exp(log - most));
  return (shootZ) => {
    let total = 0;
    for (let i = 0; i < GRID; i++) total += likely[i] * besideShoot(lines[i], shootZ);
    return Math.log(Math.max(1e-300, total));
  };
}

/**
 * Draws of vigour that go with draws of the shoots’ factor.
 * @param shootZ each draw’s ln factor, in standard deviations of its start
 * @param order draws in turn, so that strata of roots and shoots are not the same ones
 */
export function vigoursBeside(
  posterior: VigourPosterior,
  shootZ: ArrayLike<number>,
  order: readonly number[],
): Float64Array {
  const { said, sdLog, vigours } = posterior;
  const draws = shootZ.length;
  const out = new Float64Array(draws);
  const weights = new Float64Array(GRID);
  for (let d = 0; d < draws; d++) {
    const level = (order[d] + 0.5) / draws;
    if (said === null) {
      out[d] = Math.exp(sdLog * (SHOOT_ROOT * shootZ[d] + leftOver * T_SCALE * t4Quantile(level)));
      continue;
    }
    let total = 0;
    for (let i = 0; i < GRID; i++) {
      // The posterior holds what plugs say times the starting weight: the latter is taken out again.
      weights[i] = (posterior.weights[i] / prior[i]) * besideShoot(lines[i], shootZ[d]);
      total += weights[i];
    }
    let at = 0;
    let below = 0;
    while (at < GRID - 1 && below + weights[at] < level * total) below += weights[at++];
    out[d] = vigours[at];
  }
  return out;
}
