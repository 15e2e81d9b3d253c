import type { OrderLine } from '@kauri/core/contract';
import { integer, jsonb, pgTable, primaryKey, text, timestamp, uuid } from 'drizzle-orm/pg-core';
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
