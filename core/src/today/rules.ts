import { inWords } from '../speech/say';
import type { WorkKind } from './work';

type Figures = Readonly<Record<string, number>>;

/** What Kauri knows of a rule of Today, whatever lot it falls on. */
export interface RuleTerms {
  /** The rule in a few words, for muting and tuning it. */
  words: string;
  work: WorkKind;
  /** Days after it was done until it may be asked for again. */
  rest: number;
  /**
   * Share of the trees at stake that waiting four weeks past the day would cost, killed or spoiled for their grade.
   * Rules of thumb, to put acts in order; none is a forecast.
   */
  loss: (figures: Figures) => number;
}

const share = (value: number) => () => value;

/** Every rule of Today: the lots’ own, the seed room’s and the root bench’s. */
export const ruleTerms = inWords(
  {
    'write-off': { words: 'Lots of which nothing came up', work: 'look', rest: 28, loss: share(0.01) },
    'root-bound': {
      words: 'Root-bound lots to move on',
      work: 'move',
      rest: 21,
      loss: (f) => 0.05 + 0.25 * (f.chance ?? 0.5),
    },
    'hold-ends': { words: 'Holding windows about to close', work: 'move', rest: 21, loss: share(0.15) },
    'lid-reached': { words: 'Shoots at the lid', work: 'lid', rest: 330, loss: share(0.1) },
    lift: { words: 'Beds to lift', work: 'lift', rest: 7, loss: share(0.2) },
    'prick-out': {
      words: 'Seedlings in flats to prick out',
      work: 'prick',
      rest: 14,
      loss: share(0.2),
    },
    'root-frost': {
      words: 'Roots that freeze',
      work: 'shelter',
      rest: 2,
      loss: (f) => (f.harm ? 0.5 : 0.25),
    },
    'root-heat': {
      words: 'Roots that overheat',
      work: 'shelter',
      rest: 2,
      loss: (f) => (f.harm ? 0.35 : 0.15),
    },
    'missed-lift': { words: 'Beds that missed their winter', work: 'look', rest: 60, loss: share(0.05) },
    remeasure: {
      words: 'Lots to measure again after they lost height',
      work: 'measure',
      rest: 28,
      loss: share(0.02),
    },
    'second-season': {
      words: 'Lots kept longer than a season in one container',
      work: 'move',
      rest: 60,
      loss: (f) => (f.seasons > 1 ? 0.2 : 0.05),
    },
    spread: { words: 'Leaves about to meet: spread', work: 'spread', rest: 365, loss: share(0.12) },
    inoculate: { words: 'Nodule inoculum due', work: 'inoculate', rest: 365, loss: share(0.1) },
    'feed-out': { words: 'Feed about to run out', work: 'feed', rest: 60, loss: share(0.08) },
    'after-sowing': {
      words: 'What follows sowing or sticking',
      work: 'shelter',
      rest: 365,
      loss: share(0.2),
    },
    'keep-moist': { words: 'Sowings and cuttings to keep moist', work: 'water', rest: 3, loss: share(0.05) },
    'count-up': { words: 'Lots to count while they come up', work: 'count', rest: 10, loss: share(0.02) },
    measure: { words: 'Lots not measured for long', work: 'measure', rest: 42, loss: share(0.01) },
    'pull-plug': {
      words: 'Plugs to pull where the date is in doubt',
      work: 'pull',
      rest: 28,
      loss: share(0.03),
    },
    'radicles-out': { words: 'Radicles out: sow', work: 'sow', rest: 4, loss: share(0.8) },
    'sow-batch': { words: 'Treatments that are done', work: 'sow', rest: 14, loss: share(0.3) },
    'check-batch': { words: 'Batches to look at', work: 'look', rest: 7, loss: share(0.1) },
    'treat-planned': {
      words: 'Treatments that planned sowings need',
      work: 'look',
      rest: 14,
      loss: share(0.3),
    },
    'sow-planned': { words: 'Sowings that are planned', work: 'sow', rest: 14, loss: share(0.3) },
    retest: { words: 'Seed to test again', work: 'look', rest: 60, loss: share(0.02) },
    'likely-dead': { words: 'Seed that is likely dead', work: 'look', rest: 180, loss: share(0) },
    sever: { words: 'Layers to sever', work: 'sever', rest: 14, loss: share(0.5) },
    'look-layer': { words: 'Layers to look at', work: 'look', rest: 28, loss: share(0.1) },
    'keep-on': { words: 'Layers kept over winter', work: 'look', rest: 120, loss: share(0.1) },
    'humidity-hold': {
      words: 'Plants held in humid air',
      work: 'shelter',
      rest: 1,
      loss: share(0.25),
    },
    'planting-heat': {
      words: 'Guards that overheat planted trees',
      work: 'shelter',
      rest: 2,
      loss: (f) => (f.scorch ? 0.3 : 0.1),
    },
    'walk-planting': { words: 'Plantings to walk', work: 'count', rest: 28, loss: share(0.01) },
    'look-lying': { words: 'Lifted trees to look at', work: 'look', rest: 7, loss: share(0.05) },
    'leave-lying': { words: 'Lifted trees to send or plant', work: 'look', rest: 14, loss: share(0.3) },
    'lying-frost': {
      words: 'Lifted trees whose roots may freeze',
      work: 'shelter',
      rest: 2,
      loss: share(0.5),
    },
    'late-up': { words: 'Lots late coming up', work: 'look', rest: 14, loss: share(0.05) },
    'roots-rejected': { words: 'Lots whose roots were rejected', work: 'move', rest: 28, loss: share(0.3) },
    'judge-roots': { words: 'Roots to judge before lots go', work: 'pull', rest: 14, loss: share(0.04) },
  } as const satisfies Record<string, RuleTerms>,
  'words',
);

export type TodayRule = keyof typeof ruleTerms;
export const todayRules = Object.keys(ruleTerms) as [TodayRule, ...TodayRule[]];
