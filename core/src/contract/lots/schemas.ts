import { say } from '../../speech/say';
import { told } from '../told';
import { z } from 'zod';
import { cuttingKinds } from '../../species/startValues';
import { DIAMETER_LIMIT_MM, HEIGHT_LIMIT_CM } from '../../growth/readMeasurements';
import { accounts, outCauses } from '../../ledger/ledger';
import { cullReasons } from '../../lifting/culls';
import { gradesOverlap } from '../../lifting/grades';
import { CareRecord, EventRecord } from '../growing/schemas';
import { RootRecord } from '../roots/schemas';
import { NewParcel } from '../parcels/schemas';
import { Id, Name, Note, numberBetween, PlainDate, Seen, wholeNumber } from '../basics';

const lotWords = {
  speciesId: Id,
  sownOn: PlainDate,
  seedState: z.enum(['ready', 'fresh']),
  targetHeightCm: numberBetween('Height wanted', 1, HEIGHT_LIMIT_CM, 'cm').nullable(),
  note: Note,
};

/** Where a lot stands for a while: cells in trays on a bench, or part of a bed at a density. */
export const NewStage = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('container'),
    id: Id,
    placeId: Id,
    containerTypeId: Id,
    trays: wholeNumber('Trays', 1, 10_000),
  }),
  z.object({
    kind: z.literal('bed'),
    id: Id,
    placeId: Id,
    densityPerM2: numberBetween('Density', 1, 5_000, 'trees per m²'),
    areaM2: numberBetween('Bed area', 0.01, 200, 'm²'),
  }),
]);
export type NewStage = z.infer<typeof NewStage>;

/** How a lot began. */
export const origins = ['seed', 'cuttings', 'pricked', 'layer', 'split', 'bought'] as const;

/** The part of a bed a lot is sown in: from one end, and its rows counted from the near side. */
export const Patch = z
  .object({
    fromMm: numberBetween('Patch from', 0, 100_000, 'mm'),
    toMm: numberBetween('Patch to', 1, 100_000, 'mm'),
    firstRow: wholeNumber('First row', 1, 500).nullable(),
    lastRow: wholeNumber('Last row', 1, 500).nullable(),
  })
  .refine((p) => p.toMm > p.fromMm, told`A patch ends after it begins.`)
  .refine(
    (p) => p.firstRow === null || (p.lastRow !== null && p.lastRow >= p.firstRow),
    told`The last row does not come before the first.`,
  );
export type Patch = z.infer<typeof Patch>;

export const LotCode = Name.max(24, told`A lot’s code has at most 24 characters.`);

export const NewLot = z.object({
  id: Id,
  code: LotCode,
  ...lotWords,
  origin: z.enum(['seed', 'cuttings']).default('seed'),
  /** The bag it came from; with a treatment, that batch of it. */
  seedLotId: Id.nullable().default(null),
  treatmentId: Id.nullable().default(null),
  stockBedId: Id.nullable().default(null),
  cutting: z.enum(cuttingKinds).nullable().default(null),
  patch: Patch.nullable().default(null),
  seeds: wholeNumber('Seeds sown', 1, 10_000_000),
  stage: NewStage,
});
export type NewLot = z.infer<typeof NewLot>;

/** A sowing as it was in truth, where it was written down wrong. */
export const CorrectedSowing = z.object({
  id: Id,
  version: wholeNumber('Version', 1, 1e9),
  code: LotCode,
  speciesId: Id,
  sownOn: PlainDate,
  seedState: z.enum(['ready', 'fresh']),
  origin: z.enum(['seed', 'cuttings']),
  seedLotId: Id.nullable(),
  treatmentId: Id.nullable(),
  stockBedId: Id.nullable(),
  cutting: z.enum(cuttingKinds).nullable(),
  patch: Patch.nullable(),
  seeds: wholeNumber('Seeds sown', 1, 10_000_000),
  /** Where it was sown; null leaves that as it is, as it must be of a lot moved on since. */
  stage: NewStage.nullable(),
});
export type CorrectedSowing = z.infer<typeof CorrectedSowing>;

/** A lot that is gone with the sowing that was taken back. */
export const TakenBack = z.object({ id: Id, code: z.string() });

