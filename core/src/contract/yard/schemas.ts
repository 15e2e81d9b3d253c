import { told } from '../told';
import { z } from 'zod';
import { footKinds, timberClasses } from '../../bed/design';
import { dressedSize } from '../../bed/dressedSize';
import { containerKinds } from '../../container/container';
import { Id, Name, Note, numberBetween, PlainDate, RoleName, wholeNumber } from '../basics';
import { StartValuesSchema } from '../seed/schemas';

const boardName = z.string().refine(
  (name) => {
    try {
      dressedSize(name);
      return true;
    } catch {
      return false;
    }
  },
  told`Choose a board such as 2x8 or 50x150.`,
);

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

export const BedBuildSchema = z.object({
  timber: z.enum(timberClasses),
  corners: z.enum(['brackets', 'butt']),
  riserTiers: wholeNumber('Tiers that lift off', 0, 5),
  loosenSide: z.boolean(),
  crossMembers: wholeNumber('Bearers', 0, 60),
  crossBoard: boardName,
  runners: z.boolean(),
  feet: z.object({ kind: z.enum(footKinds), count: wholeNumber('Feet', 1, 200) }),
});

const FoundBedSchema = z.object({
  shape: z.enum(['round', 'box']),
  heightMm: numberBetween('Height', 50, 3000, 'mm (50 mm to 3 m)'),
  wallMm: numberBetween('Wall', 0, 200, 'mm'),
  taper: z
    .number()
    .min(0.1, told`A floor is a tenth of the rim or more.`)
    .max(1, told`A floor is no wider than the rim: turn it over.`),
  emptyKg: numberBetween('Weight, empty', 0, 1000, 'kg'),
  seasons: numberBetween('Seasons it lasts', 1, 50, 'seasons'),
});

export const BedDesignSchema = z
  .object({
    schema: z.literal(1),
    measured: z.enum(['inside', 'outside']),
    lengthMm: numberBetween('Bed length', 200, 30_000, 'mm (0.2 to 30 m)'),
    widthMm: numberBetween('Bed width', 200, 3_000, 'mm (0.2 to 3 m)'),
    tiers: z.array(boardName).max(6, told`At most six tiers.`),
    layers: z.array(OpenLayer).max(6, told`At most six layers.`),
    fillBelowRimMm: numberBetween('Fill below the rim', 0, 500, 'mm'),
    ground: z.enum(['paving', 'gravel', 'soil', 'weeds']),
    airGapMm: numberBetween('Air gap', 0, 1500, 'mm'),
    lidAboveRimMm: numberBetween('Lid above the rim', 50, 5000, 'mm').nullable(),
    build: BedBuildSchema.optional(),
    /** Something found in place of boards: a bottomless pot, a crate. */
    found: FoundBedSchema.optional(),
  })
  .refine(({ tiers, found }) => (found ? tiers.length === 0 : tiers.length > 0), {
    ...told`A bed needs at least one tier of boards.`,
    path: ['tiers'],
  });

export const BenchDesignSchema = z.object({
  schema: z.literal(1),
  lengthMm: numberBetween('Bench length', 300, 60_000, 'mm (0.3 to 60 m)'),
  widthMm: numberBetween('Bench width', 200, 20_000, 'mm (0.2 to 20 m)'),
  /** Load it is rated for by someone qualified, kg; left out where nobody has. */
  ratedKg: numberBetween('Rated load', 10, 100_000, 'kg').nullable().optional(),
});
export type BenchDesign = z.infer<typeof BenchDesignSchema>;

/** Where the south-west corner of the ground it covers lies, metres east and north of the site's corner. */
const spot = {
  name: Name,
  eastM: numberBetween('Metres east', -1000, 1000, 'm'),
  northM: numberBetween('Metres north', -1000, 1000, 'm'),
  angleDeg: numberBetween('Angle', 0, 359.999, '°').describe('Of its length, counter-clockwise from east'),
  mediumId: Id.nullable(),
};

