import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { betaMean, type Beta } from '../chance/beta';
import { normalCdf } from '../chance/normal';
import { put, sum, type Worked } from '../working/working';
import { logBeta } from './betaBinomial';

/** What is known of the share before: any share is as likely as another. */
const FLAT: Beta = { alpha: 1, beta: 1 };
const POINTS = 80;

export interface Arm {
  name: string;
  n: number;
  k: number;
  /** Trays or patches it was sown over; 1 where left out. */
  trays?: number;
}

/** Seeds of one tray share its luck this much (intraclass correlation; a starting value). */
const WITHIN_TRAY = 0.03;

/**
 * Seeds that so many in so few trays are worth: n ÷ (1 + (n/trays − 1)·ρ), the design effect of clusters.
 * @see Kish 1965, Survey Sampling, ch. 5
 */
function seedsWorth(n: number, trays = 1): number {
  const each = n / Math.max(1, Math.min(trays, n));
  return n / (1 + (each - 1) * WITHIN_TRAY);
}

export interface ShareComparison {
  /** Chance that A's true share is the higher. */
  chanceABetter: number;
  /** A's share less B's: mean and the band that holds nine times in ten. */
  difference: { mean: number; p5: number; p95: number };
  verdict: 'A' | 'B' | 'leans to A' | 'leans to B' | 'no telling yet' | 'no real difference';
  /**
   * Trays more of each, as large as those sown, that would likely settle it; 0 when it is settled, null when no number is
   * in reach. More seed in the same trays would settle far less.
   */
  moreTrays: number | null;
}

/** Settled at this chance; leaning from the next. */
const SURE = 0.95;
const LEANS = 0.8;
/** Arms smaller than this are never called. */
const FEWEST = 25;
/** A difference smaller than this is of no use to a grower. */
const MATTERS = 0.05;
const MOST_TRAYS = 40;

/**
 * Two treatments of one seed lot by their share: the chance that A beats B, and by how much, from the two Beta
 * posteriors on a grid.
 * @throws Unfit with a sentence when more came than were sown, or nothing was sown
 */
export function compareShares(a: Arm, b: Arm): Worked<ShareComparison> {
  for (const arm of [a, b]) {
    if (!(Number.isInteger(arm.n) && arm.n >= 1)) throw new Unfit(say`${arm.name}: nothing was sown.`);
    if (!(Number.isInteger(arm.k) && arm.k >= 0 && arm.k <= arm.n))
      throw new Unfit(say`${arm.name}: ${arm.k} of ${arm.n} cannot be; check the counts.`);
  }
  const [pa, pb] = [posterior(a), posterior(b)];
  const { chance, difference } = difference90(gridOf(pa), gridOf(pb));
  const small = Math.min(a.n, b.n) < FEWEST;
  const verdict = verdictOf(chance, difference, small);
  const value: ShareComparison = {
    chanceABetter: chance,
    difference,
    verdict,
    moreTrays: verdict === 'A' || verdict === 'B' || verdict === 'no real difference' ? 0 : moreTrays(a, b),
  };
  return {
    value,
    working: [
      ...[a, b].flatMap((arm) => {
        const { n, k, trays = 1 } = arm;
        const worth = seedsWorth(n, trays);
        const up = (k / n) * worth;
        return [
          {
            what: say`${arm.name}: seeds these are worth, as those of a tray share its luck`,
            expression: sum`${n} ÷ (1 + (${n} ÷ ${Math.min(trays, n)} − 1) × ${WITHIN_TRAY})`,
            result: worth,
            inputs: [
              { name: 'counted', value: say`${k} of ${n}`, origin: 'record' as const },
              { name: say`trays or patches`, value: trays, origin: 'record' as const },
              { name: say`seeds of a tray alike, ρ`, value: WITHIN_TRAY, origin: 'starting' as const },
            ],
            source: 'Kish 1965, Survey Sampling, ch. 5',
          },
          {
            what: say`${arm.name}: share, with one of each added as nothing is known before`,
            expression: sum`(${up} + 1) ÷ (${worth} + 2)`,
            result: (up + 1) / (worth + 2),
          },
        ];
      }),
      {
        what: say`Chance that ${a.name} is the better`,
        how: say`Over all pairs of shares the counts allow, by their odds (Beta posteriors on a grid).`,
        result: chance,
        source: 'Beta-binomial; Gelman et al., Bayesian Data Analysis, ch. 2',
      },
      {
        what: say`Difference, nine times in ten within`,
        how: say`${put(difference.p5)} to ${put(difference.p95)}`,
        result: difference.mean,
      },
    ],
  };
}

function posterior({ n, k, trays }: Arm): Beta {
  const worth = seedsWorth(n, trays);
  const up = (k / n) * worth;
  return { alpha: FLAT.alpha + up, beta: FLAT.beta + worth - up };
}

interface Grid {
  at: Float64Array;
  weight: Float64Array;
}

