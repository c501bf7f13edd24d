import { sql } from 'drizzle-orm';
import { boolean, index, integer, jsonb, pgTable, primaryKey, serial, text, uniqueIndex } from 'drizzle-orm/pg-core';
import { assignments } from './calculation.js';
import { periods } from './calendar.js';
import { createdAt, id, instant, onlyKnownWords } from './columns.js';
import { learningPlatforms, platformClasses } from './matching.js';
import { people } from './people.js';

/** One carrying over from a learning platform: first planned, then carried out, and undone if need be. */
export const runs = pgTable(
  'runs',
  {
    id: id(),
    platformId: integer()
      .notNull()
      .references(() => learningPlatforms.id, { onDelete: 'cascade' }),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    stage: text({ enum: ['plan', 'carry', 'undo'] }).notNull(),
    state: text({ enum: ['working', 'ready', 'failed', 'stopped'] }).notNull(),
    mode: text({ enum: ['keep', 'replace'] }).notNull(),
    carriesWork: boolean().notNull(),
    carriesTotals: boolean().notNull(),
    isNightly: boolean().notNull(),
    /** Why it failed, or what it waits for, in words. */
    problem: text(),
    /** What the ledger came to when the last stage ended; `LedgerCounts`. */
    counts: jsonb(),
    startedBy: integer()
      .notNull()
      .references(() => people.id),
    startedAt: instant().notNull(),
    /** When the last stage ended. */
    endedAt: instant(),
    /** Which server works on it, and until when others believe so. */
    worker: text(),
    workerUntil: instant(),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table) /** One run of a platform works at a time, however many servers there are. */,
    uniqueIndex('runs_one_working')
      .on(table.platformId)
      .where(sql`state = 'working'`),
    index().on(table.platformId, table.periodId),
  ],
);

/** A class in a run, and the last stage that it has behind it. */
export const runClasses = pgTable(
  'run_classes',
  {
    runId: integer()
      .notNull()
      .references(() => runs.id, { onDelete: 'cascade' }),
    classId: integer()
      .notNull()
      .references(() => platformClasses.id, { onDelete: 'cascade' }),
    passed: text({ enum: ['none', 'plan', 'carry', 'undo'] })
      .notNull()
      .default('none'),
    /** What the platform told about the class when the run was planned. */
    reading: jsonb(),
  },
  (table) => [
    ...onlyKnownWords(table),
    primaryKey({ columns: [table.runId, table.classId] }),
    index().on(table.classId),
  ],
);

/** One line of a run's ledger. */
export const runRows = pgTable(
  'run_rows',
  {
    id: serial().primaryKey(),
    runId: integer()
      .notNull()
      .references(() => runs.id, { onDelete: 'cascade' }),
    classId: integer()
      .notNull()
      .references(() => platformClasses.id, { onDelete: 'cascade' }),
    kind: text({ enum: ['class', 'assignment', 'total', 'score', 'mark'] }).notNull(),
    outcome: text({ enum: ['create', 'change', 'same', 'skip', 'refuse'] }).notNull(),
    /** The code of the reason that decides, so that lines can be counted by it. */
    reason: text(),
    reasons: jsonb().notNull(),
    name: text().notNull(),
    columnKey: text().notNull(),
    personKey: text().notNull(),
    assignmentId: integer(),
    enrollmentId: integer(),
    itemId: integer(),
    before: jsonb(),
    after: jsonb(),
    same: integer().notNull(),
    blank: integer().notNull(),
    heldBack: integer().notNull(),
    isPicked: boolean().notNull().default(true),
    /** What carrying out did with a line that was to be written; null before. */
    result: text({ enum: ['written', 'left', 'movedOn', 'undone', 'stays'] }),
    /** The version that the thing had when this run had written it. */
    writtenVersion: integer(),
  },
  (table) => [...onlyKnownWords(table), index().on(table.runId, table.classId)],
);

/** Which assignment of ours a run made of, or found for, which of a platform's. It outlives the assignment. */
export const assignmentOrigins = pgTable(
  'assignment_origins',
  {
    platformId: integer()
      .notNull()
      .references(() => learningPlatforms.id, { onDelete: 'cascade' }),
    columnKey: text().notNull(),
    classId: integer()
      .notNull()
      .references(() => platformClasses.id, { onDelete: 'cascade' }),
    /** Null once somebody removed it here. */
    assignmentId: integer().references(() => assignments.id, { onDelete: 'set null' }),
    createdAt: createdAt(),
  },
  (table) => [
    primaryKey({ columns: [table.platformId, table.columnKey] }),
    index()
      .on(table.assignmentId)
      .where(sql`assignment_id IS NOT NULL`),
  ],
);
