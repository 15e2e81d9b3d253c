import { z } from 'zod';
import { dressedSize } from '../bed/dressedSize';
import { Id, Name, numberBetween, PlainDate, RoleName, wholeNumber } from './basics';

const boardName = z.string().refine((name) => {
  try {
    dressedSize(name);
    return true;
  } catch {
    return false;
  }
}, 'Choose a board such as 2x8 or 50x150.');

const share = (what: string) => numberBetween(what, 0, 1);

export const OpenLayer = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('mesh'),
    openingMm: z.tuple([
      numberBetween('Mesh opening', 1, 300, 'mm'),
      numberBetween('Mesh opening', 1, 300, 'mm'),
    ]),
    wireMm: numberBetween('Mesh wire', 0.2, 10, 'mm'),
  }),
  z.object({ kind: z.literal('cloth'), shadeShare: share('Cloth shade share') }),
  z.object({ kind: z.literal('support'), coveredShare: share('Share covered by supports') }),
]);

export const BedDesignSchema = z.object({
  schema: z.literal(1),
  measured: z.enum(['inside', 'outside']),
  lengthMm: numberBetween('Bed length', 200, 30_000, 'mm (0.2 to 30 m)'),
  widthMm: numberBetween('Bed width', 200, 3_000, 'mm (0.2 to 3 m)'),
  tiers: z.array(boardName).min(1, 'A bed needs at least one tier of boards.').max(6, 'At most six tiers.'),
  layers: z.array(OpenLayer).max(6, 'At most six layers.'),
  fillBelowRimMm: numberBetween('Fill below the rim', 0, 500, 'mm'),
  ground: z.enum(['paving', 'gravel', 'soil', 'weeds']),
  airGapMm: numberBetween('Air gap', 0, 1500, 'mm'),
  lidAboveRimMm: numberBetween('Lid above the rim', 50, 5000, 'mm').nullable(),
});

export const BenchDesignSchema = z.object({
  schema: z.literal(1),
  lengthMm: numberBetween('Bench length', 300, 60_000, 'mm (0.3 to 60 m)'),
  widthMm: numberBetween('Bench width', 200, 4_000, 'mm (0.2 to 4 m)'),
});
export type BenchDesign = z.infer<typeof BenchDesignSchema>;

/** Where the place's south-west corner stands on the site, metres east and north of the site's corner. */
const spot = {
  name: Name,
  eastM: numberBetween('Metres east', -1000, 1000, 'm'),
  northM: numberBetween('Metres north', -1000, 1000, 'm'),
  turned: z.boolean().describe('Length runs north instead of east'),
  mediumId: Id.nullable(),
};

export const PlaceBody = z.discriminatedUnion('kind', [
  z.object({ ...spot, kind: z.literal('bed'), design: BedDesignSchema }),
  z.object({ ...spot, kind: z.literal('bench'), design: BenchDesignSchema }),
]);
export type PlaceBody = z.infer<typeof PlaceBody>;

export const NewPlace = z.object({ id: Id, place: PlaceBody });
export const EditedPlace = z.object({ version: wholeNumber('Version', 1, 1e9), place: PlaceBody });

export const Place = z.object({ id: Id, version: z.number(), place: PlaceBody });
export type Place = z.infer<typeof Place>;

export const Nursery = z.object({
  id: Id,
  name: Name,
  placeName: z.string(),
  latitudeDeg: z.number(),
  longitudeDeg: z.number(),
  elevationM: z.number(),
  timeZone: z.string(),
  units: z.enum(['metric', 'us']),
  today: PlainDate,
});
export type Nursery = z.infer<typeof Nursery>;

const Beta = z.object({ alpha: z.number().positive(), beta: z.number().positive() });
const Spread = z.object({ median: z.number().positive(), sdLog: z.number().positive() });

export const SpeciesValuesSchema = z.object({
  leaf: z.enum(['deciduous', 'evergreen']),
  seedsPerKg: z.number().positive(),
  viability: Beta,
  emergence: Beta,
  establishment: Beta,
  grade: Beta,
  winters: z.number().int().min(0).max(3),
  emergenceDd: Spread,
  heightCm: Spread,
  diameterMm: Spread,
  growthPerDd: Spread,
  seedlingHeightCm: z.number().positive(),
  seedlingDiameterMm: z.number().positive(),
  plantCv: z.number().positive(),
  halfDensityPerM2: z.number().positive(),
  rootRatePerDd: z.number().positive(),
  rootLinearAtMl: z.number().positive(),
  rootInitialMl: z.number().positive(),
  liftChillHours: z.number().positive(),
  budburst: z.object({ a: z.number(), b: z.number(), k: z.number() }),
});

export const Species = z.object({
  id: Id,
  code: z.string(),
  common: z.string(),
  latin: z.string(),
  values: SpeciesValuesSchema,
});
export type Species = z.infer<typeof Species>;

export const Medium = z.object({
  id: Id,
  values: z.object({
    name: z.string(),
    wetKgPerM3: z.number(),
    dryKgPerM3: z.number(),
    airShare: z.number(),
    settling: z.number(),
    note: z.string(),
  }),
});
export type Medium = z.infer<typeof Medium>;

export const ContainerType = z.object({
  id: Id,
  values: z.object({
    name: z.string(),
    section: z.enum(['square', 'round']),
    topMm: z.number(),
    bottomMm: z.number(),
    depthMm: z.number(),
    statedMl: z.number().nullable(),
    wallOpenShare: z.number(),
    baseOpenShare: z.number(),
    cellsPerTray: z.number().int(),
    trayLengthMm: z.number(),
    trayWidthMm: z.number(),
  }),
});
export type ContainerType = z.infer<typeof ContainerType>;

/** What changes seldom and every screen needs. */
export const Catalogue = z.object({
  nursery: Nursery,
  role: RoleName,
  places: z.array(Place),
  species: z.array(Species),
  containers: z.array(ContainerType),
  media: z.array(Medium),
});
export type Catalogue = z.infer<typeof Catalogue>;
