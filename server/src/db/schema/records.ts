import {
  date,
  doublePrecision,
  index,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';
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
