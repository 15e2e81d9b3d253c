import type { BedDesign, PriceList, SitePlan } from '@kauri/core';
import type {
  Climate,
  Grading,
  LabelWords,
  LearntValues,
  LiftingPlan,
  Papers,
  Programme,
  RaisingRoutes,
  RootRules,
  SeasonPlan,
  TodayRules,
  WaterPlan,
} from '@kauri/core/contract';
import {
  boolean,
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
  uuid,
} from 'drizzle-orm/pg-core';
import { medium, nurseryId, place } from './yard';

/** Values a nursery has one of: its site plan, its water plan, what the controller was told, its prices. */
export const nurseryValue = pgTable(
  'nursery_value',
  {
    nurseryId: nurseryId(),
    kind: text({
      enum: [
        'site',
        'water',
        'programme',
        'prices',
        'roots',
        'today',
        'climate',
        'learnt',
        'routes',
        'plan',
        'papers',
        'labels',
        'grading',
        'lifting',
      ],
    }).notNull(),
    value: jsonb()
      .$type<
        | SitePlan
        | WaterPlan
        | Programme
        | PriceList
        | RootRules
        | TodayRules
        | Climate
        | LearntValues
        | RaisingRoutes
        | SeasonPlan
        | Papers
        | Grading
        | LabelWords
        | LiftingPlan
      >()
      .notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.kind] })],
);

export const bedDesign = pgTable(
  'bed_design',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    name: text().notNull(),
    design: jsonb().$type<BedDesign>().notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] })],
);

/** Each save of a design, kept as it was. */
export const bedDesignVersion = pgTable(
  'bed_design_version',
  {
    nurseryId: nurseryId(),
    designId: uuid('design_id').notNull(),
    version: integer().notNull(),
    name: text().notNull(),
    design: jsonb().$type<BedDesign>().notNull(),
    personId: uuid('person_id').notNull(),
    savedAt: timestamp('saved_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.designId, t.version] }),
    foreignKey({
      columns: [t.nurseryId, t.designId],
      foreignColumns: [bedDesign.nurseryId, bedDesign.id],
      name: 'version_design',
    }),
  ],
);

export const placeCheck = pgTable(
  'place_check',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    placeId: uuid('place_id').notNull(),
    day: date().notNull(),
    condition: text({ enum: ['sound', 'watch', 'repair', 'unsafe'] }).notNull(),
    repaired: boolean().notNull(),
    note: text().notNull(),
    personId: uuid('person_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('place_check_by_day').on(t.nurseryId, t.day),
    foreignKey({
      columns: [t.nurseryId, t.placeId],
      foreignColumns: [place.nurseryId, place.id],
      name: 'check_place',
    }).onDelete('cascade'),
  ],
);

export const mediumStock = pgTable(
  'medium_stock',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    mediumId: uuid('medium_id').notNull(),
    day: date().notNull(),
    litres: doublePrecision().notNull(),
    why: text({ enum: ['bought', 'mixed', 'filled', 'spent', 'thrown-out', 'counted'] }).notNull(),
    note: text().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('medium_stock_by_medium').on(t.nurseryId, t.mediumId),
    foreignKey({
      columns: [t.nurseryId, t.mediumId],
      foreignColumns: [medium.nurseryId, medium.id],
      name: 'stock_medium',
    }),
  ],
);

export const waterReading = pgTable(
  'water_reading',
  {
    nurseryId: nurseryId(),
    placeId: uuid('place_id').notNull(),
    day: date().notNull(),
    askedLitres: doublePrecision('asked_litres').notNull(),
    litres: doublePrecision(),
    before: doublePrecision(),
    after: doublePrecision(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.placeId, t.day] }),
    foreignKey({
      columns: [t.nurseryId, t.placeId],
      foreignColumns: [place.nurseryId, place.id],
      name: 'reading_place',
    }).onDelete('cascade'),
  ],
);
