import { closedSetWords } from '../words/closedSets';
import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { Spread } from '../chance/spread';
import type { EpochDay } from '../calendar/day';
import { betaMean, type Beta } from '../chance/beta';
import { normalCdfFast } from '../chance/normal';
import { put, sum, type Worked } from '../working/working';

/** Float: sunk of n. Cut: sound of n. Germination: germinated of n. */
export const testKinds = ['germination', 'cut', 'float'] as const;
export type TestKind = (typeof testKinds)[number];

export interface SeedTest {
  day: EpochDay;
  kind: TestKind;
  n: number;
  k: number;
}

export interface StoredLot {
  /** Collected, or received where that is not known. */
  since: EpochDay;
  /** Share alive when fresh, as if so many seeds had been tried. */
  fresh: Beta;
  /** Days to lose a probit where and as it is stored. */
  sigmaDays: Spread;
  tests: readonly SeedTest[];
}

/**
 * How much a tried seed says of being alive. A sound kernel or a seed that sinks may still be dead, so cut and
 * float tests count as fewer seeds; rules of thumb.
 */
export const TEST_WEIGHT: Record<TestKind, number> = { germination: 1, cut: 0.5, float: 0.2 };
/** Weight of the species' starting value, in seeds. */
export const FRESH_WEIGHT = 10;

/** Cells of less weight than this are left out of means. */
const NEGLIGIBLE = 1e-9;
const KI_POINTS = 61;
const SIGMA_POINTS = 21;

/** The posterior over (Ki, ln σ) on a grid. */
export interface ViabilityPosterior {
  since: EpochDay;
  ki: Float64Array;
  sigmaDays: Float64Array;
  /** By cell, ki-major; sums to 1. */
  weights: Float64Array;
}

/** @throws Unfit with a sentence for more than were tried, or a test before the seed was collected */
export function mustBeTest({ day, n, k }: SeedTest, since: EpochDay): void {
  if (!(Number.isInteger(n) && n >= 1)) throw new Unfit(say`A test tries at least one seed.`);
  if (!(Number.isInteger(k) && k >= 0 && k <= n))
    throw new Unfit(say`${k} of ${n}: no more seeds can pass than were tried.`);
  if (day < since) throw new Unfit(say`The test is dated before the seed was collected. Check both dates.`);
}

/**
 * What the tests, the seed's age and its species say together of how alive it was fresh and how fast it ages:
 * a grid of Ki (probit of fresh viability) and ln σ; each test a binomial at its own age, by its weight.
 */
export function viabilityPosterior({ since, fresh, sigmaDays, tests }: StoredLot): ViabilityPosterior {
  for (const test of tests) mustBeTest(test, since);
  const ki = Float64Array.from({ length: KI_POINTS }, (_, i) => -3 + (6 * i) / (KI_POINTS - 1));
  const sigmas = Float64Array.from(
    { length: SIGMA_POINTS },
    (_, j) => sigmaDays.median * Math.exp(sigmaDays.sdLog * zOf(j)),
  );
  const weights = new Float64Array(KI_POINTS * SIGMA_POINTS);
  let most = -Infinity;
  for (let i = 0; i < KI_POINTS; i++) {
    const v = clamp(normalCdfFast(ki[i]));
    const prior = fresh.alpha * Math.log(v) + fresh.beta * Math.log(1 - v) - logJacobian(ki[i], v);
    for (let j = 0; j < SIGMA_POINTS; j++) {
      let log = prior - 0.5 * zOf(j) ** 2;
      for (const { day, kind, n, k } of tests) {
        const p = clamp(normalCdfFast(ki[i] - (day - since) / sigmas[j]));
        log += TEST_WEIGHT[kind] * (k * Math.log(p) + (n - k) * Math.log(1 - p));
      }
      weights[i * SIGMA_POINTS + j] = log;
      most = Math.max(most, log);
    }
  }
  let total = 0;
  for (let c = 0; c < weights.length; c++) total += weights[c] = Math.exp(weights[c] - most);
  for (let c = 0; c < weights.length; c++) weights[c] /= total;
  return { since, ki, sigmaDays: sigmas, weights };
}

/** ln of v(1 − v)/φ(K): turns the Beta's density over v into one over its probit K. */
function logJacobian(k: number, v: number): number {
  return Math.log(v) + Math.log(1 - v) + 0.5 * k * k;
}
function zOf(j: number): number {
  return (j / (SIGMA_POINTS - 1) - 0.5) * 6;
}
function clamp(p: number): number {
  return Math.min(1 - 1e-9, Math.max(1e-9, p));
}

/** Share alive on a day: mean, band and the Beta with the same mean and spread. */
export interface Viability {
  mean: number;
  p10: number;
  p90: number;
  beta: Beta;
}

/** Share alive of each cell of the grid on a day. */
function sharesOn({ since, ki, sigmaDays }: ViabilityPosterior, day: EpochDay): Float64Array {
  const age = Math.max(0, day - since);
  const shares = new Float64Array(ki.length * SIGMA_POINTS);
  for (let j = 0; j < SIGMA_POINTS; j++) {
    const lost = age / sigmaDays[j];
    for (let i = 0; i < ki.length; i++) shares[i * SIGMA_POINTS + j] = normalCdfFast(ki[i] - lost);
  }
  return shares;
}

