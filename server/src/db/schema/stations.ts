import type { ReadingFlag } from '@kauri/core';
import { doublePrecision, foreignKey, pgTable, primaryKey, text, timestamp, uuid } from 'drizzle-orm/pg-core';
import { nurseryId } from './yard';

/** A weather station, or a logger under a cover. */
export const station = pgTable(
  'station',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    name: text().notNull(),
    /** The cover it hangs under; null in the open. */
    coverId: uuid('cover_id'),
    addedAt: timestamp('added_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] })],
);

/** Hourly readings as they came, none thrown away: a doubted one carries why. */
export const stationReading = pgTable(
  'station_reading',
  {
    nurseryId: nurseryId(),
    stationId: uuid('station_id').notNull(),
    /** Local time of the nursery, on the hour, YYYY-MM-DDTHH. */
    hour: text().notNull(),
    tempC: doublePrecision('temp_c'),
    rainMm: doublePrecision('rain_mm'),
    humidity: doublePrecision(),
    windMs: doublePrecision('wind_ms'),
    flag: text().$type<ReadingFlag>(),
  },
  (t) => [
    primaryKey({ columns: [t.nurseryId, t.stationId, t.hour] }),
    foreignKey({
      columns: [t.nurseryId, t.stationId],
      foreignColumns: [station.nurseryId, station.id],
      name: 'reading_station',
    }),
  ],
);
