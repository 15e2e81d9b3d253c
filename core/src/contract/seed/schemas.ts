import { told } from '../told';
import { z } from 'zod';
import { phaseKinds, schools } from '../../species/protocol';
import { testKinds } from '../../seed/seedViability';
import { cuttingKinds, stores, storageBehaviours } from '../../species/startValues';
import { HEIGHT_LIMIT_CM } from '../../growth/readMeasurements';
import { Id, Name, Note, numberBetween, PlainDate, wholeNumber } from '../basics';
import { LotCode, NewStage } from '../lots/schemas';

const version = wholeNumber('Version', 1, 1e9);
const Words = Name.or(z.literal(''));

export const ProvenanceSchema = z.object({
  place: Words,
  latitudeDeg: numberBetween('Latitude', -90, 90, '°').nullable(),
  longitudeDeg: numberBetween('Longitude', -180, 180, '°').nullable(),
  altitudeM: numberBetween('Altitude', -450, 9000, 'm').nullable(),
  zone: Words,
  collector: Words,
  parents: wholeNumber('Parent plants', 1, 100_000).nullable(),
});

/** What is written on a bag of seed. */
export const SeedLotValues = z.object({
  code: Name.max(24, told`A seed lot’s code has at most 24 characters.`),
  speciesId: Id,
  collectedOn: PlainDate.nullable(),
  receivedOn: PlainDate,
  seedsPerKg: numberBetween('Seeds a kilogram', 5, 50_000_000),
  moisturePct: numberBetween('Moisture', 0, 80, '%').nullable(),
  store: z.enum(stores),
  storeTempC: numberBetween('Temperature of the store', -40, 45, '°C').nullable(),
  /** A kilogram. */
  price: numberBetween('Price a kilogram', 0, 1_000_000).nullable(),
  provenance: ProvenanceSchema,
  note: Note,
});

const grams = numberBetween('Mass', 0.001, 10_000_000, 'g');
const seeds = wholeNumber('Seeds', 1, 1_000_000_000);

export const NewSeedLot = SeedLotValues.extend({ id: Id, grams, seeds: seeds.nullable() });
export type NewSeedLot = z.infer<typeof NewSeedLot>;
export const EditedSeedLot = SeedLotValues.extend({ version });
export const SeedLot = SeedLotValues.extend({ id: Id, version: z.number() });
export type SeedLot = z.infer<typeof SeedLot>;

/** What labels say beside the trees: where their codes lead. */
export const LabelWords = z.object({
  schema: z.literal(1),
  /** Kauri’s address as phones reach it; blank for the one it is opened at. */
  address: z
    .string()
    .trim()
    .max(200, told`At most 200 characters.`)
    .regex(/^$|^https?:\/\/[^\s/?#]+$/, 'An address as https://kauri.example, and nothing after the name.'),
});
export type LabelWords = z.infer<typeof LabelWords>;
export const KeptLabelWords = z.object({ version: z.number(), words: LabelWords });
export const EditedLabelWords = z.object({ version: wholeNumber('Version', 0, 1e9), words: LabelWords });

export const seedReasons = [
  'received',
  'tested',
  'treated',
  'sown',
  'given',
  'thrown-out',
  'counted',
  'returned',
] as const;
export type SeedReason = (typeof seedReasons)[number];

/** Seed in (above 0) or out (below). */
export const SeedMoveRow = z.object({
  id: Id,
  seedLotId: Id,
  on: PlainDate,
  grams: z.number(),
  seeds: z.number(),
  why: z.enum(seedReasons),
  note: z.string(),
});
export type SeedMoveRow = z.infer<typeof SeedMoveRow>;

/** Seed taken out, or a new weighing. */
export const MoveSeed = z.object({
  id: Id,
  on: PlainDate,
  /** For a new weighing, all that lies there. */
  grams: numberBetween('Mass', 0, 10_000_000, 'g'),
  seeds: wholeNumber('Seeds', 0, 1_000_000_000).nullable(),
  why: z.enum(['given', 'thrown-out', 'counted', 'received']),
  note: Note,
});

const entry = { id: Id, on: PlainDate, note: Note };

export const TestSeed = z.object({
  ...entry,
  kind: z.enum(testKinds),
  n: wholeNumber('Seeds tried', 1, 10_000),
  k: wholeNumber('Seeds that passed', 0, 10_000),
  daysRun: wholeNumber('Days run', 1, 730).nullable(),
  /** Germinated on each day counted; their sum is `k`. */
  counts: z
    .array(z.object({ day: wholeNumber('Day', 1, 730), germinated: wholeNumber('Germinated', 0, 10_000) }))
    .max(200),
});

export const PhaseSchema = z.object({
  kind: z.enum(phaseKinds),
  days: numberBetween('Days of a phase', 0, 1000, 'd'),
});
export const StoreSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('fixed'),
    warmC: numberBetween('Warm room', -5, 40, '°C'),
    coldC: numberBetween('Cold room', -5, 40, '°C'),
  }),
  z.object({
    kind: z.literal('outdoors'),
    warmerByC: numberBetween('Warmer than outdoors by', -10, 20, '°C'),
  }),
]);

