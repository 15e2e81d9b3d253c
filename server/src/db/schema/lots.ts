import type { Account, CareDone, Culls, CuttingKind, EventKind, RootPlant, RootsMoving } from '@kauri/core';
import type { Patch, PatchCount } from '@kauri/core/contract';
import { sql } from 'drizzle-orm';
import {
  bigint,
  check,
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { layer, seedLot, stockBed, treatment } from './seed';
import { containerType, nurseryId, place, species } from './yard';

export const lot = pgTable(
  'lot',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    code: text().notNull(),
    speciesId: uuid('species_id').notNull(),
    sownOn: date('sown_on').notNull(),
    seedState: text('seed_state', { enum: ['ready', 'fresh'] }).notNull(),
    origin: text({ enum: ['seed', 'cuttings', 'pricked', 'layer', 'split', 'bought'] })
      .notNull()
      .default('seed'),
    seedLotId: uuid('seed_lot_id'),
    treatmentId: uuid('treatment_id'),
    stockBedId: uuid('stock_bed_id'),
    /** The lot it was pricked out of, or set apart from. */
    parentLotId: uuid('parent_lot_id'),
    /** The record it came of, of its parent or an arrival; taken back, this lot goes with it. */
    bornOf: uuid('born_of'),
    /** The air layer it was severed from. */
    layerId: uuid('layer_id'),
    cutting: text().$type<CuttingKind>(),
    patch: jsonb().$type<Patch>(),
    extraWinters: integer('extra_winters').notNull().default(0),
    targetHeightCm: doublePrecision('target_height_cm'),
    leafFallOn: date('leaf_fall_on'),
    note: text().notNull().default(''),
    /** When it was taken back with what it came of: then it never was, and is not shown. */
    takenBackAt: timestamp('taken_back_at', { withTimezone: true }),
    version: integer().notNull().default(1),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    unique('lot_code').on(t.nurseryId, t.code),
    foreignKey({
      columns: [t.nurseryId, t.speciesId],
      foreignColumns: [species.nurseryId, species.id],
      name: 'lot_species',
    }),
    foreignKey({
      columns: [t.nurseryId, t.seedLotId],
      foreignColumns: [seedLot.nurseryId, seedLot.id],
      name: 'lot_seed_lot',
    }),
    foreignKey({
      columns: [t.nurseryId, t.treatmentId],
      foreignColumns: [treatment.nurseryId, treatment.id],
      name: 'lot_treatment',
    }),
    foreignKey({
      columns: [t.nurseryId, t.stockBedId],
      foreignColumns: [stockBed.nurseryId, stockBed.id],
      name: 'lot_stock_bed',
    }),
    foreignKey({
      columns: [t.nurseryId, t.parentLotId],
      foreignColumns: [t.nurseryId, t.id],
      name: 'lot_parent',
    }),
    foreignKey({
      columns: [t.nurseryId, t.layerId],
      foreignColumns: [layer.nurseryId, layer.id],
      name: 'lot_layer',
    }),
  ],
);

/** A lot standing in a place for a while: cells on a bench, or part of a bed. */
export const stage = pgTable(
  'stage',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    lotId: uuid('lot_id').notNull(),
    placeId: uuid('place_id').notNull(),
    containerTypeId: uuid('container_type_id'),
    trays: integer(),
    densityPerM2: doublePrecision('density_per_m2'),
    areaM2: doublePrecision('area_m2'),
    startedOn: date('started_on').notNull(),
    endedOn: date('ended_on'),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('stage_lot').on(t.nurseryId, t.lotId, t.startedOn),
    index('stage_place').on(t.nurseryId, t.placeId),
    foreignKey({
      columns: [t.nurseryId, t.lotId],
      foreignColumns: [lot.nurseryId, lot.id],
      name: 'stage_lot_fk',
    }),
    foreignKey({
      columns: [t.nurseryId, t.placeId],
      foreignColumns: [place.nurseryId, place.id],
      name: 'stage_place_fk',
    }),
    foreignKey({
      columns: [t.nurseryId, t.containerTypeId],
      foreignColumns: [containerType.nurseryId, containerType.id],
      name: 'stage_container_fk',
    }),
    check(
      'stage_cells_or_bed',
      sql`(${t.containerTypeId} is not null and ${t.trays} > 0) or (${t.containerTypeId} is null and ${t.densityPerM2} > 0 and ${t.areaM2} > 0)`,
    ),
  ],
);

