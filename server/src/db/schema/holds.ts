import type { HoldCause, HoldCover, HoldNote } from '@kauri/core';
import { sql } from 'drizzle-orm';
import {
  bigint,
  date,
  foreignKey,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { lot } from './lots';
import { person } from './people';
import { nurseryId } from './yard';

const personId = () =>
  uuid('person_id')
    .notNull()
    .references(() => person.id);

/** A lot held in humid air until its roots feed it. One at a time is under way of a lot. */
export const hold = pgTable(
  'hold',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    lotId: uuid('lot_id').notNull(),
    begunOn: date('begun_on').notNull(),
    cause: text().$type<HoldCause>().notNull(),
    cover: text().$type<HoldCover>().notNull(),
    count: bigint({ mode: 'number' }).notNull(),
    note: text().notNull(),
    personId: personId(),
    endedOn: date('ended_on'),
    alive: bigint({ mode: 'number' }),
    /** The record that wrote off what did not come through. */
    endEntry: uuid('end_entry'),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    uniqueIndex('hold_one_under_way')
      .on(t.nurseryId, t.lotId)
      .where(sql`ended_on is null and struck_at is null`),
    foreignKey({
      columns: [t.nurseryId, t.lotId],
      foreignColumns: [lot.nurseryId, lot.id],
      name: 'hold_lot_fk',
    }),
  ],
);

/** What was seen or done of a hold on a day. */
export const holdStep = pgTable(
  'hold_step',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    holdId: uuid('hold_id').notNull(),
    onDate: date('on_date').notNull(),
    what: text().$type<HoldNote>().notNull(),
    note: text().notNull(),
    personId: personId(),
    notedAt: timestamp('noted_at', { withTimezone: true }).notNull().defaultNow(),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    foreignKey({
      columns: [t.nurseryId, t.holdId],
      foreignColumns: [hold.nurseryId, hold.id],
      name: 'hold_step_hold_fk',
    }),
  ],
);
