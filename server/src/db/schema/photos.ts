import { customType, index, integer, pgTable, primaryKey, text, timestamp, uuid } from 'drizzle-orm/pg-core';
import { nurseryId } from './yard';

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

/** Photos as they were kept: made small, turned upright, with nothing in them of where they were taken. */
export const photo = pgTable(
  'photo',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    widthPx: integer('width_px').notNull(),
    heightPx: integer('height_px').notNull(),
    /** Digest of what was sent, so that the same photo sent again is known. */
    sentSha256: text('sent_sha256').notNull(),
    jpeg: bytea().notNull(),
    personId: uuid('person_id').notNull(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] }), index('photo_by_time').on(t.nurseryId, t.at)],
);