/** A Beta on midpoints within eight standard deviations of its mean, cut at 0 and 1. */
function gridOf(share: Beta): Grid {
  const mean = betaMean(share);
  const sd = Math.sqrt((mean * (1 - mean)) / (share.alpha + share.beta + 1));
  const low = Math.max(0, mean - 8 * sd);
  const high = Math.min(1, mean + 8 * sd);
  const width = (high - low) / POINTS;
  const at = Float64Array.from({ length: POINTS }, (_, i) => low + (i + 0.5) * width);
  const norm = logBeta(share.alpha, share.beta);
  const weight = at.map((p) =>
    Math.exp((share.alpha - 1) * Math.log(p) + (share.beta - 1) * Math.log(1 - p) - norm),
  );
  const total = weight.reduce((t, w) => t + w, 0);
  return { at, weight: weight.map((w) => w / total) };
}

function difference90(a: Grid, b: Grid) {
  const pairs: [difference: number, weight: number][] = [];
  let chance = 0;
  let mean = 0;
  for (let i = 0; i < POINTS; i++) {
    for (let j = 0; j < POINTS; j++) {
      const weight = a.weight[i] * b.weight[j];
      if (weight < 1e-9) continue;
      const d = a.at[i] - b.at[j];
      chance += d > 0 ? weight : d === 0 ? weight / 2 : 0;
      mean += weight * d;
      pairs.push([d, weight]);
    }
  }
  pairs.sort((x, y) => x[0] - y[0]);
  const at = (share: number) => {
    let sofar = 0;
    for (const [d, weight] of pairs) if ((sofar += weight) >= share) return d;
    return pairs[pairs.length - 1][0];
  };
  return { chance, difference: { mean, p5: at(0.05), p95: at(0.95) } };
}

function verdictOf(
  chance: number,
  { p5, p95 }: ShareComparison['difference'],
  small: boolean,
): ShareComparison['verdict'] {
  if (p5 > -MATTERS && p95 < MATTERS) return 'no real difference';
  if (!small && chance >= SURE) return 'A';
  if (!small && chance <= 1 - SURE) return 'B';
  if (chance >= LEANS) return 'leans to A';
  if (chance <= 1 - LEANS) return 'leans to B';
  return 'no telling yet';
}

/** Trays of each arm beyond those sown that would settle it if the shares went on as counted. */
function moreTrays(a: Arm, b: Arm): number | null {
  for (let more = 1; more <= MOST_TRAYS; more = Math.ceil(more * 1.5)) {
    const larger = [a, b].map((arm) => {
      const { trays = 1 } = arm;
      const n = Math.round((arm.n / trays) * (trays + more));
      return gridOf(
        posterior({ ...arm, n, k: Math.round((n * (arm.k + 1)) / (arm.n + 2)), trays: trays + more }),
      );
    });
    const { chance, difference } = difference90(larger[0], larger[1]);
    const settled = verdictOf(chance, difference, false);
    if (settled === 'A' || settled === 'B' || settled === 'no real difference') return more;
  }
  return null;
}

/** Chance of each of several arms to be the best of all at once; they sum to 1. */
export function chancesBest(arms: readonly Arm[]): number[] {
  const grids = arms.map((arm) => gridOf(posterior(arm)));
  const below = (grid: Grid, at: number) => {
    let share = 0;
    for (let i = 0; i < POINTS; i++)
      share += grid.at[i] < at ? grid.weight[i] : grid.at[i] === at ? grid.weight[i] / 2 : 0;
    return share;
  };
  const chances = grids.map((grid, arm) => {
    let total = 0;
    for (let i = 0; i < POINTS; i++) {
      let best = grid.weight[i];
      for (let other = 0; other < grids.length && best > 0; other++)
        if (other !== arm) best *= below(grids[other], grid.at[i]);
      total += best;
    }
    return total;
  });
  const all = chances.reduce((t, chance) => t + chance, 0);
  return chances.map((chance) => chance / all);
}

/** A measured mean of an arm, such as first-year height. */
export interface MeanOf {
  /** Trays or patches they stood in; 1 where left out. */
  trays?: number;
  n: number;
  mean: number;
  sd: number;
}

/**
 * Chance that A's mean is the higher, normal with each mean's standard error, plants of a tray sharing its luck; null
 * where either is unknown.
 */
export function chanceMeanHigher(
  a: MeanOf | null,
  b: MeanOf | null,
): { chance: number; difference: number } | null {
  if (!a || !b || a.n < 2 || b.n < 2) return null;
  const error = Math.sqrt(a.sd ** 2 / seedsWorth(a.n, a.trays) + b.sd ** 2 / seedsWorth(b.n, b.trays));
  const difference = a.mean - b.mean;
  return { difference, chance: error > 0 ? normalCdf(difference / error) : difference > 0 ? 1 : 0.5 };
}
