import type { Spread } from '../chance/spread';
import { grownTo, WHOLE, type Leg } from './legs';

/** A sample of a lot: mean and its standard error at a thermal time since emergence. */
export interface SizeSample {
  thermalTime: number;
  mean: number;
  standardError: number;
}

/** Weights over a grid of (ln A, ln k). Row-major: index = i·rates.length + j. */
export interface SizePosterior {
  asymptotes: Float64Array;
  rates: Float64Array;
  weights: Float64Array;
  initial: number;
  /** Spread of ln A now over its spread at the start: 1 with no records, towards 0 as they speak. */
  startingShare: number;
}

const GRID = 25;
const WIDTH_SD = 2.6;
/** Error of the model itself, share of the mean. */
export const MODEL_ERROR = 0.08;

/**
 * Posterior of a lot's growth on a grid of (ln A, ln k) around the species' starting values. Data are
 * sample means with their standard errors plus 8 % model error.
 * @param scale factor on A from depth and density, > 0
 * @param legs how that factor changed when the lot was moved, against the present one
 */
export function sizePosterior(
  start: { asymptote: Spread; rate: Spread; initial: number },
  scale: number,
  samples: readonly SizeSample[],
  legs: readonly Leg[] = WHOLE,
): SizePosterior {
  const asymptotes = axis({ median: start.asymptote.median * scale, sdLog: start.asymptote.sdLog });
  for (let i = 0; i < GRID; i++) asymptotes[i] = Math.max(asymptotes[i], start.initial * 1.05);
  const rates = axis(start.rate);
  const axes = { asymptotes, rates, initial: start.initial };
  if (samples.length === 0) return { ...axes, weights: prior, startingShare: 1 };
  const expected = sizesOnGrid(asymptotes, rates, start.initial, legs);
  const weights = Float64Array.from(logPrior);
  for (const s of samples) {
    const error2 = s.standardError ** 2 + (MODEL_ERROR * s.mean) ** 2;
    const sizes = expected(s.thermalTime);
    for (let cell = 0; cell < sizes.length; cell++)
      weights[cell] -= (s.mean - sizes[cell]) ** 2 / (2 * error2);
  }
  normalise(weights);
  return { ...axes, weights, startingShare: spreadLeft(weights) };
}

/**
 * Size at a thermal time on every point of the grid. In one home ln(A/h₀) belongs to a row and e^(−kτ) to a column, so
 * that a lot with many samples takes one exponential a point.
 */
function sizesOnGrid(
  asymptotes: Float64Array,
  rates: Float64Array,
  initial: number,
  legs: readonly Leg[],
): (thermalTime: number) => Float64Array {
  const sizes = new Float64Array(GRID * GRID);
  if (legs.length > 1)
    return (tau) => {
      for (let i = 0; i < GRID; i++)
        for (let j = 0; j < GRID; j++)
          sizes[i * GRID + j] = grownTo(asymptotes[i], initial, rates[j], legs, tau);
      return sizes;
    };
  const tendsTo = asymptotes.map((a) => a * legs[0].scale);
  const room = tendsTo.map((a) => Math.log(a / initial));
  return (tau) => {
    const left = rates.map((k) => Math.exp(-k * tau));
    for (let i = 0; i < GRID; i++)
      for (let j = 0; j < GRID; j++) sizes[i * GRID + j] = tendsTo[i] * Math.exp(-room[i] * left[j]);
    return sizes;
  };
}

/** Position of a grid line, in standard deviations from the median. */
function z(i: number): number {
  return (i / (GRID - 1) - 0.5) * 2 * WIDTH_SD;
}

/** The starting weights: normal along both axes. */
const logPrior = Float64Array.from(
  { length: GRID * GRID },
  (_, cell) => -0.5 * (z(Math.floor(cell / GRID)) ** 2 + z(cell % GRID) ** 2),
);
const prior = Float64Array.from(logPrior);
normalise(prior);

/** Standard deviations from the median, by grid line. */
function axis({ median, sdLog }: Spread): Float64Array {
  return Float64Array.from({ length: GRID }, (_, i) => median * Math.exp(sdLog * z(i)));
}

/** Weights of sum 1 from their logarithms, in place. */
function normalise(weights: Float64Array): void {
  let most = -Infinity;
  for (let cell = 0; cell < weights.length; cell++) if (weights[cell] > most) most = weights[cell];
  let total = 0;
  for (let cell = 0; cell < weights.length; cell++) total += weights[cell] = Math.exp(weights[cell] - most);
  for (let cell = 0; cell < weights.length; cell++) weights[cell] /= total;
}

function spreadLeft(weights: Float64Array): number {
  const marginal = new Float64Array(GRID);
  for (let i = 0; i < GRID; i++) for (let j = 0; j < GRID; j++) marginal[i] += weights[i * GRID + j];
  const spread = (w: (i: number) => number) => {
    let total = 0;
    let mean = 0;
    let square = 0;
    for (let i = 0; i < GRID; i++) {
      total += w(i);
      mean += w(i) * z(i);
      square += w(i) * z(i) ** 2;
    }
    // All weight on one line of the grid leaves a difference that rounding may take below 0.
    return Math.sqrt(Math.max(0, square / total - (mean / total) ** 2));
  };
  return Math.min(1, spread((i) => marginal[i]) / spread((i) => Math.exp(-0.5 * z(i) ** 2)));
}

/** Mean and standard deviation of ln A, against the middle of the grid it started from. */
export function asymptoteLog({ asymptotes, weights }: SizePosterior): { mean: number; sd: number } {
  const middle = Math.log(asymptotes[(GRID - 1) / 2]);
  let mean = 0;
  let square = 0;
  for (let cell = 0; cell < weights.length; cell++) {
    const log = Math.log(asymptotes[Math.floor(cell / GRID)]) - middle;
    mean += weights[cell] * log;
    square += weights[cell] * log ** 2;
  }
  return { mean, sd: Math.sqrt(Math.max(0, square - mean ** 2)) };
}

/** Equally likely draws (A, k) from the posterior, stratified so that few stand for all. */
export function drawSizes(
  posterior: SizePosterior,
  draws: number,
): { asymptote: Float64Array; rate: Float64Array } {
  const asymptote = new Float64Array(draws);
  const rate = new Float64Array(draws);
  const n = posterior.rates.length;
  let cell = 0;
  let cumulated = posterior.weights[0];
  for (let d = 0; d < draws; d++) {
    const level = (d + 0.5) / draws;
    while (cumulated < level && cell < posterior.weights.length - 1) cumulated += posterior.weights[++cell];
    asymptote[d] = posterior.asymptotes[Math.floor(cell / n)];
    rate[d] = posterior.rates[cell % n];
  }
  return { asymptote, rate };
}
