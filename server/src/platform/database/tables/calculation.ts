import { sql } from 'drizzle-orm';
import {
  boolean,
  date,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  primaryKey,
  serial,
  text,
  unique,
  check,
} from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import { createdAt, id, instant, onlyKnownWords } from './columns.js';
import { enrollments, sections } from './courses.js';

/** A school's own categories, which teachers cannot change, and those of one section. */
export const categories = pgTable(
  'categories',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    /** Null for a category of the whole school. */
    sectionId: integer().references(() => sections.id),
    name: text().notNull(),
    /** Which of the tints of the interface it wears, from 0. */
    tint: integer().notNull().default(0),
    position: integer().notNull().default(1),
    isActive: boolean().notNull().default(true),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.sectionId), index().on(table.schoolId)],
);

/** How grade books are calculated, at a place and, where a period is named, in that period only. */
export const calculationPolicies = pgTable(
  'calculation_policies',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    department: text(),
    sectionId: integer().references(() => sections.id),
    periodId: integer().references(() => periods.id),
    body: jsonb().notNull(),
    createdAt: createdAt(),
  },
  (table) => [unique().on(table.schoolId, table.department, table.sectionId, table.periodId).nullsNotDistinct()],
);

export const assignments = pgTable(
  'assignments',
  {
    id: id(),
    sectionId: integer()
      .notNull()
      .references(() => sections.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    categoryId: integer()
      .notNull()
      .references(() => categories.id),
    name: text().notNull(),
    possible: numeric({ precision: 6, scale: 2 }).notNull(),
    dueOn: date().notNull(),
    /** Its points only add. */
    isExtra: boolean().notNull().default(false),
    isCounted: boolean().notNull().default(true),
    isPublished: boolean().notNull().default(true),
    /** Null for everybody; else the enrollments it was given to. */
    givenTo: jsonb().$type<number[]>(),
    version: integer().notNull().default(1),
    /** The version that a run wrote last; where it is another, somebody here changed it since. Null if no run ever did. */
    carriedVersion: integer(),
    createdAt: createdAt(),
  },
  (table) => [
    check('assignments_possible_not_negative', sql`${table.possible} >= 0`),
    index().on(table.sectionId, table.periodId),
    index().on(table.categoryId),
  ],
);

export const scores = pgTable(
  'scores',
  {
    assignmentId: integer()
      .notNull()
      .references(() => assignments.id),
    enrollmentId: integer()
      .notNull()
      .references(() => enrollments.id),
    /** Null where only the flag says something. */
    points: numeric({ precision: 6, scale: 2 }),
    flag: text({ enum: ['missing', 'late', 'incomplete', 'exempt', 'absent', 'collected'] }),
    /** Rises with each save and guards against saving over somebody else's work. */
    version: integer().notNull().default(1),
    /** As with an assignment. */
    carriedVersion: integer(),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    check('scores_points_not_negative', sql`${table.points} >= 0`),
    primaryKey({ columns: [table.assignmentId, table.enrollmentId] }),
    index().on(table.enrollmentId),
  ],
);

/** What one category comes to for a student, kept as the whole is. */
export interface StoredCategory {
  readonly percent: string | null;
  readonly level: string | null;
  readonly blockedBy: readonly number[];
}

/** What the grade book of a section comes to for a student in a period. */
export const calculatedGrades = pgTable(
  'calculated_grades',
  {
    enrollmentId: integer()
      .notNull()
      .references(() => enrollments.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    /**
     * To ten digits, rounded stickily: rounding it again as an item says gives what rounding the exact value gives. Extra
     * points may carry it to any height.
     */
    percent: numeric({ precision: 30, scale: 10 }),
    /** The same as a level, where levels are read. */
    level: numeric({ precision: 30, scale: 10 }),
    /** What each category of the policy comes to by itself, by its number. */
    byCategory: jsonb()
      .$type<Record<string, StoredCategory>>()
      .notNull()
      .default(sql`'{}'::jsonb`),
    /** The assignments that keep the student from having a percentage. */
    blockedBy: jsonb()
      .$type<number[]>()
      .notNull()
      .default(sql`'[]'::jsonb`),
    calculatedAt: instant().notNull(),
  },
  (table) => [primaryKey({ columns: [table.enrollmentId, table.periodId] })],
);

/** Grade books whose calculated grades are out of date; a row goes when they were calculated again. */
export const staleBooks = pgTable(
  'stale_books',
  {
    sectionId: integer()
      .notNull()
      .references(() => sections.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    /** Another number each time, so that what became stale again meanwhile stays. */
    mark: serial().notNull(),
    /** Why it could not be calculated when it was last tried; it is tried again when something it rests on changes. */
    problem: text(),
  },
  (table) => [primaryKey({ columns: [table.sectionId, table.periodId] })],
);
