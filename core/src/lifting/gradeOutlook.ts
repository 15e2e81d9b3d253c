import { say } from '../speech/say';
import type { Beta } from '../chance/beta';
import { betaQuantile } from '../chance/betaCdf';
import { normalCdf, normalQuantile } from '../chance/normal';
import { bandOf, type Band } from '../chance/quantile';
import { normalDraw, seededRandom } from '../chance/random';
import { sum, type Step, type Worked } from '../working/working';
import type { Grade } from './grades';

/** A grade of a scheme: its heights, and the thinnest collar it takes. */
export interface GradeClass extends Grade {
  /** mm; null where the collar is not looked at. */
  collarMm: number | null;
}

/** What becomes of a tree of a grade's height that is thinner than it takes: culled, or of the next lower grade that takes its collar. */
export const thinRules = ['out', 'lower'] as const;
export type ThinRule = (typeof thinRules)[number];

/** How plants of a lot differ in one measure. */
export interface Between {
  /** Mean of the lot, run by run, cm or mm; 0 where none is up in a run. */
  means: Float64Array;
  /** Standard deviation between plants over their mean. */
  cv: number;
  /** Plants that this spread was learnt from, the species' own weight among them. */
  cvOf: number;
  /** Whether any plant of the lot was measured; else all of it is assumed from its kind. */
  measured: boolean;
}

/** What a lot would give if it were lifted and graded on a day, in trees, each with its eight-in-ten band. */
export interface GradeOutlook {
  grades: Band[];
  /** Shorter than the least grade. */
  small: Band;
  /** Of a grade's height, and thinner than it takes. */
  thin: Band;
  /** Taller than every grade, or between two. */
  beside: Band;
  /** Out for their roots, whatever their size; null where no roots were looked at. */
  roots: Band | null;
}

/** How tall plants of a lot are thick as well: correlation of height and collar within a lot. A rule of thumb. */
export const HEIGHT_COLLAR = 0.7;
/** Each run is counted out so often that there are at least so many. */
const COUNTED_RUNS = 600;
/** Equally likely shares that stand for what is known of the roots. */
const BAD_SHARES = 40;
/** Points at which the collar is looked at within a grade's heights. */
const POINTS = 12;

/**
 * What a lot would give by grade: plants spread normally about each run's mean, in height and collar together; the lot's
 * spread known as well as its samples tell; trees counted out as chance has them.
 * @param trees that stand
 * @param bad share of plants whose roots put them out; null where none were looked at, and then none are put out
 * @param thinRule what becomes of the thin ones
 */
export function gradeOutlook(
  classes: readonly GradeClass[],
  heights: Between,
  collars: Between,
  trees: number,
  bad: Beta | null,
  thinRule: ThinRule = 'out',
): Worked<GradeOutlook> {
  const given = heights.means.length;
  const runs = given * Math.ceil(COUNTED_RUNS / given);
  const random = seededRandom(runs + classes.length);
  const counts = Array.from({ length: classes.length + 4 }, () => new Float64Array(runs));
  const [small, thin, beside, roots] = counts.slice(classes.length);
  const lower = classes.map((of) => (thinRule === 'lower' ? lowerGrades(of, classes) : []));
  const least = Math.min(...classes.map(({ fromCm }) => fromCm ?? -Infinity));
  const shares =
    bad === null
      ? [0]
      : Array.from({ length: BAD_SHARES }, (_, i) => betaQuantile((i + 0.5) / BAD_SHARES, bad));
  for (let run = 0; run < runs; run++) {
    const mean = heights.means[run % given];
    const rejected = shares[Math.floor(random() * shares.length)];
    const kept = 1 - rejected;
    roots[run] = counted(rejected, trees, random);
    if (!(mean > 0)) {
      small[run] = counted(kept, trees, random);
      continue;
    }
    const sd = mean * heights.cv * spreadLuck(heights.cvOf, random);
    const collar = {
      mean: collars.means[run % given],
      sd: collars.means[run % given] * collars.cv * spreadLuck(collars.cvOf, random),
    };
    const below = (cm: number | null, open: number) => (cm === null ? open : normalCdf((cm - mean) / sd));
    const short = least === -Infinity ? 0 : below(least, 0);
    let graded = 0;
    let slim = 0;
    const shareOf = new Float64Array(classes.length);
    classes.forEach(({ fromCm, toCm, collarMm }, k) => {
      const [from, to] = [below(fromCm, 0), below(toCm, 1)];
      const asThickAs = (mm: number | null) =>
        mm === null ? to - from : thickShare(from, to, (mm - collar.mean) / collar.sd);
      let placed = asThickAs(collarMm);
      shareOf[k] += placed;
      for (const j of lower[k]) {
        const more = Math.max(0, asThickAs(classes[j].collarMm) - placed);
        shareOf[j] += more;
        placed += more;
      }
      graded += to - from;
      slim += to - from - placed;
    });
    shareOf.forEach((share, k) => (counts[k][run] = counted(kept * share, trees, random)));
    small[run] = counted(kept * short, trees, random);
    thin[run] = counted(kept * slim, trees, random);
    beside[run] = counted(kept * Math.max(0, 1 - short - graded), trees, random);
  }
  const bands = counts.map((of) => bandOf(of));
  const [smallBand, thinBand, besideBand, rootsBand] = bands.slice(classes.length);
  return {
    value: {
      grades: bands.slice(0, classes.length),
      small: smallBand,
      thin: thinBand,
      beside: besideBand,
      roots: bad === null ? null : rootsBand,
    },
    working: workingOf(classes, heights, collars, trees, bad, thinRule),
  };
}

