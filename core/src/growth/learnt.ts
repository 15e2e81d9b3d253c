import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { put, type Worked } from '../working/working';

/** What finished lots can teach: how fast roots fill, and how tall a season’s crowd grows. */
export const learntFigures = ['vigour', 'height'] as const;
export type LearntFigure = (typeof learntFigures)[number];

/** One lot’s say on a figure: mean and standard deviation of the logarithm of its factor on the species’ value. */
export interface LotTaught {
  lotId: string;
  code: string;
  logMean: number;
  logSd: number;
}

export interface Learnt {
  /** Factor on the species’ value. */
  factor: number;
  /** Spread a new lot of this kind has about it, as the standard deviation of its logarithm. */
  sdLog: number;
  lots: number;
  /** How far it still rests on the species’ value, 0–1. */
  startingShare: number;
}

/** A lot’s own spread about its kind is never believed smaller than this. */
const LEAST_SPREAD = 0.1;
/** A lot whose records moved its spread less than this has taught nothing. */
const TAUGHT_SHARE = 0.95;

/**
 * What lots of one species in one container teach of it: each lot’s records without the starting value they were read
 * with, pooled by precision, shrunk to the species’ value (empirical Bayes; between-lot variance by moments, DerSimonian
 * & Laird 1986, Controlled Clinical Trials 7:177).
 * @param priorSdLog spread the lots were read with at the start
 * @returns null when no lot’s records say more than the starting value
 * @throws Unfit when the spread at the start is not above 0
 */
export function learnFrom(taught: readonly LotTaught[], priorSdLog: number): Worked<Learnt> | null {
  if (!(priorSdLog > 0)) throw new Unfit(say`The spread at the start must be above 0.`);
  const own = taught
    .filter((lot) => lot.logSd < TAUGHT_SHARE * priorSdLog && lot.logSd > 0)
    .map((lot) => {
      const precision = 1 / lot.logSd ** 2 - 1 / priorSdLog ** 2;
      return { ...lot, variance: 1 / precision, mean: lot.logMean / lot.logSd ** 2 / precision };
    });
  if (own.length === 0) return null;
  const weights = own.map((lot) => 1 / lot.variance);
  const total = weights.reduce((t, w) => t + w, 0);
  const pooled = own.reduce((t, lot, i) => t + weights[i] * lot.mean, 0) / total;
  const q = own.reduce((t, lot, i) => t + weights[i] * (lot.mean - pooled) ** 2, 0);
  const c = total - weights.reduce((t, w) => t + w * w, 0) / total;
  const between = Math.max(LEAST_SPREAD ** 2, c > 0 ? (q - (own.length - 1)) / c : 0);
  let precision = 1 / priorSdLog ** 2;
  let sum = 0;
  for (const lot of own) {
    const weight = 1 / (lot.variance + between);
    precision += weight;
    sum += weight * lot.mean;
  }
  const middle = sum / precision;
  const startingShare = 1 / priorSdLog ** 2 / precision;
  const factor = Math.exp(middle);
  const sdLog = Math.min(priorSdLog, Math.sqrt(between + 1 / precision));
  return {
    value: { factor, sdLog, lots: own.length, startingShare },
    working: [
      ...own.map((lot) => ({
        what: say`${lot.code} by its own records`,
        how: say`What its records say of the factor, the starting value taken out again.`,
        result: Math.exp(lot.mean),
      })),
      {
        what: say`Spread between lots, of the logarithm`,
        how: say`By moments over ${own.length} lots, at least ${LEAST_SPREAD}.`,
        result: Math.sqrt(between),
        source: 'DerSimonian & Laird 1986, Controlled Clinical Trials 7:177',
      },
      {
        what: say`Factor on the species’ value`,
        expression: `exp(${put(middle)})`,
        result: factor,
        inputs: [
          { name: say`share of the species’ own value in it`, value: startingShare, origin: 'starting' },
        ],
      },
    ],
  };
}