export const EditedLot = z.object({
  version: wholeNumber('Version', 1, 1e9),
  targetHeightCm: lotWords.targetHeightCm,
  leafFallOn: PlainDate.nullable(),
  /** Winters more than its species lies, for a lot kept on though nothing came up. */
  extraWinters: wholeNumber('Winters more', 0, 3).default(0),
  note: Note,
});

/** Seedlings of a flat moved by size into cells, each size a lot of its own. */
export const PrickOut = z.object({
  id: Id,
  on: PlainDate,
  note: Note,
  batches: z
    .array(
      z.object({
        id: Id,
        code: LotCode,
        count: wholeNumber('Seedlings', 1, 1_000_000),
        size: Name.max(30, told`At most 30 characters.`),
        stage: NewStage,
      }),
    )
    .min(1, told`Prick out at least one batch.`)
    .max(6, told`At most six sizes at once.`),
});

/** Part of a lot set apart as a lot of its own: held over in a bed, potted on, or kept apart. */
export const SplitLot = z
  .object({
    id: Id,
    on: PlainDate,
    note: Note,
    seen: Seen,
    /** Trees that stand, or lifted ones of a parcel that go back into the ground. */
    from: z.enum(['standing', 'lifted']),
    parcelId: Id.nullable(),
    /** Of the new lot. */
    lotId: Id,
    code: LotCode,
    count: wholeNumber('Trees', 1, 10_000_000),
    /** Heights measured of some of them, cm. */
    heightsCm: z.array(numberBetween('Height', 0.1, 2000, 'cm')).max(200, told`At most 200 heights.`),
    stage: NewStage,
  })
  .refine(({ from, parcelId }) => (from === 'lifted') === (parcelId !== null), {
    ...told`Lifted trees are of a parcel, standing ones of none.`,
    path: ['parcelId'],
  });

export const Stage = z.object({
  id: Id,
  placeId: Id,
  containerTypeId: Id.nullable(),
  trays: z.number().nullable(),
  densityPerM2: z.number().nullable(),
  areaM2: z.number().nullable(),
  startedOn: PlainDate,
  endedOn: PlainDate.nullable(),
});
export type Stage = z.infer<typeof Stage>;

/** What was seen at the roots while a lot was moved on, of the trees looked at; what was rejected is culled. */
export const RootsMoving = z
  .object({
    looked: wholeNumber('Looked at', 1, 10_000_000),
    circling: wholeNumber('Circling', 0, 10_000_000),
    teased: wholeNumber('Teased out', 0, 10_000_000),
    shaved: wholeNumber('Shaved or cut', 0, 10_000_000),
    rejected: wholeNumber('Rejected', 0, 10_000_000),
  })
  .superRefine((roots, faults) => {
    for (const what of ['circling', 'teased', 'shaved', 'rejected'] as const)
      if (roots[what] > roots.looked)
        faults.addIssue({ code: 'custom', path: [what], message: say`No more than were looked at.` });
  });

/** A lot moved on as a whole: into other cells, another bed, or out onto the ground. */
export const ShiftLot = z.object({
  id: Id,
  on: PlainDate,
  note: Note,
  seen: Seen,
  stage: NewStage,
  /** Trees lost or culled in moving, and how. */
  lost: wholeNumber('Lost in moving', 0, 10_000_000),
  cause: z.enum(outCauses).nullable(),
  /** What the roots looked like; null where nobody looked. */
  roots: RootsMoving.nullable().default(null),
});

export const LotRow = z.object({
  id: Id,
  code: z.string(),
  speciesId: Id,
  sownOn: PlainDate,
  seedState: z.enum(['ready', 'fresh']),
  origin: z.enum(origins),
  seedLotId: Id.nullable(),
  treatmentId: Id.nullable(),
  stockBedId: Id.nullable(),
  parentLotId: Id.nullable(),
  layerId: Id.nullable(),
  cutting: z.enum(cuttingKinds).nullable(),
  patch: Patch.nullable(),
  extraWinters: z.number(),
  targetHeightCm: z.number().nullable(),
  leafFallOn: PlainDate.nullable(),
  note: z.string(),
  version: z.number(),
  stage: Stage,
  held: z.object({
    seed: z.number(),
    sown: z.number(),
    standing: z.number(),
    lifted: z.number(),
    sent: z.number(),
    planted: z.number(),
    out: z.number(),
  }),
  lastRecordOn: PlainDate.nullable(),
});
export type LotRow = z.infer<typeof LotRow>;