/** Mean and variance of the share alive on a day. */
function momentsAt(posterior: ViabilityPosterior, day: EpochDay): { mean: number; variance: number } {
  const { since, ki, sigmaDays, weights } = posterior;
  const age = Math.max(0, day - since);
  let mean = 0;
  let square = 0;
  for (let j = 0; j < SIGMA_POINTS; j++) {
    const lost = age / sigmaDays[j];
    for (let i = 0, c = j; i < ki.length; i++, c += SIGMA_POINTS) {
      const weight = weights[c];
      // Most of the grid is as good as impossible once seed was tested.
      if (weight < NEGLIGIBLE) continue;
      const share = normalCdfFast(ki[i] - lost);
      mean += weight * share;
      square += weight * share * share;
    }
  }
  return { mean, variance: Math.max(square - mean * mean, 1e-8) };
}

export function viabilityAt(posterior: ViabilityPosterior, day: EpochDay): Viability {
  const { mean, variance } = momentsAt(posterior, day);
  const shares = sharesOn(posterior, day);
  const order = Array.from(shares.keys()).sort((a, b) => shares[a] - shares[b]);
  const at = (share: number) => {
    let sofar = 0;
    for (const c of order) if ((sofar += posterior.weights[c]) >= share) return shares[c];
    return shares[order[order.length - 1]];
  };
  return { mean, p10: at(0.1), p90: at(0.9), beta: betaLike(mean, variance) };
}

/** The Beta with a mean and variance, kept off the very ends. */
function betaLike(mean: number, variance: number): Beta {
  const held = Math.min(0.999, Math.max(0.001, mean));
  const weight = Math.max(0.5, (held * (1 - held)) / variance - 1);
  return { alpha: held * weight, beta: (1 - held) * weight };
}

/** Below this share alive a lot is hardly worth its bench. */
export const DEAD_SHARE = 0.1;
/** A band wider than this wants a new test. */
const WIDE_BAND = 0.3;
const FALLEN = 0.1;
/** Standard deviations between one chance in ten below and above. */
const BAND_SDS = 2.563;

export interface ViabilityOutlook {
  now: Viability;
  /** First day on which fewer than a tenth are expected alive; Infinity if not within ten years. */
  deadOn: EpochDay;
  /** When to test again: the band has grown too wide, or a tenth is likely lost since the last test. */
  retestOn: EpochDay;
  /** Whether it was ever tested for germination; until then it is tested, not tested again. */
  tested: boolean;
}

/** First day on which the mean share alive is at or below a share, by halves; Infinity if not by the last day. */
function dayMeanFalls(posterior: ViabilityPosterior, share: number, last: EpochDay): EpochDay {
  if (momentsAt(posterior, last).mean > share) return Infinity;
  let [above, below] = [posterior.since - 1, last];
  while (below - above > 1) {
    const middle = Math.floor((above + below) / 2);
    if (momentsAt(posterior, middle).mean > share) above = middle;
    else below = middle;
  }
  return below;
}

/** Viability on a day, when the seed is likely dead and when a new test is due. */
export function viabilityOutlook(lot: StoredLot, day: EpochDay): Worked<ViabilityOutlook> {
  const posterior = viabilityPosterior(lot);
  const now = viabilityAt(posterior, day);
  const lastTest = Math.max(lot.since, ...lot.tests.map((t) => t.day));
  const then = viabilityAt(posterior, lastTest);
  const deadOn = dayMeanFalls(posterior, DEAD_SHARE, day + 3653);
  const fallen = dayMeanFalls(posterior, then.mean - FALLEN, day + 3653);
  let retestOn = Math.max(lastTest + 1, fallen);
  for (let d = lastTest + 14; d < Math.min(retestOn, deadOn); d += 14)
    if (BAND_SDS * Math.sqrt(momentsAt(posterior, d).variance) > WIDE_BAND) retestOn = d;
  const tested = lot.tests.some((t) => t.kind === 'germination');
  if (!tested) retestOn = Math.min(retestOn, day);
  const tried = lot.tests.reduce((n, t) => n + t.n * TEST_WEIGHT[t.kind], 0);
  const prior = betaMean(lot.fresh);
  return {
    value: { now, deadOn, retestOn, tested },
    working: [
      {
        what: say`Fresh viability to begin with`,
        expression: sum`${lot.fresh.alpha} ÷ (${lot.fresh.alpha} + ${lot.fresh.beta})`,
        result: prior,
        inputs: [
          {
            name: say`as if tried`,
            value: lot.fresh.alpha + lot.fresh.beta,
            unit: 'seeds',
            origin: 'starting',
          },
        ],
      },
      {
        what: say`Ageing`,
        how: say`Probit falls by one in about ${put(Math.round(lot.sigmaDays.median))} days in this store; ${day - lot.since} days have gone.`,
        result: day - lot.since,
        unit: 'd',
        inputs: [
          {
            name: say`days to lose one probit`,
            value: Math.round(lot.sigmaDays.median),
            unit: 'd',
            origin: 'starting',
          },
        ],
        source: 'Ellis & Roberts 1980',
      },
      {
        what: say`Tests`,
        how: lot.tests.length
          ? lot.tests
              .map((t) => say`${closedSetWords[t.kind]} ${t.k} of ${t.n}, at weight ${TEST_WEIGHT[t.kind]}`)
              .join('; ')
          : say`None yet: everything rests on the starting value.`,
        result: tried,
        unit: 'seeds, weighted',
        inputs: lot.tests.length ? [{ name: say`own tests`, value: lot.tests.length, origin: 'record' }] : [],
      },
      {
        what: say`Alive on the day`,
        how: say`Bayes’ rule on a grid of fresh viability and ageing; mean, with one chance in ten below and above the band.`,
        result: now.mean,
      },
    ],
  };
}

/** Viability of a lot on a run of days, to draw. */
export function viabilityCurve(lot: StoredLot, days: readonly EpochDay[]): Viability[] {
  const posterior = viabilityPosterior(lot);
  return days.map((day) => viabilityAt(posterior, day));
}