const arm = {
  id: Id,
  name: Name.max(60, told`A treatment’s name has at most 60 characters.`),
  school: z.enum(schools),
  phases: z.array(PhaseSchema).max(12),
  store: StoreSchema,
  grams,
};

/** Splits a seed lot into arms, each with a protocol of its own. */
export const StartTreatments = z.object({
  id: Id,
  seedLotId: Id,
  startedOn: PlainDate,
  arms: z
    .array(z.object(arm))
    .min(1, told`At least one arm.`)
    .max(8, told`At most eight arms.`),
  note: Note,
});

export const treatmentStates = ['under way', 'sown', 'ended'] as const;
export const Treatment = z.object({
  ...arm,
  /** What is left of it unsown. */
  grams: z.number(),
  seedLotId: Id,
  startedOn: PlainDate,
  seeds: z.number(),
  state: z.enum(treatmentStates),
  endedOn: PlainDate.nullable(),
  note: z.string(),
  version: z.number(),
});
export type Treatment = z.infer<typeof Treatment>;

export const CheckTreatment = z.object({
  ...entry,
  n: wholeNumber('Seeds looked at', 1, 100_000),
  radicles: wholeNumber('Radicles seen', 0, 100_000),
});
export const EndTreatment = z.object({ version, endedOn: PlainDate, note: Note });

const stockBed = {
  speciesId: Id,
  name: Name,
  plants: wholeNumber('Stock plants', 1, 100_000),
  plantedOn: PlainDate,
  yieldPerPlant: numberBetween('Cuttings a full-grown plant', 0.5, 500),
  plantsPerM: numberBetween('Plants a metre', 0.1, 50),
  restShare: numberBetween('Share at rest', 0, 0.9),
  note: Note,
};
export const NewStockBed = z.object({ id: Id, ...stockBed });
export const EditedStockBed = z.object({ version, ...stockBed });
export const StockBed = z.object({ id: Id, version: z.number(), ...stockBed });
export type StockBed = z.infer<typeof StockBed>;

export const CutStockBed = z.object({
  ...entry,
  kind: z.enum(cuttingKinds),
  cuttings: wholeNumber('Cuttings taken', 1, 1_000_000),
  nodes: wholeNumber('Nodes', 1, 20),
  /** Cuttings tied together. */
  bundle: wholeNumber('In a bundle', 1, 1000).nullable().default(null),
  hormone: Words.default(''),
  medium: Words.default(''),
});

