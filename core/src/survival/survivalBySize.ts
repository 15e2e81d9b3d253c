import { choleskyRoot, logDeterminant, solveBy } from '../chance/cholesky';
import { normalCdf, normalQuantile } from '../chance/normal';
import { logBeta } from '../sowing/betaBinomial';
import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { put, type Step, type Worked } from '../working/working';
import { SURVIVAL_LEVEL } from './survivalGroups';

/** A tree as it was planted: height, cm, and collar, mm. */
export interface SizeAtPlanting {
  heightCm: number;
  collarMm: number;
}

/** Trees of one size planted together, as a walk found them. */
export interface SizedCase extends SizeAtPlanting {
  /** Where: trees of one planting share its ground and its luck. */
  planting: string;
  alive: number;
  dead: number;
}

/** From so many trees on something is said of their size. */
export const SIZED_TREES = 200;
/** Collars of parts that differ by less than this, of the logarithm, tell nothing. */
const LEAST_SPREAD = 0.05;

/** Slopes and level of ln(S ÷ (1 − S)), in one of the ways plantings and parts may differ. */
interface Component {
  weight: number;
  mean: readonly [level: number, collar: number, sturdiness: number];
  /** 3 × 3, row by row. */
  covariance: readonly number[];
}

/** What own plantings tell of how size at planting decides who lives. */
export interface SurvivalBySize {
  trees: number;
  parts: number;
  plantings: number;
  /** Middles over the trees, to which the level belongs: ln of the collar, and height over collar, cm/mm. */
  middle: { lnCollar: number; sturdiness: number };
  /** Standard deviations over the trees: one of each is what a slope is of. */
  spread: { lnCollar: number; sturdiness: number };
  /** Collars that were planted, mm: outside nothing is known. */
  collarsMm: { from: number; to: number };
  components: readonly Component[];
  /** Chance that, as tall for their collar, the thicker live more often. */
  thicker: number;
  /** Chance that, of one collar, the stockier (less tall) live more often. */
  stockier: number;
}

/** Why nothing is said of size yet. */
export interface SizeUntold {
  untold: 'few' | 'one planting' | 'alike';
  trees: number;
}

/** A level is about 0 within this, and a slope about 0 within 1 for one standard deviation between parts: the ridge. */
const LEVEL_SD = 2.5;
const SLOPE_SD = 1;
/** How much plantings may differ, σ of ln odds, and how it usually is (half a normal, a starting value). */
const PLANTINGS_SD = [0.08, 0.2, 0.4, 0.75, 1.4];
const USUAL_SD = 0.7;
/** How much parts of a planting may, ρ, and how it usually is. */
const PARTS_RHO = [0.003, 0.012, 0.04, 0.1, 0.25];
const USUAL_RHO = 0.08;
/** Steps of Newton's method at most, and the step that ends it. */
const MOST_STEPS = 40;
const SMALL_STEP = 1e-7;

/**
 * Survival by size at planting: logit S = b₀ + b₁·ln D + b₂·H/D + planting, by a ridge on the slopes, a normal spread of
 * plantings and a beta-binomial one of the parts of each; over every spread by how likely it is.
 * @returns what is known, or why nothing is said: from 200 trees in two plantings whose collars differ
 * @throws Unfit for counts below 0, and sizes not above 0
 * @see Gelman et al. 2013, Bayesian Data Analysis, 3rd ed., 13.3 (normal approximation) and 16.3
 */
