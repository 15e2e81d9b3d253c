import type { EpochDay } from '../calendar/day';
import type { Beta } from '../chance/beta';
import { COLLAR_CV, cvWeight, pooledCv } from '../growth/sizeBelief';
import {
  gradeOutlook,
  type Between,
  type GradeClass,
  type GradeOutlook,
  type ThinRule,
} from '../lifting/gradeOutlook';
import type { Outlook } from '../weather/ensemble';
import type { Warmth } from '../weather/sums';
import type { Worked } from '../working/working';
import { runAhead } from './lotAhead';
import type { LotFacts } from './lotFacts';

/** How a lot would be graded. */
export interface GradeAsk {
  classes: readonly GradeClass[];
  /** Trees that stand. */
  trees: number;
  /** Share whose roots put them out; null where no roots were looked at. */
  bad: Beta | null;
  thinRule: ThinRule;
}

/**
 * What a lot would give by grade if it were lifted on a day, as known on the outlook's.
 * @throws Unfit when the day lies before the outlook's
 */
export function gradesAhead(
  facts: LotFacts,
  outlook: Outlook,
  usual: Warmth,
  view: EpochDay,
  { classes, trees, bad, thinRule }: GradeAsk,
): Worked<GradeOutlook> {
  const { seen, g, heights, viewAt, sizesOn } = runAhead(facts, outlook, usual, view);
  const between = (what: 'height' | 'diameter', means: Float64Array): Between => {
    const samples = seen.sizes.filter((sample) => sample.what === what);
    const start = seen.species.plantCv * (what === 'height' ? 1 : COLLAR_CV);
    return { means, cv: pooledCv(samples, start), cvOf: cvWeight(samples), measured: samples.length > 0 };
  };
  return gradeOutlook(
    classes,
    between('height', heights[viewAt]),
    between('diameter', sizesOn(g.diameters, view, heights[viewAt].length)),
    trees,
    bad,
    thinRule,
  );
}
