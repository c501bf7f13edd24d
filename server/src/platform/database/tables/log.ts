import { sql } from 'drizzle-orm';
import { index, integer, jsonb, pgSequence, pgTable, text } from 'drizzle-orm/pg-core';
import { id, instant } from './columns.js';

/** Append-only. Each entry's hash covers the one before it; only the log's service writes here. */
export const changeLog = pgTable(
  'change_log',
  {
    id: id(),
    at: instant().notNull(),
    actorId: integer(),
    actor: text().notNull(),
    action: text().notNull(),
    thing: text().notNull(),
    before: jsonb(),
    after: jsonb(),
    previousHash: text().notNull(),
    hash: text().notNull(),
    /** The change that the entry is a part of, from `change_numbers`; null for what was logged by itself. */
    changeId: integer(),
    undoes: integer(),
    why: text(),
  },
  (table) => [
    index().on(table.thing),
    index().on(table.changeId),
    index().on(table.actorId, table.id),
    index().on(table.at),
    // What is searched for by the beginnings of words.
    index('change_log_words').using('gin', sql`to_tsvector('simple', ${table.action} || ' ' || ${table.thing})`),
  ],
);

/** Where the log ends: one row, moved on with each entry, so that an end that was cut off shows. */
export const logHead = pgTable('log_head', {
  id: integer().primaryKey().default(1),
  entries: integer().notNull(),
  lastId: integer().notNull(),
  hash: text().notNull(),
});

/** Numbers of changes; a change has one entry for each thing that it changes. */
export const changeNumbers = pgSequence('change_numbers');

/** What holds for the whole district: the clock of the demo, how the GPA is made. */
export const settings = pgTable('settings', { key: text().primaryKey(), value: jsonb().notNull() });
