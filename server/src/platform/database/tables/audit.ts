import { sql } from 'drizzle-orm';
import { check, date, index, integer, jsonb, pgTable, text, unique } from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import { createdAt, id, instant } from './columns.js';
import { enrollments } from './courses.js';
import { people } from './people.js';
import { reportItems } from './report-items.js';

export const auditRuns = pgTable(
  'audit_runs',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    startedBy: integer()
      .notNull()
      .references(() => people.id),
    startedAt: instant().notNull(),
    gradesChecked: integer().notNull(),
    milliseconds: integer().notNull(),
    rules: jsonb().$type<{ id: string; version: number }[]>().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.periodId)],
);

/** Findings that somebody lets stand for a reason, with what they said then. */
export const waivers = pgTable(
  'waivers',
  {
    id: id(),
    ruleId: text().notNull(),
    enrollmentId: integer()
      .notNull()
      .references(() => enrollments.id),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    message: text().notNull(),
    data: jsonb().$type<Record<string, string>>().notNull(),
    reason: text().notNull(),
    until: date(),
    waivedBy: integer()
      .notNull()
      .references(() => people.id),
    waivedAt: instant().notNull(),
    createdAt: createdAt(),
  },
  (table) => [
    unique('waivers_once').on(table.ruleId, table.enrollmentId, table.itemId, table.periodId),
    index().on(table.periodId),
    check('waivers_have_reason', sql`btrim(${table.reason}) <> ''`),
  ],
);

export const auditFindings = pgTable(
  'audit_findings',
  {
    id: id(),
    runId: integer()
      .notNull()
      .references(() => auditRuns.id),
    ruleId: text().notNull(),
    enrollmentId: integer()
      .notNull()
      .references(() => enrollments.id),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id),
    message: text().notNull(),
    data: jsonb().$type<Record<string, string>>().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.runId), index().on(table.enrollmentId)],
);
