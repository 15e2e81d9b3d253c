import { told } from '../told';
import { z } from 'zod';
import { treeForms } from '../../plan/orderLine';
import { deathCauses, plantingGrounds, guardNames, stakes, treeStateNames } from '../../survival/trees';
import { Id, Note, numberBetween, PlainDate, wholeNumber, wordsOf } from '../basics';

const Words = wordsOf(120);

const Corner = z.tuple([z.number().min(-180).max(180), z.number().min(-90).max(90)]);

/** How trees stand: in rows so far apart, or within an outline. */
export const PlantingLayout = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('rows'),
    rows: wholeNumber('Rows', 1, 5000),
    perRow: wholeNumber('Trees a row', 1, 5000),
    /** Between rows, and between trees of a row, m. */
    rowM: numberBetween('Between rows', 0.1, 100, 'm'),
    treeM: numberBetween('Between trees', 0.1, 100, 'm'),
  }),
  z.object({
    kind: z.literal('outline'),
    corners: z
      .array(Corner)
      .min(3, told`An outline needs three corners or more.`)
      .max(500),
  }),
]);
export type PlantingLayout = z.infer<typeof PlantingLayout>;

const plantingFields = {
  name: Words.min(1, told`Give it a name.`),
  /** Where it is, in the grower's words. */
  where: Words,
  purpose: Words,
  ground: z.enum(plantingGrounds),
  mulch: Words,
  layout: PlantingLayout,
  note: Note,
};

/** Trees of one parcel that were planted together. */
export const PlantedPart = z.object({
  id: Id,
  lotId: Id,
  code: z.string(),
  speciesId: Id,
  parcelId: Id,
  form: z.enum(treeForms),
  /** What they were raised in: the container, or a bed. */
  raisedIn: z.string(),
  grade: z.string(),
  fromCm: z.number().nullable(),
  toCm: z.number().nullable(),
  on: PlainDate,
  count: z.number(),
  /** What stood about them when they were planted, and what stands about them now. */
  guard: z.enum(guardNames),
  guardNow: z.enum(guardNames),
  stake: z.enum(stakes),
  planter: z.string(),
  note: z.string(),
  by: z.string(),
});
export type PlantedPart = z.infer<typeof PlantedPart>;

/** How many trees of a part a walk found in each state, and what the dead died of. */
export const FoundPart = z.object({
  partId: Id,
  found: z.record(z.enum(treeStateNames), z.number()),
  causes: z.array(z.object({ cause: z.enum(deathCauses), count: z.number() })),
});

export const Walk = z.object({
  id: Id,
  plantingId: Id,
  on: PlainDate,
  kind: z.enum(['every', 'sample']),
  by: z.string(),
  /** Trees it is to look at. */
  trees: z.number(),
  endedAt: z.string().nullable(),
  note: z.string(),
  found: z.array(FoundPart),
});
export type Walk = z.infer<typeof Walk>;

export const Planting = z.object({
  id: Id,
  ...plantingFields,
  version: z.number(),
  parts: z.array(PlantedPart),
});
export type Planting = z.infer<typeof Planting>;

export const Plantings = z.object({ plantings: z.array(Planting), walks: z.array(Walk) });
export type Plantings = z.infer<typeof Plantings>;

export const PutPlanting = z.object({
  id: Id,
  /** The version it was changed from; null for a new one. */
  version: z.number().int().nullable(),
  ...plantingFields,
});

export const PlantTrees = z
  .object({
    id: Id,
    on: PlainDate,
    planter: Words,
    guard: z.enum(guardNames),
    stake: z.enum(stakes),
    note: Note,
    parts: z
      .array(z.object({ id: Id, parcelId: Id, count: wholeNumber('Trees', 1, 1_000_000) }))
      .min(1, told`Say how many trees of which parcel were planted.`)
      .max(200, told`At most 200 parcels at once.`),
  })
  .refine(({ parts }) => new Set(parts.map(({ parcelId }) => parcelId)).size === parts.length, {
    ...told`A parcel is named twice.`,
    path: ['parts'],
  });

export const ChangeGuard = z.object({ id: Id, guard: z.enum(guardNames) });

export const BeginWalk = z.object({
  id: Id,
  on: PlainDate,
  kind: z.enum(['every', 'sample']),
  /** Trees to look at, of a sample. */
  trees: wholeNumber('Trees to look at', 1, 20_000).nullable(),
  /** The walk whose trees are looked at again. */
  again: Id.nullable(),
});

/** One tree as it was found. */
export const TreeMark = z
  .object({
    partId: Id,
    number: wholeNumber('Tree', 1, 1_000_000),
    /** Null takes back what was marked: nobody has looked at it yet. */
    state: z.enum(treeStateNames).nullable(),
    cause: z.enum(deathCauses).nullable(),
    note: Words,
    /** Said of a tree found dead before: it lives, somebody looked twice. */
    livesAgain: z.boolean(),
  })
  .refine(({ state, cause }) => cause === null || state === 'dead' || state === 'dying', {
    ...told`Only a dead or dying tree has a cause.`,
    path: ['cause'],
  });
export type TreeMark = z.infer<typeof TreeMark>;

export const MarkTrees = z.object({ id: Id, marks: z.array(TreeMark).min(1).max(2000) });

/** A walk as whoever walks needs it: which trees, what was marked, and what the walk before found of them. */
export const WalkSheet = z.object({
  walk: Walk,
  trees: z.array(z.object({ partId: Id, numbers: z.array(z.number()) })),
  marks: z.array(
    z.object({
      partId: Id,
      number: z.number(),
      state: z.enum(treeStateNames),
      cause: z.enum(deathCauses).nullable(),
      note: z.string(),
    }),
  ),
  before: z.array(z.object({ partId: Id, number: z.number(), state: z.enum(treeStateNames) })),
});
export type WalkSheet = z.infer<typeof WalkSheet>;

export const EndWalk = z.object({ id: Id, note: Note });
