import { choleskyRoot } from '../chance/cholesky';
import type { Spread } from '../chance/spread';

/*
 * What is believed of one lot's size: its own factor on what its species adds, and its own rate, on a grid; and how its
 * samples depart from the best of those curves, which fades while it grows. The constants were tried over simulated
 * nurseries unlike the assumptions (docs/calibration.md).
 */

/** Error of the model itself, of the logarithm; it neither fades nor grows while the lot rests. */
export const MODEL_SD = 0.08;
/** Growing days over which it fades to 1/e. */
export const MODEL_DAYS = 56;
/** Each season's own luck from the second on, of the logarithm of what it adds. */
export const SEASON_SD = 0.2;
/** Error of picking and measuring a sample, of the logarithm, whatever its size. */
const SAMPLING_SD = 0.03;
/** Weight of the species' spread between plants, in plants. */
const CV_WEIGHT = 8;
/** Spread of collars between plants over that of heights. A rule of thumb, until the lot's own are measured. */
export const COLLAR_CV = 0.8;

const FACTORS = 31;
const RATES = 21;
const REACH = 6;
/** Scale of a Student t with 4 degrees whose spread is like a normal's of 1. */
const T_SCALE = 0.836;

/** A sample of a lot on a day. */
export interface SizeSample {
  mean: number;
  /** Plants, and their standard deviation; 0 for one plant. */
  n: number;
  sd: number;
  /** Growing days it had had. */
  grown: number;
  /** How far the middle curve had each later season's luck in it: ∂ ln size ÷ ∂ ln of what season s added. */
  luck: readonly number[];
}

/** Weights over a grid of (ln factor, ln rate), row-major: index = i·RATES + j. */
export interface SizeBelief {
  /** Logarithms of the factor and of the rate against the species', by grid line. */
  factors: Float64Array;
  rates: Float64Array;
  weights: Float64Array;
  /** Spread of the factor now over its spread at the start: 1 with no records, towards 0 as they speak. */
  startingShare: number;
  samples: readonly SizeSample[];
  /** How many times as far a lot departs from its curves as it starts. */
  width: number;
  /** Lower triangle of Cholesky's factor of the samples' covariance; null without samples. */
  root: Float64Array | null;
}

/** Grid lines in scales of the start. */
const line = (i: number, of: number): number => (i / (of - 1) - 0.5) * 2 * REACH;
const tLog = (x: number): number => -2.5 * Math.log1p((x * x) / 4);

const logPrior = Float64Array.from(
  { length: FACTORS * RATES },
  (_, cell) => tLog(line(Math.floor(cell / RATES), FACTORS)) + tLog(line(cell % RATES, RATES)),
);
const prior = normalised(Float64Array.from(logPrior));
const priorSd = spreadOver(prior);

/** Weights of sum 1 from their logarithms, in place. */
function normalised(weights: Float64Array): Float64Array {
  let most = -Infinity;
  for (let cell = 0; cell < weights.length; cell++) if (weights[cell] > most) most = weights[cell];
  let total = 0;
  for (let cell = 0; cell < weights.length; cell++) total += weights[cell] = Math.exp(weights[cell] - most);
  for (let cell = 0; cell < weights.length; cell++) weights[cell] /= total;
  return weights;
}

/** Spread of the factor over the grid, in grid scales. */
function spreadOver(weights: Float64Array): number {
  let mean = 0;
  let square = 0;
  for (let cell = 0; cell < weights.length; cell++) {
    const x = line(Math.floor(cell / RATES), FACTORS);
    mean += weights[cell] * x;
    square += weights[cell] * x * x;
  }
  return Math.sqrt(Math.max(0, square - mean ** 2));
}

/** Plants that the spread of a lot was learnt from: those measured, and the species' own weight. */
export const cvWeight = (samples: readonly Pick<SizeSample, 'n'>[]): number =>
  samples.reduce((weight, { n }) => weight + Math.max(0, n - 1), CV_WEIGHT);

/** Spread between plants of a lot over their mean, from its samples and the species' own. */
export function pooledCv(
  samples: readonly Pick<SizeSample, 'n' | 'mean' | 'sd'>[],
  speciesCv: number,
): number {
  let squares = CV_WEIGHT * speciesCv ** 2;
  for (const { n, mean, sd } of samples) if (n > 1) squares += (n - 1) * (sd / mean) ** 2;
  return Math.sqrt(squares / cvWeight(samples));
}

/** Variance of the logarithm of a sample's mean: never less than its own plants show. */
function sampleVariance({ n, mean, sd }: SizeSample, cv: number): number {
  const own = Math.max(0, n - 1);
  const shown = Math.sqrt((CV_WEIGHT * cv ** 2 + own * (n > 1 ? (sd / mean) ** 2 : 0)) / (CV_WEIGHT - 1 + n));
  return Math.max(cv, shown) ** 2 / n + SAMPLING_SD ** 2;
}

