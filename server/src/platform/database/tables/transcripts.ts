import { sql } from 'drizzle-orm';
import { boolean, index, integer, numeric, pgTable, text, unique, check } from 'drizzle-orm/pg-core';
import { auditRuns } from './audit.js';
import { periods, schools } from './calendar.js';
import { createdAt, id, instant, onlyKnownWords } from './columns.js';
import { enrollments } from './courses.js';
import { people } from './people.js';
import { reportItems } from './report-items.js';

export const seals = pgTable(
  'seals',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    auditRunId: integer()
      .notNull()
      .references(() => auditRuns.id),
    sealedBy: integer()
      .notNull()
      .references(() => people.id),
    sealedAt: instant().notNull(),
    entryCount: integer().notNull(),
    createdAt: createdAt(),
  },
  (table) => [unique().on(table.periodId)],
);

/** A transcript line is a copy on purpose: nothing that changes in grades, courses or scales afterwards changes it. */
export const transcriptEntries = pgTable(
  'transcript_entries',
  {
    id: id(),
    sealId: integer()
      .notNull()
      .references(() => seals.id),
    studentId: integer()
      .notNull()
      .references(() => people.id),
    enrollmentId: integer()
      .notNull()
      .references(() => enrollments.id),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id),
    courseCode: text().notNull(),
    courseTitle: text().notNull(),
    level: text({ enum: ['regular', 'honours', 'college'] }).notNull(),
    percent: numeric({ precision: 6, scale: 2 }),
    mark: text().notNull(),
    points: numeric({ precision: 4, scale: 2 }),
    passes: boolean().notNull(),
    creditsTried: numeric({ precision: 8, scale: 4 }).notNull(),
    creditsEarned: numeric({ precision: 8, scale: 4 }).notNull(),
    countsInGpa: boolean().notNull(),
    /** The most credits the course gave when repeated; null where every repeat counts. */
    mostCredits: numeric({ precision: 6, scale: 4 }),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    check(
      'transcript_entries_credits_known',
      sql`${table.creditsEarned} >= 0 AND ${table.creditsTried} >= ${table.creditsEarned}`,
    ),
    unique().on(table.sealId, table.enrollmentId, table.itemId),
    index().on(table.studentId),
  ],
);
