import type { LotAsks } from '@kauri/core';
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
  uuid,
} from 'drizzle-orm/pg-core';
import { lot } from './lots';
import { nurseryId } from './yard';

/** What somebody did about an act of Today: done, skipped or given to someone. A struck one was taken back. */
export const actMark = pgTable(
  'act_mark',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    rule: text().notNull(),
    /** The lot, batch, layer or bag it is about; null where it is about several. */
    subjectId: uuid('subject_id'),
    mark: text({ enum: ['done', 'skipped', 'assigned'] }).notNull(),
    onDate: date('on_date').notNull(),
    /** First day on which the act may be asked for again. */
    until: date().notNull(),
    reason: text().notNull().default(''),
    minutes: doublePrecision(),
    trees: integer().notNull(),
    assignedTo: uuid('assigned_to'),
    personId: uuid('person_id').notNull(),
    struckAt: timestamp('struck_at', { withTimezone: true }),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] }), index('act_mark_until').on(t.nurseryId, t.until)],
);

/** A private address of the calendar: only a digest of its secret is kept. */
export const calendarToken = pgTable(
  'calendar_token',
  {
    nurseryId: nurseryId(),
    personId: uuid('person_id').notNull(),
    tokenHash: text('token_hash').notNull().unique(),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.personId] })],
);

/** What each lot asks for on a date, kept while nothing it rests on changes. */
export const lotAsks = pgTable(
  'lot_asks',
  {
    nurseryId: nurseryId(),
    lotId: uuid('lot_id').notNull(),
    asOf: date('as_of').notNull(),
    /** Says what records, catalogue and weather it was worked out from. */
    basis: text().notNull(),
    /** Null where its forecast failed. */
    asks: jsonb().$type<LotAsks | null>(),
    /** Why its forecast failed. */
    fault: text(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.lotId] }),
    foreignKey({
      columns: [t.nurseryId, t.lotId],
      foreignColumns: [lot.nurseryId, lot.id],
      name: 'asks_lot',
    }),
  ],
);

/** Today of a nursery as it was last worked out, whole. Marks and rules are laid over it when it is asked for. */
export const nurseryToday = pgTable(
  'nursery_today',
  {
    nurseryId: nurseryId(),
    asOf: date('as_of').notNull(),
    /** The last change of the nursery that it knows of. */
    known: uuid(),
    workedAt: timestamp('worked_at', { withTimezone: true }).notNull(),
    /** Lots forecast anew for it. */
    forecast: integer().notNull(),
    /** Lots whose forecast failed, with why. */
    faults: jsonb().$type<{ lotId: string; code: string; fault: string }[]>().notNull(),
    /** Items and what the seed room asks for, as `toKept` writes them: read whole, never asked into. */
    items: text().notNull(),
    room: text().notNull(),
    /** What the seed room's was worked out from. */
    roomBasis: text('room_basis').notNull(),
  },
  (t) => [primaryKey({ columns: [t.nurseryId] })],
);
