import {
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';
import { person } from './people';
import { nurseryId } from './yard';

/** One day of weather. Values are as measured; gaps are days without a row. */
export const weatherDay = pgTable(
  'weather_day',
  {
    nurseryId: nurseryId(),
    day: date().notNull(),
    tMinC: doublePrecision('t_min_c').notNull(),
    tMaxC: doublePrecision('t_max_c').notNull(),
    rainMm: doublePrecision('rain_mm'),
    /** Relative humidity, 0–1, and wind at 2 m, day’s means; only a station gives them. */
    humidity: doublePrecision(),
    windMs: doublePrecision('wind_ms'),
    /** The station it was read from; null for a day that came by table or by hand. */
    stationId: uuid('station_id'),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.day] })],
);

/** A day of weather before and after a table was taken in; null before where there was none. */
export type DayTaken = [day: string, before: DayValues | null, after: DayValues];
export type DayValues = [tMinC: number, tMaxC: number, rainMm: number | null];

/** A table that was taken in as one act, and what it wrote, so that it can be taken back as one. */
export const tableTaken = pgTable(
  'table_taken',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    kind: text({ enum: ['weather', 'measurements'] }).notNull(),
    /** Days or plants taken, and the days they are of. */
    good: integer().notNull(),
    firstOn: date('first_on'),
    lastOn: date('last_on'),
    /** Days of weather, or the samples by their ids. */
    took: jsonb().$type<{ days: DayTaken[] } | { samples: string[] }>().notNull(),
    takenBackAt: timestamp('taken_back_at', { withTimezone: true }),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] })],
);

/** Who did what, when, with the row before and after. Added to in the same transaction, never changed. */
export const journal = pgTable(
  'journal',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    personId: uuid('person_id').notNull(),
    act: text().notNull(),
    subjectId: uuid('subject_id').notNull(),
    before: jsonb(),
    after: jsonb(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.id] }),
    index('journal_subject').on(t.nurseryId, t.subjectId, t.at),
  ],
);

/** The first answer to each write, by the id its client gave it: a retry gets the same and writes nothing. */
export const receipt = pgTable(
  'receipt',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    route: text().notNull(),
    bodyHash: text('body_hash').notNull(),
    answer: jsonb(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] })],
);