export function survivalBySize(cases: readonly SizedCase[]): Worked<SurvivalBySize> | SizeUntold {
  if (cases.some(({ alive, dead }) => !(alive >= 0 && dead >= 0)))
    throw new Unfit(say`Trees alive and dead are 0 or more.`);
  if (cases.some(({ heightCm, collarMm }) => !(heightCm > 0 && collarMm > 0)))
    throw new Unfit(say`A height and a collar are above 0.`);
  const seen = cases
    .filter(({ alive, dead }) => alive + dead > 0)
    // One sum whatever the order they come in.
    .sort(
      (a, b) =>
        a.planting.localeCompare(b.planting) ||
        a.collarMm - b.collarMm ||
        a.heightCm - b.heightCm ||
        a.alive - b.alive ||
        a.dead - b.dead,
    );
  const trees = seen.reduce((all, { alive, dead }) => all + alive + dead, 0);
  if (trees < SIZED_TREES) return { untold: 'few', trees };
  const plantings = [...new Set(seen.map(({ planting }) => planting))].sort();
  if (plantings.length < 2) return { untold: 'one planting', trees };
  const over = (of: (one: SizedCase) => number) => {
    const mean = seen.reduce((all, one) => all + of(one) * (one.alive + one.dead), 0) / trees;
    const square = seen.reduce((all, one) => all + (of(one) - mean) ** 2 * (one.alive + one.dead), 0) / trees;
    return { mean, sd: Math.sqrt(square) };
  };
  const collar = over(({ collarMm }) => Math.log(collarMm));
  const sturdiness = over(({ heightCm, collarMm }) => heightCm / collarMm);
  if (collar.sd < LEAST_SPREAD) return { untold: 'alike', trees };
  const about = {
    middle: { lnCollar: collar.mean, sturdiness: sturdiness.mean },
    spread: { lnCollar: collar.sd, sturdiness: Math.max(sturdiness.sd, 1e-3) },
  };
  const rows = seen.map((one) => ({
    x: placeOf(about, one),
    site: plantings.indexOf(one.planting),
    k: one.alive,
    n: one.alive + one.dead,
  }));
  let from: Float64Array = new Float64Array(3 + plantings.length);
  const tried = PLANTINGS_SD.flatMap((sd) =>
    PARTS_RHO.map((rho) => {
      const one = fitted(rows, from, sd, rho);
      // The next spread is much like this one.
      from = one.at;
      return one;
    }),
  );
  const best = Math.max(...tried.map(({ log }) => log));
  const all = tried.reduce((sum, { log }) => sum + Math.exp(log - best), 0);
  const components = tried
    .map(({ log, mean, covariance }) => ({ weight: Math.exp(log - best) / all, mean, covariance }))
    .filter(({ weight }) => weight > 1e-5);
  const above = (at: 1 | 2) =>
    components.reduce(
      (sum, { weight, mean, covariance }) =>
        sum + weight * normalCdf(mean[at] / Math.sqrt(covariance[4 * at])),
      0,
    );
  const collars = seen.map(({ collarMm }) => collarMm);
  const value: SurvivalBySize = {
    ...{ trees, parts: seen.length, plantings: plantings.length, ...about, components },
    collarsMm: { from: Math.min(...collars), to: Math.max(...collars) },
    thicker: above(1),
    stockier: 1 - above(2),
  };
  return { value, working: workingOf(value) };
}

/** A size as the model reads it: 1, and how far collar and sturdiness are from the middle, in standard deviations. */
const placeOf = (
  { middle, spread }: Pick<SurvivalBySize, 'middle' | 'spread'>,
  { heightCm, collarMm }: SizeAtPlanting,
): readonly [number, number, number] => [
  1,
  (Math.log(collarMm) - middle.lnCollar) / spread.lnCollar,
  (heightCm / collarMm - middle.sturdiness) / spread.sturdiness,
];

/**
 * Share of trees of a size that live in a planting that is neither better nor worse than others.
 * @returns the middle, and the band it is in with the level asked for; all 0–1
 */
export function survivalAt(
  known: SurvivalBySize,
  size: SizeAtPlanting,
  level: number = SURVIVAL_LEVEL,
): { lower: number; mean: number; upper: number } {
  const x = placeOf(known, size);
  let [middle, square] = [0, 0];
  for (const { weight, mean, covariance } of known.components) {
    const at = x.reduce((sum, one, i) => sum + one * mean[i], 0);
    const variance = x.reduce(
      (sum, a, i) => sum + a * x.reduce((s, b, j) => s + b * covariance[3 * i + j], 0),
      0,
    );
    middle += weight * at;
    square += weight * (variance + at ** 2);
  }
  const reach = normalQuantile((1 + level) / 2) * Math.sqrt(Math.max(0, square - middle ** 2));
  return { lower: shareOf(middle - reach), mean: shareOf(middle), upper: shareOf(middle + reach) };
}
const shareOf = (logOdds: number): number => 1 / (1 + Math.exp(-logOdds));

interface Row {
  x: readonly [number, number, number];
  site: number;
  k: number;
  n: number;
}

/** ln of the chance that k of n live, where parts differ by ρ about a share. */
function logChance(k: number, n: number, logOdds: number, rho: number): number {
  const heavy = 1 / rho - 1;
  const share = Math.min(1 - 1e-9, Math.max(1e-9, shareOf(logOdds)));
  const [alpha, beta] = [share * heavy, (1 - share) * heavy];
  return logBeta(alpha + k, beta + n - k) - logBeta(alpha, beta);
}

/** Width of the differences by which the chance is followed up and down. */
const DIFFERENCE = 0.02;

