import { told } from '../told';
import { z } from 'zod';
import { DIAMETER_LIMIT_MM, HEIGHT_LIMIT_CM } from '../../growth/readMeasurements';
import type { RootFigure } from '../../roots/rootFigures';
import { depthBands, rootPaths, tapForms, tipColours, type RootPlant } from '../../roots/rootPlant';
import { rootSchools } from '../../roots/scorecard';
import { Id, Note, numberBetween, PlainDate, Seen, wholeNumber } from '../basics';

const grade = numberBetween('Grade', 0, 3);
const score = z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3), z.literal(4)]).nullable();
const sizes = {
  heightCm: numberBetween('Height', 0.1, HEIGHT_LIMIT_CM, 'cm').nullable(),
  diameterMm: numberBetween('Collar diameter', 0.1, DIAMETER_LIMIT_MM, 'mm').nullable(),
  shootDryG: numberBetween('Dry shoot', 0.001, 100_000, 'g').nullable(),
  rootDryG: numberBetween('Dry root', 0.001, 100_000, 'g').nullable(),
};

export const LateralSchema = z.object({
  azimuthDeg: numberBetween('Direction', 0, 360, '°'),
  thicknessMm: numberBetween('Thickness', 0.1, 100, 'mm'),
  band: z.enum(depthBands),
  path: z.enum(rootPaths),
});

/** One pulled plant’s roots. */
export const RootPlantSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('drawn'),
    laterals: z.array(LateralSchema).max(80, told`At most 80 laterals.`),
    tap: z.enum(tapForms),
    plug: z.object({
      score,
      fibre: z.object({ top: grade, middle: grade, low: grade }),
      surface: grade,
      tips: z.enum(tipColours).nullable(),
      nodules: z.enum(['none', 'few', 'many']).nullable(),
    }),
    ...sizes,
  }),
  z.object({
    kind: z.literal('quick'),
    look: z.object({
      score,
      round: z.enum(['all round', 'gaps', 'one-sided']),
      runs: z.enum(['straight', 'some turned', 'mostly turned']),
      surface: z.enum(['clean', 'some', 'matted']),
      tips: z.enum(tipColours),
    }),
    ...sizes,
  }),
]) satisfies z.ZodType<RootPlant>;

/** One plant pulled and looked at; spoiled, it leaves the lot. */
export const InspectRoots = z.object({
  id: Id,
  on: PlainDate,
  note: Note,
  seen: Seen,
  plant: RootPlantSchema,
  spoiled: z.boolean(),
});

/** A plant as it was recorded. */
export const RootRecord = z.object({
  entry: Id,
  on: PlainDate,
  plant: RootPlantSchema,
  spoiled: z.boolean(),
  note: z.string(),
});
export type RootRecord = z.infer<typeof RootRecord>;

const figures = [
  'laterals',
  'largestGapDeg',
  'oneSided',
  'straight',
  'straightTop',
  'turned',
  'steep',
  'tapSound',
  'tapStraight',
  'fibre',
  'fibreLow',
  'surface',
  'tips',
  'plug',
  'nodules',
  'sturdiness',
  'shootRoot',
  'qualityIndex',
] as const satisfies readonly RootFigure[];

const bound = numberBetween('Limit', 0, 100_000).nullable();
const criterion = z
  .object({
    figure: z.enum(figures),
    least: bound,
    most: bound,
    weight: numberBetween('Weight', 0, 100),
    fatal: z.boolean(),
  })
  .refine((c) => c.least === null || c.most === null || c.least <= c.most, {
    ...told`The least a figure may be lies below the most.`,
    path: ['least'],
  });
const card = <S extends (typeof rootSchools)[number]>(school: S) =>
  z.object({
    school: z.literal(school),
    pass: numberBetween('Share that passes', 0.05, 1),
    criteria: z
      .array(criterion)
      .max(30)
      .refine((all) => all.some((c) => c.weight > 0), told`A scorecard weighs at least one thing.`),
  });
const share = (name: string) => numberBetween(name, 0.001, 0.999);

/** How a nursery judges roots: the school it goes by, each school’s card, and the terms of pulling. */
export const RootRulesSchema = z.object({
  schema: z.literal(1),
  school: z.enum(rootSchools),
  cards: z.object({ structure: card('structure'), fibre: card('fibre'), depth: card('depth') }),
  terms: z
    .object({
      acceptable: share('Share a good lot may fail'),
      rejectable: share('Share a bad lot fails'),
      producerRisk: share('Risk of rejecting a good lot'),
      consumerRisk: share('Risk of accepting a bad lot'),
    })
    .refine((t) => t.acceptable < t.rejectable, {
      ...told`The share a good lot may fail is below that of a bad one.`,
      path: ['acceptable'],
    })
    .refine((t) => t.producerRisk + t.consumerRisk < 1, {
      ...told`The two risks together are below 1.`,
      path: ['producerRisk'],
    }),
  cap: wholeNumber('Most plants pulled of a lot', 1, 200),
});
export type RootRules = z.infer<typeof RootRulesSchema>;

export const KeptRootRules = z.object({ version: z.number(), rules: RootRulesSchema });
export type KeptRootRules = z.infer<typeof KeptRootRules>;
export const EditedRootRules = z.object({ version: wholeNumber('Version', 0, 1e9), rules: RootRulesSchema });
