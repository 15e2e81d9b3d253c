import type { OrderLine, SeasonAsked, SeasonResult, SeasonStep } from '@kauri/core/contract';
import {
  boolean,
  date,
  doublePrecision,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';
import { nurseryId } from './yard';

/** An order, or a hope: who wants what. Its lines are written as a whole. */
export const treeOrder = pgTable(
  'tree_order',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    buyer: text().notNull(),
    reach: text().notNull(),
    note: text().notNull(),
    lines: jsonb().$type<OrderLine[]>().notNull(),
    version: integer().notNull().default(1),
    takenAt: timestamp('taken_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] })],
);

/** A season being planned, or proposed: what it was asked with, how far it is, and the best so far. */
export const seasonProposal = pgTable(
  'season_proposal',
  {
    nurseryId: nurseryId(),
    id: uuid().notNull(),
    name: text().notNull(),
    state: text({ enum: ['working', 'done', 'stopped', 'failed'] }).notNull(),
    asked: jsonb().$type<SeasonAsked>().notNull(),
    step: text().$type<SeasonStep>().notNull(),
    share: doublePrecision().notNull().default(0),
    madeOn: date('made_on').notNull(),
    fault: text(),
    result: jsonb().$type<SeasonResult>(),
    chosen: boolean().notNull().default(false),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    /** When whoever works on it last said so; null where nobody does. */
    touchedAt: timestamp('touched_at', { withTimezone: true }),
  },
  (t) => [primaryKey({ columns: [t.nurseryId, t.id] })],
);