/** Grades below one, the nearest first, by where they stand among the classes. */
function lowerGrades(of: GradeClass, classes: readonly GradeClass[]): number[] {
  const from = ({ fromCm }: GradeClass) => fromCm ?? -Infinity;
  return classes
    .map((one, at) => ({ at, from: from(one) }))
    .filter((one) => one.from < from(of))
    .sort((a, b) => b.from - a.from)
    .map(({ at }) => at);
}

/** Share of plants between two points of the height's distribution whose collar is thick enough, by strata of it. */
function thickShare(from: number, to: number, collarZ: number): number {
  const rest = Math.sqrt(1 - HEIGHT_COLLAR ** 2);
  let share = 0;
  for (let i = 0; i < POINTS; i++) {
    const z = normalQuantile(Math.min(1 - 1e-9, Math.max(1e-9, from + ((to - from) * (i + 0.5)) / POINTS)));
    share += (1 - normalCdf((collarZ - HEIGHT_COLLAR * z) / rest)) / POINTS;
  }
  return (to - from) * share;
}

/** How many times as wide a spread may be as it was measured on so many plants. */
const spreadLuck = (of: number, random: () => number): number =>
  Math.exp(normalDraw(random) / Math.sqrt(2 * Math.max(2, of)));

/** Trees of a share, as chance counts them out of a finite lot. */
function counted(share: number, trees: number, random: () => number): number {
  const luck = Math.sqrt(Math.max(0, trees * share * (1 - share))) * normalDraw(random);
  return Math.round(Math.min(trees, Math.max(0, trees * share + luck)));
}

function workingOf(
  classes: readonly GradeClass[],
  heights: Between,
  collars: Between,
  trees: number,
  bad: Beta | null,
  thinRule: ThinRule,
): Step[] {
  const { p50: mean } = bandOf(heights.means);
  const collar = bandOf(collars.means).p50;
  const sd = mean * heights.cv;
  const origin = heights.measured ? 'record' : 'starting';
  const steps: Step[] = [
    {
      what: say`Spread of heights between plants`,
      expression: sum`${mean} × ${heights.cv}`,
      result: sd,
      unit: 'cm',
      inputs: [
        { name: say`mean height in the middle run`, value: mean, unit: 'cm', origin },
        { name: say`spread over mean`, value: heights.cv, origin },
        {
          name: say`plants it was learnt from, the species’ own weight among them`,
          value: heights.cvOf,
          origin,
        },
      ],
    },
  ];
  const below = (cm: number | null, open: number) => (cm === null ? open : normalCdf((cm - mean) / sd));
  for (const { fromCm, toCm, collarMm } of classes) {
    const words =
      fromCm === null ? say`under ${toCm}` : toCm === null ? say`${fromCm} and over` : `${fromCm}–${toCm}`;
    const [from, to] = [below(fromCm, 0), below(toCm, 1)];
    const share = (name: string, of: number, isMeasured: boolean) => ({
      expression: sum`${trees} × ${of}`,
      result: trees * of,
      unit: 'trees',
      inputs: [
        { name: say`trees that stand`, value: trees, origin: 'record' as const },
        { name, value: of, origin: isMeasured ? ('record' as const) : ('starting' as const) },
      ],
    });
    steps.push({
      what: say`Of ${words} cm in the middle run`,
      ...share(say`share of a normal spread between the two heights`, to - from, heights.measured),
    });
    if (collarMm !== null)
      steps.push({
        what: say`Of these, thick enough: a collar of ${collarMm} mm and more`,
        ...share(
          say`share of both, about a mean collar of ${Math.round(collar * 10) / 10} mm; height and collar go together by ${HEIGHT_COLLAR}, a rule of thumb`,
          thickShare(from, to, (collarMm - collar) / (collar * collars.cv)),
          heights.measured && collars.measured,
        ),
      });
  }
  if (thinRule === 'lower' && classes.some(({ collarMm }) => collarMm !== null))
    steps.push({
      what: say`Too thin for their height`,
      how: say`Counted to the nearest lower grade that takes their collar; out where none does.`,
      result: say`by the scheme`,
    });
  steps.push({
    what: say`Bands`,
    how: say`Over ${heights.means.length} runs of the forecast: the lot’s mean, how well its spread is known, and the chance of a finite lot. ${bad === null ? say`No roots were looked at: none are taken off for them.` : say`Roots put out a share of Beta(${bad.alpha}, ${bad.beta}), whatever the size.`}`,
    result: say`10 to 90 %`,
  });
  return steps;
}
