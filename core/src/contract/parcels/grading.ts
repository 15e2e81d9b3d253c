import { told } from '../told';
import { z } from 'zod';
import { gradesOverlap } from '../../lifting/grades';
import { thinRules } from '../../lifting/gradeOutlook';
import { trenchClasses } from '../../lifting/trench';
import { Id, numberBetween, wholeNumber, wordsOf } from '../basics';

const height = (what: string) => numberBetween(what, 1, 2000, 'cm').nullable();

/** A grade: its heights, and the thinnest collar it takes. */
export const GradeWritten = z
  .object({
    /** In the grower's words; empty where its heights say it all. */
    name: wordsOf(60),
    fromCm: height('Size from'),
    toCm: height('Size to'),
    collarMm: numberBetween('Collar', 0.1, 150, 'mm').nullable(),
  })
  .refine(({ fromCm, toCm }) => fromCm !== null || toCm !== null, {
    ...told`Say the heights of the grade: 40–60, 60+ or under 40.`,
    path: ['fromCm'],
  })
  .refine(({ fromCm, toCm }) => fromCm === null || toCm === null || fromCm < toCm, {
    ...told`A grade ends above where it begins.`,
    path: ['toCm'],
  });

/** Grades by which lots are sorted: a buyer's, or the nursery's own practice. */
export const GradeScheme = z.object({
  id: Id,
  name: wordsOf(60).min(1, told`A scheme has a name.`),
  /** Species it is first thought of for; none, and it is for all. */
  speciesIds: z.array(Id).max(300),
  /** What becomes of trees too thin for their height; left out, they are culled. */
  thinRule: z.enum(thinRules).optional(),
  grades: z
    .array(GradeWritten)
    .min(1, told`A scheme has a grade at least.`)
    .max(12, told`At most 12 grades.`)
    .refine((grades) => !gradesOverlap(grades), {
      ...told`Two grades overlap: a tree would belong to both.`,
    }),
});
export type GradeScheme = z.infer<typeof GradeScheme>;

/** How trees are heeled in here: the rows of a bay, and the trees a metre of row takes by their heights. */
export const TrenchWritten = z.object({
  rowsApartCm: numberBetween('Rows apart', 5, 300, 'cm'),
  perM: z
    .array(numberBetween('Trees a metre', 0.5, 2000))
    .length(trenchClasses.length, told`Trees a metre are said for each class of heights.`),
});

export const Grading = z.object({
  schema: z.literal(1),
  /** The nursery's own; rules of thumb where nothing was kept. */
  trench: TrenchWritten.optional(),
  schemes: z
    .array(GradeScheme)
    .max(30, told`At most 30 schemes.`)
    .refine((all) => new Set(all.map(({ name }) => name.trim().toLowerCase())).size === all.length, {
      ...told`Two schemes have one name.`,
    })
    .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, {
      ...told`A scheme is written twice.`,
    }),
});
export type Grading = z.infer<typeof Grading>;
export const KeptGrading = z.object({ version: z.number(), grading: Grading });
export type KeptGrading = z.infer<typeof KeptGrading>;
export const EditedGrading = z.object({ version: wholeNumber('Version', 0, 1e9), grading: Grading });
