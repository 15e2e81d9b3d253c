import {
  bigint,
  boolean,
  doublePrecision,
  index,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';

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
  /** What it speaks to people who chose none, and in what its server writes by itself; BCP 47. */
  language: text().notNull().default('en-GB'),
  /** Made for one person to try things in: it may be done away with whole. */
  practice: boolean().notNull().default(false),
  createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
});

/** Someone who signs in, or who only wrote records that came here with a nursery: then without address or password. People stand outside nurseries; membership joins them. */
export const person = pgTable('person', {
  id: uuid().primaryKey(),
  name: text().notNull(),
  email: text().unique(),
  passwordHash: text('password_hash'),
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
    since: timestamp({ withTimezone: true }).notNull().defaultNow(),
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
    /** Names the browser where its token must not be said. */
    id: uuid().notNull().unique().defaultRandom(),
    agent: text().notNull().default(''),
    /** A browser at a desk, or a device of the yard's own, which stays signed in longer. */
    device: text({ enum: ['desk', 'yard'] })
      .notNull()
      .default('desk'),
    seenAt: timestamp('seen_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index('session_person').on(t.personId)],
);

/** The nursery somebody practises in. Like people, it stands outside nurseries. */
export const practice = pgTable('practice', {
  personId: uuid('person_id')
    .primaryKey()
    .references(() => person.id),
  state: text({ enum: ['making', 'ready', 'failed'] }).notNull(),
  /** The demo it is made like. */
  south: boolean().notNull(),
  language: text().notNull(),
  /** Null before it is there. */
  nurseryId: uuid('practice_nursery_id'),
  askedAt: timestamp('asked_at', { withTimezone: true }).notNull().defaultNow(),
});

/** An invitation into a nursery, taken by whoever holds its secret; only a digest of it is kept. */
export const invite = pgTable(
  'invite',
  {
    nurseryId: uuid('nursery_id')
      .notNull()
      .references(() => nursery.id),
    id: uuid().notNull(),
    /** Whom it is for, in the owner's words. */
    name: text().notNull(),
    role: text({ enum: ['visitor', 'crew', 'grower', 'owner'] }).notNull(),
    tokenHash: text('token_hash').notNull().unique(),
    byPerson: uuid('by_person')
      .notNull()
      .references(() => person.id),
    endsAt: timestamp('ends_at', { withTimezone: true }).notNull(),
    takenBy: uuid('taken_by').references(() => person.id),
    withdrawnAt: timestamp('withdrawn_at', { withTimezone: true }),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] })],
);

/** A link by which a person sets a new password, once. Like people, it stands outside nurseries. */
export const passwordLink = pgTable('password_link', {
  personId: uuid('person_id')
    .primaryKey()
    .references(() => person.id),
  tokenHash: text('token_hash').notNull().unique(),
  endsAt: timestamp('ends_at', { withTimezone: true }).notNull(),
});

/** An authenticator's secret (RFC 6238); in force once a code of it was given. */
export const secondFactor = pgTable('second_factor', {
  personId: uuid('person_id')
    .primaryKey()
    .references(() => person.id),
  secret: text().notNull(),
  inForceSince: timestamp('in_force_since', { withTimezone: true }),
  /** The time step of the last code taken: no code is taken twice. */
  lastStep: bigint('last_step', { mode: 'number' }).notNull().default(0),
  /** Digests of recovery codes not used yet. */
  recoveryHashes: text('recovery_hashes').array().notNull(),
});

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
