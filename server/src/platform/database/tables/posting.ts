import { sql } from 'drizzle-orm';
import { check, date, index, integer, jsonb, numeric, pgTable, primaryKey, text, unique } from 'drizzle-orm/pg-core';
import { periods } from './calendar.js';
import { createdAt, id, instant } from './columns.js';
import { enrollments, sections } from './courses.js';
import { people } from './people.js';
import { reportItems } from './report-items.js';
import { scaleVersions } from './scales.js';
import { fileImports } from './files.js';

/** One posted mark. The version rises by one with each save and guards against saving over somebody else's work. */
export const grades = pgTable(
  'grades',
  {
    id: id(),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    enrollmentId: integer()
      .notNull()
      .references(() => enrollments.id),
    percent: numeric({ precision: 6, scale: 2 }),
    label: text(),
    code: text(),
    lastDate: date(),
    /** Hours attended, where the item asks for them. */
    hours: numeric({ precision: 6, scale: 2 }),
    comment: text().notNull().default(''),
    scaleVersionId: integer()
      .notNull()
      .references(() => scaleVersions.id),
    version: integer().notNull().default(1),
    /** The version that a run wrote last; where it is another, somebody here changed it since. Null if no run ever did. */
    carriedVersion: integer(),
    postedBy: integer()
      .notNull()
      .references(() => people.id),
    postedAt: instant().notNull(),
    createdAt: createdAt(),
  },
  (table) => [
    check('grades_hours_not_negative', sql`${table.hours} >= 0`),
    unique().on(table.enrollmentId, table.itemId, table.periodId),
    index().on(table.periodId, table.itemId),
    check('grades_label_or_code', sql`${table.label} IS NULL OR ${table.code} IS NULL`),
    check('grades_percent_not_negative', sql`${table.percent} >= 0`),
  ],
);

/**
 * What a learning platform's file says, as exact as it said it, and the row it came from. Each file lies over those that
 * were accepted before it; the view `file_percents` tells what is on top, and files that are not accepted are not in it.
 */
export const computedGrades = pgTable(
  'computed_grades',
  {
    itemId: integer()
      .notNull()
      .references(() => reportItems.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    enrollmentId: integer()
      .notNull()
      .references(() => enrollments.id),
    percent: numeric({ precision: 13, scale: 10 }).notNull(),
    importId: integer()
      .notNull()
      .references(() => fileImports.id),
    importRow: integer().notNull(),
    createdAt: createdAt(),
  },
  (table) => [
    primaryKey({ columns: [table.enrollmentId, table.itemId, table.periodId, table.importId] }),
    index().on(table.importId),
  ],
);

/** What one save changed, and nothing else. */
export const receipts = pgTable(
  'receipts',
  {
    id: id(),
    sectionId: integer()
      .notNull()
      .references(() => sections.id),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    savedBy: integer()
      .notNull()
      .references(() => people.id),
    savedAt: instant().notNull(),
    changes: jsonb().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.sectionId, table.periodId)],
);