export const PlaceBody = z.discriminatedUnion('kind', [
  z.object({
    ...spot,
    kind: z.literal('bed'),
    design: BedDesignSchema,
    /** From when its seasons count; null while it is only planned. */
    builtOn: PlainDate.nullable().optional(),
    /** The kept design it was built from, as it was then. */
    builtFrom: z
      .object({ designId: Id, version: wholeNumber('Version', 1, 1e9) })
      .nullable()
      .optional(),
  }),
  z.object({ ...spot, kind: z.literal('bench'), design: BenchDesignSchema }),
  z.object({ ...spot, kind: z.literal('ground'), design: BenchDesignSchema }),
  z.object({ ...spot, kind: z.literal('bay'), design: BenchDesignSchema }),
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
  laterHeightCm: z.object({ second: Spread, later: Spread }).optional(),
  growthBaseC: z.number().min(0).max(20).optional(),
  growthCeilingC: z.number().min(20).max(50).optional(),
  seedlingHeightCm: z.number().positive(),
  seedlingDiameterMm: z.number().positive(),
  plantCv: z.number().positive(),
  halfDensityPerM2: z.number().positive(),
  rootRatePerDd: z.number().positive(),
  rootLinearAtMl: z.number().positive(),
  rootInitialMl: z.number().positive(),
  liftChillHours: z.number().positive(),
  budburst: z.object({ a: z.number(), b: z.number(), k: z.number() }),
  start: StartValuesSchema.optional(),
});

export const Species = z.object({
  id: Id,
  code: z.string(),
  common: z.string(),
  latin: z.string(),
  values: SpeciesValuesSchema,
  version: z.number(),
});
export type Species = z.infer<typeof Species>;

const speciesWords = {
  code: Name.max(6, told`A species’ code has at most 6 characters.`).regex(
    /^[A-Z][A-Z0-9]{1,5}$/,
    told`A code is two to six capitals or digits, a capital first.`,
  ),
  common: Name,
  latin: Name,
  values: SpeciesValuesSchema,
};
/** Species taken into the nursery's list, all or none. */
export const NewSpecies = z.object({
  id: Id,
  species: z
    .array(z.object({ id: Id, ...speciesWords }))
    .min(1, told`Choose a species.`)
    .max(500),
});
export const EditedSpecies = z.object({ version: wholeNumber('Version', 1, 1e9), ...speciesWords });

export const MediumValuesSchema = z.object({
  name: Name,
  wetKgPerM3: numberBetween('Weight wet', 50, 3000, 'kg/m³'),
  dryKgPerM3: numberBetween('Weight dry', 20, 2500, 'kg/m³'),
  airShare: share('Air-filled porosity'),
  settling: numberBetween('Settling', 0, 0.6),
  note: Note,
  heldShare: numberBetween('Water held', 0.01, 0.9).optional(),
  heldByMm: numberBetween('Widest opening it stays on', 0.5, 100, 'mm').optional(),
  costPerM3: numberBetween('Cost of a cubic metre', 0, 100_000).optional(),
  ph: z.string().max(40).optional(),
  parts: z
    .array(z.object({ material: Name, parts: numberBetween('Parts', 0.01, 1000) }))
    .max(12, told`At most twelve materials.`)
    .readonly()
    .optional(),
});
export const Medium = z.object({ id: Id, version: z.number(), values: MediumValuesSchema });
export type Medium = z.infer<typeof Medium>;

const size = (what: string, most: number) => numberBetween(what, 1, most, 'mm');

export const ContainerValuesSchema = z.object({
  name: Name,
  section: z.enum(['square', 'round']),
  topMm: size('Top', 2000),
  bottomMm: size('Bottom', 2000),
  depthMm: size('Depth', 2000),
  statedMl: numberBetween('Volume', 1, 1_000_000, 'mL').nullable(),
  wallOpenShare: share('Share of the wall open to air'),
  baseOpenShare: share('Share of the base open to air'),
  cellsPerTray: wholeNumber('Cells in a tray', 1, 2000),
  trayLengthMm: size('Tray length', 5000),
  trayWidthMm: size('Tray width', 5000),
  kind: z.enum(containerKinds).optional(),
  spaceable: z.boolean().optional(),
  trayPrice: numberBetween('Price of a tray', 0, 100_000).optional(),
  uses: wholeNumber('Uses', 1, 1000).optional(),
  wall: z.enum(['air', 'fabric', 'ribs', 'solid']).optional(),
});
export const ContainerType = z.object({ id: Id, version: z.number(), values: ContainerValuesSchema });
export type ContainerType = z.infer<typeof ContainerType>;

const price = (what: string) => numberBetween(what, 0, 1_000_000);