/** The most likely values under one spread of plantings and of parts, how sure they are, and how likely that spread is. */
function fitted(rows: readonly Row[], from: Float64Array, sd: number, rho: number) {
  const size = from.length;
  const prior = Float64Array.from({ length: size }, (_, i) =>
    i === 0 ? LEVEL_SD ** -2 : i < 3 ? SLOPE_SD ** -2 : sd ** -2,
  );
  const oddsAt = (at: Float64Array, { x, site }: Row) =>
    at[0] * x[0] + at[1] * x[1] + at[2] * x[2] + at[3 + site];
  const logAt = (at: Float64Array) =>
    rows.reduce((sum, row) => sum + logChance(row.k, row.n, oddsAt(at, row), rho), 0) -
    at.reduce((sum, v, i) => sum + prior[i] * v * v, 0) / 2;
  let at: Float64Array = from;
  let log = logAt(at);
  let root: Float64Array = new Float64Array(size * size);
  for (let step = 0; step < MOST_STEPS; step++) {
    const matrix = new Float64Array(size * size);
    const slope = Float64Array.from(at, (v, i) => -prior[i] * v);
    for (let i = 0; i < size; i++) matrix[i * size + i] = prior[i];
    for (const row of rows) {
      const odds = oddsAt(at, row);
      const [down, here, up] = [-DIFFERENCE, 0, DIFFERENCE].map((d) =>
        logChance(row.k, row.n, odds + d, rho),
      );
      const first = (up - down) / (2 * DIFFERENCE);
      // Far out the chance bends the other way; what the share alone tells keeps the step a step upwards.
      const share = shareOf(odds);
      const told = (row.n * share * (1 - share)) / (1 + (row.n - 1) * rho);
      const bend = Math.max(0.1 * told, (2 * here - up - down) / DIFFERENCE ** 2);
      const places = [0, 1, 2, 3 + row.site];
      const values = [...row.x, 1];
      places.forEach((a, i) => {
        slope[a] += first * values[i];
        places.forEach((b, j) => (matrix[a * size + b] += bend * values[i] * values[j]));
      });
    }
    root = choleskyRoot(matrix, size);
    const towards = solveBy(root, slope);
    let share = 1;
    let next = at;
    let nextLog = log;
    // Half as far until it is a step upwards.
    do {
      next = at.map((v, i) => v + share * towards[i]);
      nextLog = logAt(next);
      share /= 2;
    } while (!(nextLog >= log - 1e-12) && share > 1e-4);
    const moved = Math.max(...next.map((v, i) => Math.abs(v - at[i])));
    [at, log] = [next, nextLog];
    if (moved < SMALL_STEP) break;
  }
  const columns = [0, 1, 2].map((i) =>
    solveBy(
      root,
      Float64Array.from({ length: size }, (_, j) => +(i === j)),
    ),
  );
  const usual = Math.log(sd) - sd ** 2 / (2 * USUAL_SD ** 2) + Math.log(rho) - rho / USUAL_RHO;
  const evidence = log + prior.reduce((sum, p) => sum + Math.log(p), 0) / 2 - logDeterminant(root, size) / 2;
  return {
    at,
    log: evidence + usual,
    mean: [at[0], at[1], at[2]] as const,
    covariance: [0, 1, 2].flatMap((i) => [columns[i][0], columns[i][1], columns[i][2]]),
  };
}

function workingOf({
  trees,
  parts,
  plantings,
  middle,
  spread,
  components,
  thicker,
  stockier,
}: SurvivalBySize): Step[] {
  const slope = (at: 0 | 1 | 2) => {
    const mean = components.reduce((sum, one) => sum + one.weight * one.mean[at], 0);
    const square = components.reduce(
      (sum, one) => sum + one.weight * (one.covariance[4 * at] + one.mean[at] ** 2),
      0,
    );
    return `${put(Number(mean.toPrecision(3)))} ± ${put(Number(Math.sqrt(square - mean ** 2).toPrecision(2)))}`;
  };
  return [
    {
      what: say`What it was learnt from`,
      how: say`logit S = b₀ + b₁ × ln D + b₂ × H ÷ D + planting, over ${parts} parts of ${plantings} plantings. Slopes are held towards 0 (a ridge), plantings and their parts differ by what is most likely, over every such difference.`,
      result: trees,
      unit: 'trees',
      source: 'Gelman et al. 2013, Bayesian Data Analysis, 3rd ed., 13.3, 16.3',
    },
    {
      what: say`b₀ at the middle size, with its standard deviation`,
      how: say`The middle is a collar of ${Math.round(Math.exp(middle.lnCollar) * 10) / 10} mm and ${Math.round(middle.sturdiness * 10) / 10} cm of height to each mm of it.`,
      result: slope(0),
    },
    {
      what: say`b₁ for one standard deviation of ln D`,
      how: say`One is ${Math.round(spread.lnCollar * 100)} % of the collar. Above 0 the thicker live more often: chance ${Math.round(thicker * 100)} %.`,
      result: slope(1),
    },
    {
      what: say`b₂ for one standard deviation of H ÷ D`,
      how: say`One is ${Math.round(spread.sturdiness * 10) / 10} cm/mm. Below 0 the stockier live more often: chance ${Math.round(stockier * 100)} %.`,
      result: slope(2),
    },
  ];
}
