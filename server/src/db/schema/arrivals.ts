import type { ArrivalFault, ArrivalKind } from '@kauri/core';
import {
  bigint,
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
import { lot } from './lots';
import { person } from './people';
import { nurseryId, species } from './yard';

/** Plants that came from outside, how they were found, and the lot that what was taken became. A struck one was taken back. */
export const arrival = pgTable(
  'arrival',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    onDate: date('on_date').notNull(),
    speciesId: uuid('species_id').notNull(),
    kind: text().$type<ArrivalKind>().notNull(),
    supplier: text().notNull(),
    provenance: text().notNull(),
    papers: text().notNull(),
    count: bigint({ mode: 'number' }).notNull(),
    price: doublePrecision(),
    looked: integer().notNull(),
    failing: integer().notNull(),
    faults: jsonb().$type<{ fault: ArrivalFault; count: number }[]>().notNull(),
    accepted: bigint({ mode: 'number' }).notNull(),
    quarantineUntil: date('quarantine_until'),
    lotId: uuid('lot_id'),
    note: text().notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('arrival_lot').on(t.nurseryId, t.lotId),
    foreignKey({
      columns: [t.nurseryId, t.speciesId],
      foreignColumns: [species.nurseryId, species.id],
      name: 'arrival_species_fk',
    }),
    foreignKey({
      columns: [t.nurseryId, t.lotId],
      foreignColumns: [lot.nurseryId, lot.id],
      name: 'arrival_lot_fk',
    }),
  ],
);
