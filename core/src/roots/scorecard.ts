import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { put, type Step, type Worked } from '../working/working';
import type { RootFigure, RootFigures } from './rootFigures';

export const rootSchools = ['structure', 'fibre', 'depth'] as const;
export type RootSchool = (typeof rootSchools)[number];

/** One thing a scorecard asks. */
export interface Criterion {
  figure: RootFigure;
  /** Bounds of what is good; null for none on that side. */
  least: number | null;
  most: number | null;
  weight: number;
  /** A plant that misses it fails, whatever else. */
  fatal: boolean;
}

/** What a school asks of a plant’s roots. A nursery edits its own. */
export interface Scorecard<S extends RootSchool = RootSchool> {
  school: S;
  criteria: Criterion[];
  /** Share of the weight seen that must be met, 0–1. */
  pass: number;
}

export interface PlantScore {
  passes: boolean;
  /** Share of the weight of what was seen that is met. */
  score: number;
  missed: Criterion[];
  /** What the card asks and the plant’s record does not say. */
  unseen: Criterion[];
}

const ask = (
  figure: RootFigure,
  bounds: { least?: number; most?: number },
  weight: number,
  fatal = false,
): Criterion => ({ figure, least: bounds.least ?? null, most: bounds.most ?? null, weight, fatal });

/**
 * Where each school begins. Limits are rules of thumb, meant to be changed to the nursery’s own: structure asks
 * for straight roots all round, fibre for many young tips and a held, unmatted plug, depth for a straight taproot
 * and fibre in the lowest third.
 */
export const startingScorecards: { [S in RootSchool]: Scorecard<S> } = {
  structure: {
    school: 'structure',
    pass: 0.7,
    criteria: [
      ask('laterals', { least: 4 }, 2),
      ask('largestGapDeg', { most: 150 }, 2),
      ask('oneSided', { most: 0.6 }, 1),
      ask('straight', { least: 0.6 }, 3),
      ask('turned', { most: 0.25 }, 3, true),
      ask('straightTop', { least: 2 }, 2),
      ask('tapSound', { least: 1 }, 2, true),
      ask('plug', { least: 2, most: 3 }, 1),
      ask('sturdiness', { most: 9 }, 1),
    ],
  },
  fibre: {
    school: 'fibre',
    pass: 0.7,
    criteria: [
      ask('fibre', { least: 2 }, 3),
      ask('tips', { least: 0.5 }, 2, true),
      ask('surface', { most: 2 }, 2),
      ask('plug', { least: 2, most: 3 }, 3, true),
      ask('laterals', { least: 6 }, 1),
      ask('tapStraight', { most: 0 }, 1),
      ask('turned', { most: 0.5 }, 1),
      ask('sturdiness', { most: 9 }, 1),
    ],
  },
  depth: {
    school: 'depth',
    pass: 0.7,
    criteria: [
      ask('tapStraight', { least: 1 }, 3, true),
      ask('fibreLow', { least: 1.5 }, 3),
      ask('turned', { most: 0.35 }, 2, true),
      ask('largestGapDeg', { most: 200 }, 1),
      ask('plug', { least: 2, most: 3 }, 1),
      ask('sturdiness', { most: 8 }, 2),
    ],
  },
};

/** Whether a figure lies where a criterion wants it. */
export function meets({ least, most }: Pick<Criterion, 'least' | 'most'>, value: number): boolean {
  return (least === null || value >= least - 1e-9) && (most === null || value <= most + 1e-9);
}

/** Whether a card asks anything that was seen of a plant. */
export function canJudge(figures: RootFigures, card: Scorecard): boolean {
  return card.criteria.some((c) => figures[c.figure] !== null && c.weight > 0);
}

/**
 * A plant under a scorecard. What was not seen neither helps nor harms.
 * @throws Unfit when nothing the card asks was seen
 */
export function scorePlant(figures: RootFigures, card: Scorecard): Worked<PlantScore> {
  const seen = card.criteria.filter((c) => figures[c.figure] !== null && c.weight > 0);
  const unseen = card.criteria.filter((c) => figures[c.figure] === null);
  if (seen.length === 0) throw new Unfit(say`Nothing that this scorecard asks was recorded of the plant.`);
  const missed = seen.filter((c) => !meets(c, figures[c.figure]!));
  const weigh = (criteria: readonly Criterion[]) => criteria.reduce((t, c) => t + c.weight, 0);
  const all = weigh(seen);
  const met = all - weigh(missed);
  const score = met / all;
  const passes = score >= card.pass - 1e-9 && !missed.some((c) => c.fatal);
  const steps: Step[] = [
    {
      what: say`Weight met of the weight seen`,
      expression: `${put(met)} ÷ ${put(all)}`,
      result: score,
      inputs: seen.map((c) => ({
        name: c.figure,
        value: figures[c.figure]!,
        origin: 'record' as const,
      })),
      source: `The nursery’s ${card.school} scorecard; passes from ${put(card.pass)}`,
    },
  ];
  return { value: { passes, score, missed, unseen }, working: steps };
}