/** Covariance of two departures of a lot from its curve; `width` how many times as far it departs as it starts. */
export function covariance(
  a: Pick<SizeSample, 'grown' | 'luck'>,
  b: Pick<SizeSample, 'grown' | 'luck'>,
  width = 1,
): number {
  let total = MODEL_SD ** 2 * Math.exp(-Math.abs(a.grown - b.grown) / MODEL_DAYS);
  const seasons = Math.min(a.luck.length, b.luck.length);
  for (let s = 0; s < seasons; s++) total += SEASON_SD ** 2 * a.luck[s] * b.luck[s];
  return total * width ** 2;
}

/**
 * What samples make of the starting values.
 * @param factor spread of the factor at the start, of its logarithm (median 1)
 * @param rate the same of the rate
 * @param sizeAt ln of the size a curve gives at each sample, by ln rate, then by ln factor
 * @param more logarithm of what else speaks of a factor, by grid line; nothing where left out
 * @param width how many times as far the lot departs from its curves as it starts
 */
export function sizeBelief(
  factor: Spread['sdLog'],
  rate: Spread['sdLog'],
  samples: readonly SizeSample[],
  speciesCv: number,
  sizeAt: (lnRate: number) => (lnFactor: number) => ArrayLike<number>,
  more: ((lnFactor: number) => number) | null = null,
  width = 1,
): SizeBelief {
  const factors = Float64Array.from({ length: FACTORS }, (_, i) => line(i, FACTORS) * T_SCALE * factor);
  const rates = Float64Array.from({ length: RATES }, (_, j) => line(j, RATES) * T_SCALE * rate);
  if (samples.length === 0 && more === null)
    return { factors, rates, weights: prior, startingShare: 1, samples, width, root: null };
  const weights = Float64Array.from(logPrior);
  const root = samples.length ? rootOf(samples, pooledCv(samples, speciesCv), width) : null;
  const n = samples.length;
  const off = new Float64Array(n);
  const logs = samples.map(({ mean }) => Math.log(mean));
  const said = factors.map((factor) => (more === null ? 0 : more(factor)));
  for (let j = 0; j < RATES; j++) {
    const sizesOf = root === null ? null : sizeAt(rates[j]);
    for (let i = 0; i < FACTORS; i++) {
      let square = 0;
      if (root !== null) {
        const sizes = sizesOf!(factors[i]);
        for (let a = 0; a < n; a++) {
          let x = logs[a] - sizes[a];
          for (let b = 0; b < a; b++) x -= root[a * n + b] * off[b];
          off[a] = x / root[a * n + a];
          square += off[a] ** 2;
        }
      }
      weights[i * RATES + j] += said[i] - 0.5 * square;
    }
  }
  normalised(weights);
  return {
    factors,
    rates,
    weights,
    startingShare: Math.min(1, spreadOver(weights) / priorSd),
    samples,
    width,
    root,
  };
}

/** Cholesky's factor of the samples' covariance. */
function rootOf(samples: readonly SizeSample[], cv: number, width: number): Float64Array {
  const n = samples.length;
  const matrix = new Float64Array(n * n);
  for (let a = 0; a < n; a++)
    for (let b = 0; b <= a; b++)
      matrix[a * n + b] =
        covariance(samples[a], samples[b], width) + (a === b ? sampleVariance(samples[a], cv) : 0);
  return choleskyRoot(matrix, n);
}

/** Mean and standard deviation of ln factor, as the records leave it. */
export function factorLog({ factors, weights }: SizeBelief): { mean: number; sd: number } {
  let mean = 0;
  let square = 0;
  for (let cell = 0; cell < weights.length; cell++) {
    const x = factors[Math.floor(cell / RATES)];
    mean += weights[cell] * x;
    square += weights[cell] * x * x;
  }
  return { mean, sd: Math.sqrt(Math.max(0, square - mean ** 2)) };
}

/** Equally likely draws of (ln factor, ln rate), stratified along the factor and spread within the grid's cells. */
export function drawSizes(
  { factors, rates, weights }: SizeBelief,
  draws: number,
): { factor: Float64Array; rate: Float64Array } {
  const factor = new Float64Array(draws);
  const rate = new Float64Array(draws);
  const [wide, long] = [factors[1] - factors[0], rates[1] - rates[0]];
  let cell = 0;
  let below = 0;
  for (let d = 0; d < draws; d++) {
    const level = (d + 0.5) / draws;
    while (below + weights[cell] < level && cell < weights.length - 1) below += weights[cell++];
    // How far through the cell the level lies spreads draws along the rate; the factor takes another share of it.
    const through = weights[cell] > 0 ? Math.min(1, Math.max(0, (level - below) / weights[cell])) : 0.5;
    factor[d] = factors[Math.floor(cell / RATES)] + wide * (turned(d) - 0.5);
    rate[d] = rates[cell % RATES] + long * (through - 0.5);
  }
  return { factor, rate };
}

/** An even sequence on 0–1 that does not repeat (the golden ratio's). */
const turned = (d: number): number => ((d + 0.5) * 0.6180339887498949) % 1;
