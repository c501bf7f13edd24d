import { sql } from 'drizzle-orm';
import { boolean, check, integer, jsonb, numeric, pgTable, primaryKey, text, unique } from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import { createdAt, id, instant, onlyKnownWords } from './columns.js';
import { courses } from './courses.js';
import { categories } from './calculation.js';
import { scales } from './scales.js';

export const reportItems = pgTable(
  'report_items',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    name: text().notNull(),
    heading: text().notNull(),
    kind: text({ enum: ['progress', 'period', 'exam', 'final', 'standard', 'conduct'] })
      .notNull()
      .default('period'),
    periodKind: text({ enum: ['year', 'semester', 'quarter', 'trimester', 'term'] }).notNull(),
    /** Which of the year's periods of that kind, from 1; null for each. */
    ordinals: jsonb().$type<number[]>(),
    /** Null for the scale in force for the course or section. */
    scaleId: integer().references(() => scales.id),
    source: text({ enum: ['gradeBook', 'hand', 'composite'] })
      .notNull()
      .default('gradeBook'),
    /** The category or standard of the grade book that the value is taken from; null for the book as a whole. */
    categoryId: integer().references(() => categories.id),
    countBy: text({ enum: ['percent', 'points'] })
      .notNull()
      .default('percent'),
    digits: integer().notNull(),
    rounding: text({ enum: ['halfUp', 'halfEven', 'down'] }).notNull(),
    /** The highest percent that is posted; an item that no one limited takes extra credit. */
    highestPercent: numeric({ precision: 5, scale: 2 }).notNull().default('200'),
    commentRule: text({ enum: ['none', 'optional', 'requiredBelow'] })
      .notNull()
      .default('optional'),
    commentBelow: text(),
    commentLength: integer().notNull().default(100),
    familyView: text({ enum: ['label', 'percent', 'both', 'descriptor', 'hidden'] })
      .notNull()
      .default('label'),
    familyTime: text({ enum: ['posted', 'closed', 'sealed'] })
      .notNull()
      .default('closed'),
    failingNeedsLastDate: boolean().notNull(),
    asksHours: boolean().notNull().default(false),
    onTranscript: boolean().notNull(),
    countsInGpa: boolean().notNull().default(true),
    position: integer().notNull().default(1),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    check('report_items_digits_known', sql`${table.digits} BETWEEN 0 AND 2`),
    check('report_items_highest_percent_known', sql`${table.highestPercent} BETWEEN 100 AND 200`),
    check('report_items_comment_length_known', sql`${table.commentLength} > 0`),
  ],
);

/** The parts of composites: an item in the nth of its periods inside the composite's own. */
export const reportItemParts = pgTable(
  'report_item_parts',
  {
    compositeId: integer()
      .notNull()
      .references(() => reportItems.id, { onDelete: 'cascade' }),
    position: integer().notNull(),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id),
    ordinal: integer().notNull(),
    weight: numeric({ precision: 5, scale: 2 }).notNull(),
    createdAt: createdAt(),
  },
  (table) => [
    check('report_item_parts_weight_known', sql`${table.weight} > 0 AND ${table.weight} <= 100`),
    check('report_item_parts_ordinal_known', sql`${table.ordinal} >= 1`),
    primaryKey({ columns: [table.compositeId, table.position] }),
  ],
);

export const reportItemRules = pgTable(
  'report_item_rules',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id, { onDelete: 'cascade' }),
    effect: text({ enum: ['reports', 'omits'] })
      .notNull()
      .default('reports'),
    department: text(),
    level: text({ enum: ['regular', 'honours', 'college'] }),
    kind: text(),
    length: text({ enum: ['year', 'semester', 'term'] }),
    position: integer().notNull(),
    createdAt: createdAt(),
  },
  (table) => [...onlyKnownWords(table)],
);

/** One course that reports an item, or does not, whatever the rules say. */
export const reportItemExceptions = pgTable(
  'report_item_exceptions',
  {
    id: id(),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id, { onDelete: 'cascade' }),
    courseId: integer()
      .notNull()
      .references(() => courses.id),
    effect: text({ enum: ['reports', 'omits'] }).notNull(),
    reason: text().notNull(),
    createdAt: createdAt(),
  },
  (table) => [...onlyKnownWords(table), unique().on(table.itemId, table.courseId)],
);

export const postingWindows = pgTable(
  'posting_windows',
  {
    id: id(),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id, { onDelete: 'cascade' }),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    opensAt: instant().notNull(),
    closesAt: instant().notNull(),
    graceUntil: instant(),
    latePosters: text({ enum: ['nobody', 'registrars', 'teachers'] })
      .notNull()
      .default('registrars'),
    /** Why it lies before the end of its period. */
    earlyReason: text().notNull().default(''),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    unique().on(table.itemId, table.periodId),
    check('posting_windows_in_order', sql`${table.opensAt} < ${table.closesAt}`),
    check('posting_windows_grace_after_close', sql`${table.graceUntil} >= ${table.closesAt}`),
  ],
);
