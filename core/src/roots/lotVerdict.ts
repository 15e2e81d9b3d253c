import { say } from '../speech/say';
import { betaQuantile, jeffreys } from '../chance/betaCdf';
import type { EpochDay } from '../calendar/day';
import { wholeShare } from '../chance/beta';
import type { Step, Worked } from '../working/working';
import { rootFigures, type RootFigure } from './rootFigures';
import type { RootPlant } from './rootPlant';
import {
  canJudge,
  scorePlant,
  startingScorecards,
  type PlantScore,
  type RootSchool,
  type Scorecard,
} from './scorecard';
import { sequentialVerdict, type SequentialTerms, type SequentialVerdict } from './sequentialPlan';

/** A plant as it was pulled. */
export interface PulledPlant {
  id: string;
  day: EpochDay;
  plant: RootPlant;
}

export interface LotVerdict {
  sequential: SequentialVerdict;
  /** Share of plants that pass, with its eight-in-ten band; the band is of the share in the lot. */
  passing: { share: number; p10: number; p90: number };
  plants: (PulledPlant & { score: PlantScore })[];
  /** Plants of which nothing that the card asks was seen; they count neither way. */
  unjudged: number;
  /** What plants miss, commonest first. */
  defects: { figure: RootFigure; plants: number; fatal: boolean }[];
}

/** What is asked of a lot where a nursery has not set its own: one plant in ten may fail, three in ten is bad. */
export const usualTerms: SequentialTerms = {
  acceptable: 0.1,
  rejectable: 0.3,
  producerRisk: 0.1,
  consumerRisk: 0.1,
};
/** Most plants pulled of one lot before the odds decide. */
export const PULL_CAP = 20;

/** What a nursery goes by until it sets its own. */
export const usualRootRules = {
  schema: 1 as const,
  school: 'structure' as RootSchool,
  cards: startingScorecards,
  terms: usualTerms,
  cap: PULL_CAP,
};

/**
 * Judges a lot from its pulled plants, in the order pulled.
 * @throws Unfit as {@link sequentialVerdict}
 */
export function lotVerdict(
  pulled: readonly PulledPlant[],
  card: Scorecard,
  terms: SequentialTerms = usualTerms,
  cap = PULL_CAP,
): Worked<LotVerdict> {
  const judged = pulled.filter((p) => canJudge(rootFigures(p.plant), card));
  const plants = judged.map((p) => ({ ...p, score: scorePlant(rootFigures(p.plant), card).value }));
  const { value: sequential, working } = sequentialVerdict(
    terms,
    plants.map((p) => !p.score.passes),
    cap,
  );
  const passing = plants.filter((p) => p.score.passes).length;
  const share = jeffreys(passing, plants.length);
  const byFigure = new Map<RootFigure, { plants: number; fatal: boolean }>();
  for (const { score } of plants)
    for (const { figure, fatal } of score.missed)
      byFigure.set(figure, { plants: (byFigure.get(figure)?.plants ?? 0) + 1, fatal });
  const steps: Step[] = [
    {
      what: say`Share of plants that pass`,
      how: say`Eight chances in ten between the 10 % and 90 % points of Beta(${passing} + ½, ${plants.length - passing} + ½).`,
      result: wholeShare(passing, plants.length),
      inputs: [
        { name: 'passing', value: passing, origin: 'record' },
        { name: 'pulled', value: plants.length, origin: 'record' },
      ],
      source: 'Jeffreys interval; Brown, Cai & DasGupta 2001',
    },
  ];
  return {
    value: {
      sequential,
      passing: {
        share: wholeShare(passing, plants.length),
        p10: betaQuantile(0.1, share),
        p90: betaQuantile(0.9, share),
      },
      plants,
      unjudged: pulled.length - judged.length,
      defects: [...byFigure]
        .map(([figure, d]) => ({ figure, ...d }))
        .sort((a, b) => b.plants - a.plants || Number(b.fatal) - Number(a.fatal)),
    },
    working: [...steps, ...working],
  };
}
