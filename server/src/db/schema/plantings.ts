import type { DeathCause, PlantingGround, Guard, Stake, TreeState, WalkTrees } from '@kauri/core';
import type { PlantingLayout } from '@kauri/core/contract';
import {
  bigint,
  boolean,
  date,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import { parcel } from './parcels';
import { person } from './people';
import { nurseryId } from './yard';

/** PlantingGround where trees stand for good. */
export const planting = pgTable(
  'planting',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    name: text().notNull(),
    whereWords: text('where_words').notNull(),
    purpose: text().notNull(),
    ground: text().$type<PlantingGround>().notNull(),
    mulch: text().notNull(),
    layout: jsonb().$type<PlantingLayout>().notNull(),
    note: text().notNull(),
    version: integer().notNull().default(1),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] }), uniqueIndex('planting_name').on(t.nurseryId, t.name)],
);

/** Trees of one parcel planted there together; its movement carries its id. A struck one was taken back. */
export const plantedPart = pgTable(
  'planted_part',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    plantingId: uuid('planting_id').notNull(),
    parcelId: uuid('parcel_id').notNull(),
    /** Order in which parts were planted: trees are numbered through them. */
    at: bigint({ mode: 'number' }).notNull().generatedAlwaysAsIdentity(),
    onDate: date('on_date').notNull(),
    count: bigint({ mode: 'number' }).notNull(),
    /** What stood about them when they were planted, and what stands about them now. */
    guard: text().$type<Guard>().notNull(),
    guardNow: text('guard_now').$type<Guard>().notNull(),
    stake: text().$type<Stake>().notNull(),
    planter: text().notNull(),
    note: text().notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('planted_part_planting').on(t.nurseryId, t.plantingId),
    foreignKey({
      columns: [t.nurseryId, t.plantingId],
      foreignColumns: [planting.nurseryId, planting.id],
      name: 'planted_part_planting_fk',
    }),
    foreignKey({
      columns: [t.nurseryId, t.parcelId],
      foreignColumns: [parcel.nurseryId, parcel.id],
      name: 'planted_part_parcel_fk',
    }),
  ],
);

/** A walk through a planting to see which trees live. One at a time is under way in a planting. */
export const walk = pgTable(
  'walk',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    plantingId: uuid('planting_id').notNull(),
    onDate: date('on_date').notNull(),
    kind: text().$type<'every' | 'sample'>().notNull(),
    /** Which trees it looks at; of every tree, none is written down. */
    trees: jsonb().$type<WalkTrees[]>().notNull(),
    /** The walk whose trees are looked at again. */
    again: uuid(),
    note: text().notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    begunAt: timestamp('begun_at', { withTimezone: true }).notNull().defaultNow(),
    endedAt: timestamp('ended_at', { withTimezone: true }),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('walk_planting').on(t.nurseryId, t.plantingId),
    uniqueIndex('walk_one_under_way')
      .on(t.nurseryId, t.plantingId)
      .where(sql`ended_at is null and struck_at is null`),
    foreignKey({
      columns: [t.nurseryId, t.plantingId],
      foreignColumns: [planting.nurseryId, planting.id],
      name: 'walk_planting_fk',
    }),
  ],
);

/** One tree as a walk found it. */
export const walkTree = pgTable(
  'walk_tree',
  {
    nurseryId: nurseryId(),
    walkId: uuid('walk_id').notNull(),
    partId: uuid('part_id').notNull(),
    number: integer().notNull(),
    state: text().$type<TreeState>().notNull(),
    cause: text().$type<DeathCause>(),
    note: text().notNull(),
    livesAgain: boolean('lives_again').notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.walkId, t.partId, t.number] }),
    foreignKey({
      columns: [t.nurseryId, t.walkId],
      foreignColumns: [walk.nurseryId, walk.id],
      name: 'walk_tree_walk_fk',
    }),
    foreignKey({
      columns: [t.nurseryId, t.partId],
      foreignColumns: [plantedPart.nurseryId, plantedPart.id],
      name: 'walk_tree_part_fk',
    }),
  ],
);