export const LotPage = z.object({ lots: z.array(LotRow), next: z.string().nullable() });

export const PageQuery = z.object({
  after: z.string().max(60).optional().describe('Key of the last row already seen'),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});

/** A lot by name, with a word that changes whenever anything of it does. */
export const LotStamp = z.object({
  id: Id,
  code: z.string(),
  speciesId: Id,
  sownOn: PlainDate,
  stamp: z.string(),
  /** Day of its last movement, where nothing is left of it here; null while anything is. */
  closedOn: PlainDate.nullable(),
});
export type LotStamp = z.infer<typeof LotStamp>;

/** Every lot of a nursery by name, and what changed last in it. */
export const LotStamps = z.object({ stamps: z.array(LotStamp), changed: Id.nullable() });

/** Most lots whose records are asked for at once. */
export const LOTS_AT_ONCE = 50;
export const LotsQuery = z.object({
  ids: z
    .string()
    .transform((ids) => ids.split(','))
    .pipe(
      z
        .array(Id)
        .min(1)
        .max(LOTS_AT_ONCE, told`At most ${LOTS_AT_ONCE} lots at once.`),
    )
    .describe('Ids of lots, with commas between them'),
});

/** What was counted in one part of a lot. */
export const PatchCount = z.object({
  name: Name.max(30, told`A patch’s name has at most 30 characters.`),
  counted: wholeNumber('Seedlings counted', 0, 10_000_000),
});
export type PatchCount = z.infer<typeof PatchCount>;

/** Everything recorded of a lot, as forecasts read it. `entry` names the record it came with, for undo. */
export const Evidence = z.object({
  lotId: Id,
  counts: z.array(
    z.object({
      entry: Id,
      on: PlainDate,
      count: z.number(),
      /** Of those, with several stems, and damaged; null where it was not looked at. */
      multi: z.number().nullable(),
      damaged: z.number().nullable(),
      /** Counted apart by part of the lot; empty where it was counted as a whole. */
      patches: z.array(PatchCount),
      note: z.string(),
    }),
  ),
  sizes: z.array(
    z.object({
      entry: Id,
      on: PlainDate,
      what: z.enum(['height', 'diameter']),
      n: z.number(),
      mean: z.number(),
      sd: z.number(),
    }),
  ),
  pulls: z.array(
    z.object({
      entry: Id,
      on: PlainDate,
      scores: z.array(z.number()),
      spoiled: z.number(),
      note: z.string(),
    }),
  ),
  roots: z.array(RootRecord),
  /** Why trees were culled at a lift, as far as it was said. */
  culls: z.array(
    z.object({
      entry: Id,
      on: PlainDate,
      reasons: z.array(z.object({ why: z.enum(cullReasons), count: z.number() })),
    }),
  ),
  /** What befell it, and the work done to it without moving it. */
  events: z.array(EventRecord),
  care: z.array(CareRecord),
  /** Moves on, each to the stage it began. */
  shifts: z.array(
    z.object({ entry: Id, on: PlainDate, to: Id, roots: RootsMoving.nullable(), note: z.string() }),
  ),
  /** Where it has stood in turn, the last the present stage. */
  stages: z.array(Stage),
  movements: z.array(
    z.object({
      id: Id,
      entry: Id,
      on: PlainDate,
      from: z.enum(accounts),
      to: z.enum(accounts),
      count: z.number(),
      note: z.string(),
      /** The movement this one takes back. */
      reverses: Id.nullable(),
    }),
  ),
});
export type Evidence = z.infer<typeof Evidence>;

export const EvidencePage = z.object({ evidence: z.array(Evidence), next: z.string().nullable() });

export const JournalEntry = z.object({
  id: Id,
  at: z.string(),
  who: z.string(),
  act: z.string(),
  before: z.unknown(),
  after: z.unknown(),
});
export type JournalEntry = z.infer<typeof JournalEntry>;

