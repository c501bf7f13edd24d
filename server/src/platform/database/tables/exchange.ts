import { index, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { bytes, createdAt, id, instant } from './columns.js';
import { people } from './people.js';

/** By which id other systems know something of ours. People carry theirs themselves; a session may be several schools'. */
export const sourcedIds = pgTable(
  'sourced_ids',
  {
    kind: text({
      enum: ['school', 'period', 'course', 'section', 'enrollment', 'category', 'assignment', 'scale'],
    }).notNull(),
    ourId: integer().notNull(),
    sourcedId: text().notNull(),
    createdAt: createdAt(),
  },
  (table) => [primaryKey({ columns: [table.kind, table.ourId] }), index().on(table.kind, table.sourcedId)],
);

/** A zip of rosters and grade books that was put in, whole, until it is taken in or let go of. */
export const exchangeImports = pgTable('exchange_imports', {
  id: id(),
  fileName: text().notNull(),
  /** Null once it was taken in. */
  bytes: bytes(),
  version: text({ enum: ['1.1', '1.2'] }).notNull(),
  status: text({ enum: ['read', 'accepted'] }).notNull(),
  readBy: integer()
    .notNull()
    .references(() => people.id),
  readAt: instant().notNull(),
  acceptedAt: instant(),
  /** How many rows of each file came to what, when it was taken in. */
  counts: jsonb(),
  createdAt: createdAt(),
});
