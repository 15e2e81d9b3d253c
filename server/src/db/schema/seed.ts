import type { BatchStore, Phase, Provenance } from '@kauri/core';
import type { SeedReason, SeedRecordValues } from '@kauri/core/contract';
import {
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
import { nurseryId, species } from './yard';

export const seedLot = pgTable(
  'seed_lot',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    code: text().notNull(),
    speciesId: uuid('species_id').notNull(),
    collectedOn: date('collected_on'),
    receivedOn: date('received_on').notNull(),
    seedsPerKg: doublePrecision('seeds_per_kg').notNull(),
    moisturePct: doublePrecision('moisture_pct'),
    store: text({ enum: ['fridge', 'freezer', 'room', 'cool-moist', 'outdoors'] }).notNull(),
    storeTempC: doublePrecision('store_temp_c'),
    price: doublePrecision(),
    provenance: jsonb().$type<Provenance>().notNull(),
    note: text().notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    unique('seed_lot_code').on(t.nurseryId, t.code),
    foreignKey({
      columns: [t.nurseryId, t.speciesId],
      foreignColumns: [species.nurseryId, species.id],
      name: 'seed_lot_species',
    }),
  ],
);

/** Seed in and out of a bag. Rows are added and never changed. */
export const seedMove = pgTable(
  'seed_move',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    seedLotId: uuid('seed_lot_id').notNull(),
    onDate: date('on_date').notNull(),
    grams: doublePrecision().notNull(),
    seeds: doublePrecision().notNull(),
    why: text().$type<SeedReason>().notNull(),
    note: text().notNull().default(''),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('seed_move_lot').on(t.nurseryId, t.seedLotId),
    foreignKey({
      columns: [t.nurseryId, t.seedLotId],
      foreignColumns: [seedLot.nurseryId, seedLot.id],
      name: 'seed_move_lot_fk',
    }),
  ],
);

/** A part of a seed lot under treatment. */
export const treatment = pgTable(
  'treatment',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    seedLotId: uuid('seed_lot_id').notNull(),
    name: text().notNull(),
    school: text({ enum: ['indoors', 'tub', 'sown'] }).notNull(),
    phases: jsonb().$type<Phase[]>().notNull(),
    store: jsonb().$type<BatchStore>().notNull(),
    startedOn: date('started_on').notNull(),
    grams: doublePrecision().notNull(),
    seeds: doublePrecision().notNull(),
    state: text({ enum: ['under way', 'sown', 'ended'] })
      .notNull()
      .default('under way'),
    endedOn: date('ended_on'),
    note: text().notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('treatment_lot').on(t.nurseryId, t.seedLotId),
    foreignKey({
      columns: [t.nurseryId, t.seedLotId],
      foreignColumns: [seedLot.nurseryId, seedLot.id],
      name: 'treatment_lot_fk',
    }),
  ],
);

/** Plants kept for cuttings. */
export const stockBed = pgTable(
  'stock_bed',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    speciesId: uuid('species_id').notNull(),
    name: text().notNull(),
    plants: integer().notNull(),
    plantedOn: date('planted_on').notNull(),
    yieldPerPlant: doublePrecision('yield_per_plant').notNull(),
    plantsPerM: doublePrecision('plants_per_m').notNull(),
    restShare: doublePrecision('rest_share').notNull(),
    note: text().notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    foreignKey({
      columns: [t.nurseryId, t.speciesId],
      foreignColumns: [species.nurseryId, species.id],
      name: 'stock_bed_species',
    }),
  ],
);

export const layer = pgTable(
  'layer',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    speciesId: uuid('species_id').notNull(),
    tree: text().notNull(),
    branchMm: doublePrecision('branch_mm').notNull(),
    freeMm: doublePrecision('free_mm').notNull(),
    ringMm: doublePrecision('ring_mm').notNull(),
    pouch: text({ enum: ['sealed', 'drained'] }).notNull(),
    hormone: text().notNull(),
    madeOn: date('made_on').notNull(),
    severedOn: date('severed_on'),
    outcome: text({ enum: ['rooted', 'failed'] }),
    potL: doublePrecision('pot_l'),
    note: text().notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    foreignKey({
      columns: [t.nurseryId, t.speciesId],
      foreignColumns: [species.nurseryId, species.id],
      name: 'layer_species',
    }),
  ],
);

/** Something seen or done at a seed lot, treatment, stock bed or layer. A struck one was taken back. */
export const seedRecord = pgTable(
  'seed_record',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    subjectId: uuid('subject_id').notNull(),
    onDate: date('on_date').notNull(),
    values: jsonb().$type<SeedRecordValues>().notNull(),
    note: text().notNull(),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('seed_record_subject').on(t.nurseryId, t.subjectId, t.onDate),
  ],
);
