import { normalDraw } from '../chance/random';
import { gradesAhead } from '../forecast/gradesAhead';
import { worldLots, type GrowthTally, type GrowthWorld } from './growthWorlds';

export interface GradeTally {
  world: string;
  samples: number;
  ahead: GrowthTally['ahead'];
  /** Grades judged: those of which there was more than a handful. */
  n: number;
  /** Share of grades whose count lay within the band of eight in ten. */
  held: number;
  /** Mean width of the band over the trees that stood. */
  width: number;
}

const TREES = 500;
/** Grades as shares of the mean height foretold. */
const LADDER = [0.7, 1, 1.35];
/** Fewer than this say nothing: whole numbers hold them all. */
const HANDFUL = 10;

/**
 * How often the counts by grade held: lots of one world, measured as a grower would, foretold and then lifted and graded
 * to the last tree.
 * @param samples heights taken before, 1–3
 */
export function gradeTally(
  world: GrowthWorld,
  samples: 1 | 2 | 3,
  ahead: GrowthTally['ahead'],
  lots: number,
  seed: number,
): GradeTally {
  const tally = { n: 0, held: 0, width: 0 };
  for (const { lot, cv, weather, view, random } of worldLots(world, samples, ahead, lots, seed)) {
    const middle = lot.middleAt(view);
    const classes = LADDER.map((share, k) => ({
      fromCm: share * middle,
      toCm: k + 1 < LADDER.length ? LADDER[k + 1] * middle : null,
      collarMm: null,
    }));
    const ask = { classes, trees: TREES, bad: null, thinRule: 'out' as const };
    const { grades } = gradesAhead(lot.facts, weather.outlook, weather.warmth, view, ask).value;
    const mean = Math.exp(lot.lnAt(view));
    const given = classes.map(() => 0);
    for (let i = 0; i < TREES; i++) {
      const cm = mean * (1 + cv * normalDraw(random));
      const k = classes.findIndex(({ fromCm, toCm }) => cm >= fromCm && cm < (toCm ?? Infinity));
      if (k >= 0) given[k]++;
    }
    grades.forEach(({ p10, p50, p90 }, k) => {
      if (p50 < HANDFUL) return;
      tally.n++;
      if (given[k] >= p10 && given[k] <= p90) tally.held++;
      tally.width += (p90 - p10) / TREES;
    });
  }
  const { n, held, width } = tally;
  return { world: world.name, samples, ahead, n, held: held / n, width: width / n };
}