export const PriceListSchema = z.object({
  schema: z.literal(1),
  currency: z
    .string()
    .trim()
    .min(1, told`A sign such as £ or €.`)
    .max(4),
  timberPerM3: z.object({ treated: price('Timber'), durable: price('Timber'), scrap: price('Timber') }),
  boardLengthsMm: z
    .array(numberBetween('Board length', 300, 12_000, 'mm'))
    .min(1, told`Say which lengths boards are sold in.`)
    .max(12, told`At most twelve lengths.`),
  kerfMm: numberBetween('Saw cut', 0, 20, 'mm'),
  rollWidthsMm: z
    .array(numberBetween('Roll width', 200, 5000, 'mm'))
    .min(1, told`Say which widths rolls come in.`)
    .max(12, told`At most twelve widths.`),
  meshPerM2: price('Mesh'),
  gridPerM2: price('Grid'),
  clothPerM2: price('Cloth'),
  bracket: price('Bracket'),
  screw: price('Screw'),
  staple: price('Staple'),
  foot: z.object({
    bricks: price('Brick'),
    blocks: price('Block'),
    legs: price('Leg'),
    pallet: price('Pallet'),
  }),
  waterPerM3: price('Water'),
  hour: price('An hour'),
  trees: z
    .object({
      ladder: z
        .array(z.object({ fromCm: numberBetween('From', 1, 600, 'cm'), price: price('A tree') }))
        .min(1, told`Give a price for at least one size.`)
        .max(12, told`At most twelve sizes.`),
      placePerM2: price('A square metre'),
      carePerTree: price('Care'),
      moveOnce: price('Moving'),
      lossPct: numberBetween('Lost in a season', 0, 90, '%'),
    })
    .optional(),
});
export const KeptPrices = z.object({ version: z.number(), list: PriceListSchema });
export type KeptPrices = z.infer<typeof KeptPrices>;
export const EditedPrices = z.object({ version: wholeNumber('Version', 0, 1e9), list: PriceListSchema });

/** A bed design kept to be built again. Every save is a version; beds keep the one they were built from. */
export const KeptDesign = z.object({
  id: Id,
  version: z.number(),
  name: Name,
  design: BedDesignSchema,
});
export type KeptDesign = z.infer<typeof KeptDesign>;
export const NewDesign = z.object({ id: Id, name: Name, design: BedDesignSchema });
export const EditedDesign = z.object({
  version: wholeNumber('Version', 1, 1e9),
  name: Name,
  design: BedDesignSchema,
});
export const DesignVersions = z.object({
  versions: z.array(
    z.object({ version: z.number(), name: Name, savedAt: z.string(), design: BedDesignSchema }),
  ),
});

export const conditions = ['sound', 'watch', 'repair', 'unsafe'] as const;
export const NewCheck = z.object({
  id: Id,
  day: PlainDate,
  condition: z.enum(conditions),
  repaired: z.boolean(),
  note: Note,
});
export const PlaceCheck = NewCheck.extend({ placeId: Id, by: z.string() });
export type PlaceCheck = z.infer<typeof PlaceCheck>;
export const Checks = z.object({ checks: z.array(PlaceCheck) });

export const NewMedium = z.object({ id: Id, values: MediumValuesSchema });
export const EditedMedium = z.object({ version: wholeNumber('Version', 1, 1e9), values: MediumValuesSchema });
export const NewContainer = z.object({ id: Id, values: ContainerValuesSchema });
export const EditedContainer = z.object({
  version: wholeNumber('Version', 1, 1e9),
  values: ContainerValuesSchema,
});

export const stockReasons = ['bought', 'mixed', 'filled', 'spent', 'thrown-out', 'counted'] as const;
/** Medium in or out of the heap; out is below 0. */
export const NewStock = z.object({
  id: Id,
  day: PlainDate,
  litres: numberBetween('Litres', -1_000_000, 1_000_000, 'L').refine((l) => l !== 0, told`Litres in or out.`),
  why: z.enum(stockReasons),
  note: Note,
});
export const StockRow = NewStock.extend({ mediumId: Id });
export type StockRow = z.infer<typeof StockRow>;
export const Stock = z.object({ rows: z.array(StockRow) });

/** What changes seldom and every screen needs. */
export const Catalogue = z.object({
  nursery: Nursery,
  role: RoleName,
  places: z.array(Place),
  species: z.array(Species),
  containers: z.array(ContainerType),
  media: z.array(Medium),
  designs: z.array(KeptDesign),
  prices: KeptPrices,
});
export type Catalogue = z.infer<typeof Catalogue>;