export const LotRecords = z.object({ lots: z.array(LotRow), evidence: z.array(Evidence) });

export const LotDetail = z.object({ lot: LotRow, evidence: Evidence, journal: z.array(JournalEntry) });
export type LotDetail = z.infer<typeof LotDetail>;

const entry = { id: Id, on: PlainDate, note: Note, seen: Seen };

export const EmergenceCount = z
  .object({
    ...entry,
    counted: wholeNumber('Seedlings counted', 0, 10_000_000),
    cause: z.enum(outCauses).nullable().describe('What became of those missing since the last count'),
    multi: wholeNumber('With several stems', 0, 10_000_000).nullable().default(null),
    damaged: wholeNumber('Damaged', 0, 10_000_000).nullable().default(null),
    patches: z
      .array(PatchCount)
      .max(40, told`At most 40 patches.`)
      .default([]),
  })
  .refine(
    (c) => (c.multi ?? 0) <= c.counted && (c.damaged ?? 0) <= c.counted,
    told`No more can have several stems, or be damaged, than were counted.`,
  )
  .refine(
    (c) => c.patches.length === 0 || c.patches.reduce((t, p) => t + p.counted, 0) === c.counted,
    told`The patches do not come to the number counted.`,
  );

const heights = z.array(numberBetween('Height', 0.1, HEIGHT_LIMIT_CM, 'cm')).max(2000);
const diameters = z.array(numberBetween('Collar diameter', 0.1, DIAMETER_LIMIT_MM, 'mm')).max(2000);

export const SizeSample = z
  .object({ ...entry, heightsCm: heights, diametersMm: diameters })
  .refine((s) => s.heightsCm.length + s.diametersMm.length > 0, told`Measure at least one plant.`);

export const RootPull = z
  .object({
    ...entry,
    scores: z
      .array(wholeNumber('Plug score', 0, 4))
      .min(1, told`Score at least one plug.`)
      .max(200),
    spoiled: wholeNumber('Plants spoiled', 0, 200),
  })
  .refine((p) => p.spoiled <= p.scores.length, told`No more plants can be spoiled than were pulled.`);

export const Lift = z
  .object({
    ...entry,
    lifted: wholeNumber('Trees lifted', 0, 10_000_000),
    culled: wholeNumber('Trees culled', 0, 10_000_000),
    /** Why, of those culled: each reason once, no more than were culled. */
    culls: z
      .array(z.object({ why: z.enum(cullReasons), count: wholeNumber('Trees culled', 1, 10_000_000) }))
      .refine((all) => new Set(all.map(({ why }) => why)).size === all.length, {
        ...told`A reason is named twice.`,
      })
      .default([]),
    /** What was lifted, grade by grade; left out, all of it is one parcel that was not graded. */
    parcels: z
      .array(NewParcel)
      .max(20, told`At most 20 grades.`)
      .default([]),
  })
  .refine((l) => l.lifted + l.culled > 0, told`Lift or cull at least one tree.`)
  .refine(({ culled, culls }) => culls.reduce((t, c) => t + c.count, 0) <= culled, {
    ...told`More are said to be culled for a reason than were culled.`,
    path: ['culled'],
  })
  .refine(({ lifted, parcels }) => !parcels.length || parcels.reduce((t, p) => t + p.count, 0) === lifted, {
    ...told`The grades do not add up to what was lifted.`,
    path: ['lifted'],
  })
  .refine(({ parcels }) => !gradesOverlap(parcels), {
    ...told`Two grades overlap: a tree would belong to both.`,
    path: ['parcels'],
  });

export const Loss = z.object({
  ...entry,
  from: z.enum(['sown', 'standing', 'lifted']),
  cause: z.enum(outCauses),
  count: wholeNumber('Number gone', 1, 10_000_000),
  /** Of lifted trees, the parcel they go from; left out, those that were lifted first. */
  parcelId: Id.nullable().default(null),
});

export const Undo = z.object({ id: Id, on: PlainDate });
export const UndoTogether = Undo.extend({
  entries: z
    .array(z.object({ lot: Id, entry: Id }))
    .min(1)
    .max(500),
});