const layer = {
  speciesId: Id,
  tree: Name,
  branchMm: numberBetween('Branch', 0, 300, 'mm'),
  freeMm: numberBetween('Clear length of branch', 1, 3000, 'mm'),
  ringMm: numberBetween('Ring', 1, 500, 'mm'),
  pouch: z.enum(['sealed', 'drained']),
  hormone: Words,
  madeOn: PlainDate,
};
export const NewLayer = z.object({ id: Id, ...layer, note: Note });
export const SeverLayer = z.object({
  version,
  severedOn: PlainDate,
  outcome: z.enum(['rooted', 'failed']),
  potL: numberBetween('Pot', 0.05, 500, 'L').nullable(),
  note: Note,
  /** The potted plant as a lot of its own, if it is to be followed. */
  lot: z
    .object({
      id: Id,
      code: LotCode,
      heightCm: numberBetween('Height', 1, HEIGHT_LIMIT_CM, 'cm').nullable(),
      stage: NewStage,
    })
    .nullable()
    .default(null),
});
export const Layer = z.object({
  id: Id,
  ...layer,
  severedOn: PlainDate.nullable(),
  outcome: z.enum(['rooted', 'failed']).nullable(),
  potL: z.number().nullable(),
  note: z.string(),
  version: z.number(),
});
export type Layer = z.infer<typeof Layer>;
export const rootsSeen = ['none', 'few', 'many'] as const;
export const CheckLayer = z.object({ ...entry, roots: z.enum(rootsSeen) });

/** A record of the Seed station: a test, a check, a cut, a look through the film. */
export const SeedRecordValues = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('test'),
    test: z.enum(testKinds),
    n: z.number(),
    k: z.number(),
    daysRun: z.number().nullable(),
    counts: z.array(z.object({ day: z.number(), germinated: z.number() })),
  }),
  z.object({ kind: z.literal('check'), n: z.number(), radicles: z.number() }),
  z.object({
    kind: z.literal('cut'),
    cutting: z.enum(cuttingKinds),
    cuttings: z.number(),
    nodes: z.number(),
    bundle: z.number().nullable().optional(),
    hormone: z.string().optional(),
    medium: z.string().optional(),
  }),
  z.object({ kind: z.literal('look'), roots: z.enum(rootsSeen) }),
]);
export type SeedRecordValues = z.infer<typeof SeedRecordValues>;
export const SeedRecord = z.object({
  id: Id,
  /** The seed lot, treatment, stock bed or layer. */
  subjectId: Id,
  on: PlainDate,
  values: SeedRecordValues,
  note: z.string(),
});
export type SeedRecord = z.infer<typeof SeedRecord>;

/** Everything of the Seed station. */
export const SeedRoom = z.object({
  lots: z.array(SeedLot),
  moves: z.array(SeedMoveRow),
  treatments: z.array(Treatment),
  stockBeds: z.array(StockBed),
  layers: z.array(Layer),
  records: z.array(SeedRecord),
});
export type SeedRoom = z.infer<typeof SeedRoom>;

export const ImportSeedLots = z.object({
  id: Id,
  lots: z
    .array(NewSeedLot)
    .min(1, told`No line holds a seed lot.`)
    .max(2000, told`At most 2 000 seed lots at once.`),
});
export const UndoSeedRecord = z.object({ id: Id });

const Beta = z.object({ alpha: z.number().positive(), beta: z.number().positive() });
const Spread = z.object({ median: z.number().positive(), sdLog: z.number().positive() });
const Rooting = z.object({ take: Beta, rootDd: Spread });

/** How a species is started. */
export const StartValuesSchema = z.object({
  storage: z.enum(storageBehaviours),
  sigmaDays: Spread,
  thicknessMm: z.number().positive().max(200),
  protocols: z.array(z.object({ school: z.enum(schools), phases: z.array(PhaseSchema).max(12) })).min(1),
  radicleDd: Spread,
  rootHabit: z.enum(['tap', 'heart', 'fibrous']),
  sturdinessMost: z.number().positive(),
  nodules: z.enum(['none', 'frankia', 'rhizobia']),
  cuttings: z.partialRecord(z.enum(cuttingKinds), Rooting),
  layer: Rooting.nullable(),
  leafWords: z.string().max(200),
  cautions: z.array(z.string().max(300)).max(12),
});
