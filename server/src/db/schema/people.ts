import { doublePrecision, index, pgTable, primaryKey, text, timestamp, uuid } from 'drizzle-orm/pg-core';

/** A nursery: the owner of every row that carries its id. */
export const nursery = pgTable('nursery', {
  id: uuid().primaryKey(),
  name: text().notNull(),
  placeName: text('place_name').notNull(),
  latitudeDeg: doublePrecision('latitude_deg').notNull(),
  longitudeDeg: doublePrecision('longitude_deg').notNull(),
  elevationM: doublePrecision('elevation_m').notNull(),
  timeZone: text('time_zone').notNull(),
  units: text({ enum: ['metric', 'us'] }).notNull(),
  createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
});

/** Someone who signs in. People stand outside nurseries; membership joins them. */
export const person = pgTable('person', {
  id: uuid().primaryKey(),
  name: text().notNull(),
  email: text().notNull().unique(),
  passwordHash: text('password_hash').notNull(),
  createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
});

export const membership = pgTable(
  'membership',
  {
    nurseryId: uuid('nursery_id')
      .notNull()
      .references(() => nursery.id),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    role: text({ enum: ['visitor', 'crew', 'grower', 'owner'] }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.personId] }), index('membership_person').on(t.personId)],
);

/** A signed-in browser. Only the hash of its token is kept. */
export const session = pgTable(
  'session',
  {
    tokenHash: text('token_hash').primaryKey(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
    expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
  },
  (t) => [index('session_person').on(t.personId)],
);

/** Failed and tried sign-ins by address, for the limit on guessing; shared by all servers. */
export const signInTry = pgTable('sign_in_try', {
  key: text().primaryKey(),
  hits: doublePrecision().notNull(),
  resetsAt: timestamp('resets_at', { withTimezone: true }).notNull(),
});

/** People the demo shows on its sign-in page. Empty outside the demo. */
export const demoPerson = pgTable('demo_person', {
  email: text().primaryKey(),
  name: text().notNull(),
  role: text({ enum: ['visitor', 'crew', 'grower', 'owner'] }).notNull(),
  nursery: text().notNull(),
  password: text().notNull(),
  place: doublePrecision().notNull(),
});
