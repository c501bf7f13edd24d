import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  check,
  date,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  primaryKey,
  text,
  unique,
} from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import { createdAt, id, instant, onlyKnownWords } from './columns.js';
import { enrollments, sections } from './courses.js';
import { mails } from './mail.js';
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
    /** The comment is for the school alone. */
    isInternal: boolean().notNull().default(false),
    /** What was computed when it was posted; null where nothing was. */
    computedThen: numeric({ precision: 13, scale: 10 }),
    /** It says otherwise than what was computed then. */
    isOverride: boolean().notNull().default(false),
    overrideReason: text().notNull().default(''),
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
    /** The teacher for whom somebody else posted; null where whoever teaches the section did. */
    onBehalfOf: integer().references(() => people.id),
    changes: jsonb().notNull(),
    /** It was told in the messages of its day. */
    isTold: boolean().notNull().default(false),
    createdAt: createdAt(),
  },
  (table) => [
    index().on(table.sectionId, table.periodId),
    index().on(table.savedBy, table.savedAt),
    index().on(table.onBehalfOf, table.savedAt),
    index()
      .on(table.savedAt)
      .where(sql`NOT ${table.isTold}`),
  ],
);

/** A sheet: a section's students with one item in one period. */
const sheet = () => ({
  sectionId: integer()
    .notNull()
    .references(() => sections.id),
  itemId: integer()
    .notNull()
    .references(() => reportItems.id),
  periodId: integer()
    .notNull()
    .references(() => periods.id),
});

/** A teacher's word that a sheet is finished; gone once it is taken back. */
export const signOffs = pgTable(
  'sign_offs',
  {
    id: id(),
    ...sheet(),
    signedBy: integer()
      .notNull()
      .references(() => people.id),
    signedAt: instant().notNull(),
    /** The teacher for whom somebody else signed off. */
    onBehalfOf: integer().references(() => people.id),
    /** For the registrar. */
    note: text().notNull().default(''),
    createdAt: createdAt(),
  },
  (table) => [unique().on(table.sectionId, table.itemId, table.periodId), index().on(table.periodId)],
);

/** That a teacher was reminded of a sheet, by which message. */
export const reminders = pgTable(
  'reminders',
  {
    id: id(),
    ...sheet(),
    teacherId: integer()
      .notNull()
      .references(() => people.id),
    mailId: integer()
      .notNull()
      .references(() => mails.id),
    sentBy: integer()
      .notNull()
      .references(() => people.id),
    sentAt: instant().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.periodId), index().on(table.sectionId)],
);

/** Grades that somebody typed and may not post any more, which a registrar is asked to post. */
export const postingRequests = pgTable(
  'posting_requests',
  {
    id: id(),
    ...sheet(),
    askedBy: integer()
      .notNull()
      .references(() => people.id),
    askedAt: instant().notNull(),
    /** As they were typed, with the version that each was typed over. */
    changes: jsonb().notNull(),
    note: text().notNull().default(''),
    state: text({ enum: ['open', 'posted', 'declined', 'withdrawn'] })
      .notNull()
      .default('open'),
    answer: text().notNull().default(''),
    answeredBy: integer().references(() => people.id),
    answeredAt: instant(),
    createdAt: createdAt(),
  },
  (table) => [...onlyKnownWords(table), index().on(table.periodId), index().on(table.sectionId)],
);

/** Comments that teachers of a school choose from, with words in braces that each student fills in. */
export const stockComments = pgTable(
  'stock_comments',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    position: integer().notNull(),
    text: text().notNull(),
    createdAt: createdAt(),
  },
  (table) => [unique().on(table.schoolId, table.position)],
);

/**
 * How often what a sheet's counts rest on was written, section by section, by triggers; without a period for all of them. The
 * sum tells one state from another.
 */
export const sheetChanges = pgTable(
  'sheet_changes',
  {
    sectionId: integer().notNull(),
    periodId: integer(),
    times: bigint({ mode: 'number' }).notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.periodId)],
);
