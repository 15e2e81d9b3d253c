import type { LineState, StoreSign, TreeForm } from '@kauri/core';
import {
  bigint,
  boolean,
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
  uuid,
} from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import { lot } from './lots';
import { person } from './people';
import { treeOrder } from './plan';
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
    /** Of trees that were sent and came back, the parcel they were sent out of. */
    cameOutOf: uuid('came_out_of'),
    count: bigint({ mode: 'number' }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('parcel_lot').on(t.nurseryId, t.lotId),
    index('parcel_entry').on(t.nurseryId, t.entryId),
    foreignKey({
      columns: [t.nurseryId, t.cameOutOf],
      foreignColumns: [t.nurseryId, t.id],
      name: 'parcel_came_out_of_fk',
    }),
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
    /** Of them, set aside for lines of orders; kept by the database likewise, never more than are held. */
    aside: bigint({ mode: 'number' }).notNull().default(0),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.parcelId] }),
    foreignKey({
      columns: [t.nurseryId, t.parcelId],
      foreignColumns: [parcel.nurseryId, parcel.id],
      name: 'parcel_held_fk',
    }),
    check('parcel_not_below_zero', sql`${t.held} >= 0`),
    check('parcel_aside_held', sql`${t.aside} >= 0 and (${t.aside} = 0 or ${t.aside} <= ${t.held})`),
  ],
);

/** Lifted trees of a parcel that are set aside for a line of an order. */
export const parcelAside = pgTable(
  'parcel_aside',
  {
    nurseryId: nurseryId(),
    parcelId: uuid('parcel_id').notNull(),
    lineId: uuid('line_id').notNull(),
    orderId: uuid('order_id').notNull(),
    count: bigint({ mode: 'number' }).notNull(),
    setAt: timestamp('set_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.parcelId, t.lineId] }),
    index('parcel_aside_line').on(t.nurseryId, t.orderId, t.lineId),
    foreignKey({
      columns: [t.nurseryId, t.parcelId],
      foreignColumns: [parcel.nurseryId, parcel.id],
      name: 'parcel_aside_fk',
    }),
    foreignKey({
      columns: [t.nurseryId, t.orderId],
      foreignColumns: [treeOrder.nurseryId, treeOrder.id],
      name: 'parcel_aside_order_fk',
    }),
    check('parcel_aside_some', sql`${t.count} > 0`),
  ],
);

/** What was seen where lifted trees lie. A struck one was taken back. */
export const storeLook = pgTable(
  'store_look',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    place: text().notNull(),
    onDate: date('on_date').notNull(),
    tempC: doublePrecision('temp_c'),
    seen: jsonb().$type<StoreSign[]>().notNull(),
    note: text().notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] }), index('store_look_day').on(t.nurseryId, t.onDate)],
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
    /** What was set aside for the line and is no more, since these were sent. */
    released: jsonb().$type<{ parcelId: string; count: number }[]>().notNull().default([]),
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

/** Trees of a sending that came back; its movements carry its id. A struck one was taken back. */
export const sendingReturn = pgTable(
  'sending_return',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    sendingId: uuid('sending_id').notNull(),
    onDate: date('on_date').notNull(),
    /** Whether the line wants as many again; null where they were sent for none. */
    wantedAgain: boolean('wanted_again'),
    /** By how much the line was lowered, where it does not. */
    lowered: integer().notNull().default(0),
    /** How far the line had come, where nothing of it was left and it fell through. */
    fellFrom: text('fell_from').$type<LineState>(),
    note: text().notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    writtenAt: timestamp('written_at', { withTimezone: true }).notNull().defaultNow(),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('sending_return_of').on(t.nurseryId, t.sendingId),
    foreignKey({
      columns: [t.nurseryId, t.sendingId],
      foreignColumns: [sending.nurseryId, sending.id],
      name: 'sending_return_fk',
    }),
  ],
);