/** The ledger. Rows are added and never changed; a wrong one is reversed. */
export const movement = pgTable(
  'movement',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    lotId: uuid('lot_id').notNull(),
    /** The record it came with. */
    entryId: uuid('entry_id').notNull(),
    onDate: date('on_date').notNull(),
    fromAccount: text('from_account').$type<Account>().notNull(),
    toAccount: text('to_account').$type<Account>().notNull(),
    count: bigint({ mode: 'number' }).notNull(),
    note: text().notNull().default(''),
    reverses: uuid(),
    /** Of lifted trees, the parcel they come to or go from. */
    parcelId: uuid('parcel_id'),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('movement_lot').on(t.nurseryId, t.lotId, t.onDate),
    unique('movement_reversed_once').on(t.nurseryId, t.reverses),
    foreignKey({
      columns: [t.nurseryId, t.lotId],
      foreignColumns: [lot.nurseryId, lot.id],
      name: 'movement_lot_fk',
    }),
    check('movement_count_positive', sql`${t.count} > 0`),
    check('movement_goes_somewhere', sql`${t.fromAccount} <> ${t.toAccount}`),
    check(
      'movement_accounts',
      sql`${t.fromAccount} ~ '^(supply|seed|sown|standing|lifted|sent|planted|out:[a-z-]+)$' and ${t.toAccount} ~ '^(supply|seed|sown|standing|lifted|sent|planted|out:[a-z-]+)$'`,
    ),
  ],
);

/** What each account of a lot holds; kept by the database from the movements, never below zero. */
export const balance = pgTable(
  'balance',
  {
    nurseryId: nurseryId(),
    lotId: uuid('lot_id').notNull(),
    account: text().$type<Account>().notNull(),
    held: bigint({ mode: 'number' }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.lotId, t.account] }),
    foreignKey({
      columns: [t.nurseryId, t.lotId],
      foreignColumns: [lot.nurseryId, lot.id],
      name: 'balance_lot_fk',
    }),
    check('balance_not_below_zero', sql`${t.held} >= 0`),
  ],
);

/** Single values of a record. */
export type ObservationValues =
  | {
      kind: 'emergence';
      counted: number;
      multi?: number | null;
      damaged?: number | null;
      patches?: PatchCount[];
    }
  | { kind: 'size'; heightsCm: number[]; diametersMm: number[] }
  | { kind: 'pull'; scores: number[]; spoiled: number }
  | { kind: 'root'; plant: RootPlant; spoiled: boolean }
  | { kind: 'event'; what: EventKind; hit: number; dead: number; patch: string; photos: string[] }
  | { kind: 'care'; done: CareDone }
  | { kind: 'cull'; reasons: Culls[] }
  /** The stages it left and began, and what the roots looked like where somebody looked. */
  | { kind: 'shift'; from: string; to: string; roots?: RootsMoving };

/** Something seen or measured on a lot. A struck one was taken back. */
export const observation = pgTable(
  'observation',
  {
    nurseryId: nurseryId(),
    /** Also the id of the entry its movements carry. */
    id: uuid().notNull(),
    lotId: uuid('lot_id').notNull(),
    kind: text({ enum: ['emergence', 'size', 'pull', 'root', 'shift', 'event', 'care', 'cull'] }).notNull(),
    onDate: date('on_date').notNull(),
    values: jsonb().$type<ObservationValues>().notNull(),
    heightN: integer('height_n'),
    heightMean: doublePrecision('height_mean'),
    heightSd: doublePrecision('height_sd'),
    diameterN: integer('diameter_n'),
    diameterMean: doublePrecision('diameter_mean'),
    diameterSd: doublePrecision('diameter_sd'),
    note: text().notNull().default(''),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('observation_lot').on(t.nurseryId, t.lotId, t.onDate),
    foreignKey({
      columns: [t.nurseryId, t.lotId],
      foreignColumns: [lot.nurseryId, lot.id],
      name: 'observation_lot_fk',
    }),
  ],
);
