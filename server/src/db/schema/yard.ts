import type { BedDesign, ContainerValues, MediumValues, SpeciesValues } from '@kauri/core';
import type { BenchDesign } from '@kauri/core/contract';
import {
  date,
  doublePrecision,
  foreignKey,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { nursery } from './people';

/** The column that ties a row to its nursery. */
export const nurseryId = () =>
  uuid('nursery_id')
    .notNull()
    .references(() => nursery.id);

export const species = pgTable(
  'species',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    code: text().notNull(),
    common: text().notNull(),
    latin: text().notNull(),
    values: jsonb().$type<SpeciesValues>().notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] }), unique('species_code').on(t.nurseryId, t.code)],
);

export const medium = pgTable(
  'medium',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    values: jsonb().$type<MediumValues>().notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] })],
);

export const containerType = pgTable(
  'container_type',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    values: jsonb().$type<ContainerValues>().notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] })],
);

export const place = pgTable(
  'place',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    kind: text({ enum: ['bed', 'bench', 'ground', 'bay'] }).notNull(),
    name: text().notNull(),
    eastM: doublePrecision('east_m').notNull(),
    northM: doublePrecision('north_m').notNull(),
    angleDeg: doublePrecision('angle_deg').notNull(),
    mediumId: uuid('medium_id'),
    design: jsonb().$type<BedDesign | BenchDesign>().notNull(),
    builtOn: date('built_on'),
    builtFrom: jsonb('built_from').$type<{ designId: string; version: number }>(),
    version: integer().notNull().default(1),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    unique('place_name').on(t.nurseryId, t.name),
    foreignKey({
      columns: [t.nurseryId, t.mediumId],
      foreignColumns: [medium.nurseryId, medium.id],
      name: 'place_medium',
    }),
  ],
);
