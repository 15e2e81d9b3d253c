import type { LineState, TreeForm } from '@kauri/core';
import {
  bigint,
  check,
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import { lot } from './lots';
import { person } from './people';
import { nurseryId } from './yard';

/** Trees lifted together, of one grade, and where they lie. What is still there is kept apart, by the ledger. */
export const parcel = pgTable(
  'parcel',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    lotId: uuid('lot_id').notNull(),
    /** The lift they came from. */
    entryId: uuid('entry_id').notNull(),
    form: text().$type<TreeForm>().notNull(),
    grade: text().notNull(),
    fromCm: doublePrecision('from_cm'),
    toCm: doublePrecision('to_cm'),
    bundleOf: integer('bundle_of'),
    place: text().notNull(),
    since: date().notNull(),
    count: bigint({ mode: 'number' }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('parcel_lot').on(t.nurseryId, t.lotId),
    foreignKey({
      columns: [t.nurseryId, t.lotId],
      foreignColumns: [lot.nurseryId, lot.id],
      name: 'parcel_lot_fk',
    }),
  ],
);

/** What each parcel still holds; kept by the database from the movements that name it, never below zero. */
export const parcelHeld = pgTable(
  'parcel_held',
  {
    nurseryId: nurseryId(),
    parcelId: uuid('parcel_id').notNull(),
    held: bigint({ mode: 'number' }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.parcelId] }),
    foreignKey({
      columns: [t.nurseryId, t.parcelId],
      foreignColumns: [parcel.nurseryId, parcel.id],
      name: 'parcel_held_fk',
    }),
    check('parcel_not_below_zero', sql`${t.held} >= 0`),
  ],
);

/** Trees that left together for one receiver; its movements carry its id. A struck one was taken back. */
export const sending = pgTable(
  'sending',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    onDate: date('on_date').notNull(),
    orderId: uuid('order_id'),
    lineId: uuid('line_id'),
    /** How far the line had come, where nothing was sent for it before. */
    lineState: text('line_state').$type<LineState>(),
    toWords: text('to_words').notNull(),
    note: text().notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    sentAt: timestamp('sent_at', { withTimezone: true }).notNull().defaultNow(),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] }), index('sending_day').on(t.nurseryId, t.onDate)],
);
