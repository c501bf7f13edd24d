import { exchangeFiles, exchangeStatuses, type RosterFields } from '#core/exchange';
import { index, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { bytes, createdAt, id, instant, onlyKnownWords } from './columns.js';
import type { KeptProblem } from '../../errors/kept-problem.js';
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
  (table) => [
    ...onlyKnownWords(table),
    primaryKey({ columns: [table.kind, table.ourId] }),
    index().on(table.kind, table.sourcedId),
  ],
);

/**
 * What a roster said of a thing beyond what Wombat works with, such as a username or the room of a class, so that it goes
 * out again as it came in. Rows are known by file and key, as the format's own comparison knows them.
 */
export const rosterFields = pgTable(
  'roster_fields',
  {
    file: text({ enum: exchangeFiles }).notNull(),
    key: text().notNull(),
    /** The row's own id in the roster, by which a delta may name it. */
    sourcedId: text().notNull(),
    fields: jsonb().$type<RosterFields>().notNull(),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    primaryKey({ columns: [table.file, table.key] }),
    index().on(table.file, table.sourcedId),
  ],
);

/** A zip of rosters and grade books that was put in, whole, until it is taken in or let go of. */
export const exchangeImports = pgTable(
  'exchange_imports',
  {
    id: id(),
    fileName: text().notNull(),
    /** Null once it was taken in. */
    bytes: bytes(),
    version: text({ enum: ['1.1', '1.2'] }).notNull(),
    status: text({ enum: exchangeStatuses }).notNull(),
    readBy: integer()
      .notNull()
      .references(() => people.id),
    readAt: instant().notNull(),
    acceptedAt: instant(),
    /** How many rows of each file came to what, when it was accepted. */
    counts: jsonb(),
    /** The fingerprint of the preview that was accepted. */
    previewId: text(),
    /** Who accepted it, and how far the writing is: rows, and how many of them are written. */
    acceptedBy: integer().references(() => people.id),
    stepCount: integer().notNull().default(0),
    stepsDone: integer().notNull().default(0),
    /** Why the writing broke off: the code of a problem, and its data. */
    problem: jsonb().$type<KeptProblem>(),
    /** Which server works on it, and until when others believe so. */
    worker: text(),
    workerUntil: instant(),
    createdAt: createdAt(),
  },
  (table) => [...onlyKnownWords(table)],
);
