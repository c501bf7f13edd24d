import type { RuleInForce, RuleSettings } from '#core/audit';
import { sql } from 'drizzle-orm';
import { check, date, index, integer, jsonb, pgTable, text, unique } from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import type { KeptProblem } from '../../errors/kept-problem.js';
import { createdAt, id, instant, onlyKnownWords } from './columns.js';
import { courses, enrollments, sections } from './courses.js';
import { mails } from './mail.js';
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
    /** With what each did in the run, and why one could not. */
    rules: jsonb().$type<(RuleInForce & { readonly problem?: string })[]>().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.periodId)],
);

/** The audit of a period that is under way, or that came to nothing; one that is done is a run, and no longer here. */
export const auditTasks = pgTable(
  'audit_tasks',
  {
    id: id(),
    periodId: integer()
      .notNull()
      .unique()
      .references(() => periods.id),
    state: text({ enum: ['running', 'stopped', 'failed'] }).notNull(),
    startedBy: integer()
      .notNull()
      .references(() => people.id),
    startedAt: instant().notNull(),
    /** How many rules have had their turn, of how many; none while the grades are still read. */
    sectionsDone: integer().notNull(),
    /** 0 until the reading begins. */
    sectionCount: integer().notNull(),
    /** Why it failed. */
    problem: jsonb().$type<KeptProblem>(),
    /** Which server works on it, and until when others believe so. */
    worker: text(),
    workerUntil: instant(),
    createdAt: createdAt(),
  },
  (table) => onlyKnownWords(table),
);

/** When the periods of a school are audited by themselves, each night while grades are posted. */
export const nightlyAudits = pgTable('nightly_audits', {
  id: id(),
  schoolId: integer()
    .notNull()
    .unique()
    .references(() => schools.id),
  /** In the district's zone, such as "02:30". */
  at: text().notNull(),
  /** In whose name, and since when. */
  setBy: integer()
    .notNull()
    .references(() => people.id),
  setAt: instant().notNull(),
  createdAt: createdAt(),
});

/** What rules do in a school, or in all of the district where no school is named. */
export const auditSettings = pgTable(
  'audit_settings',
  {
    id: id(),
    schoolId: integer().references(() => schools.id),
    rules: jsonb().$type<RuleSettings>().notNull(),
    createdAt: createdAt(),
  },
  (table) => [unique('audit_settings_once').on(table.schoolId).nullsNotDistinct()],
);

/** What a finding is about; null for what it is not about. A section or course that goes takes what was found in it along. */
const findingPlace = () => ({
  enrollmentId: integer().references(() => enrollments.id),
  sectionId: integer().references(() => sections.id, { onDelete: 'cascade' }),
  courseId: integer().references(() => courses.id, { onDelete: 'cascade' }),
  itemId: integer().references(() => reportItems.id),
});

/** A finding of a period, whichever run saw it. */
const periodFinding = () => ({
  ruleId: text().notNull(),
  ...findingPlace(),
  periodId: integer()
    .notNull()
    .references(() => periods.id),
});

/** Findings that somebody lets stand for a reason, with what they said then. */
export const waivers = pgTable(
  'waivers',
  {
    id: id(),
    ...periodFinding(),
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
    unique('waivers_once')
      .on(table.ruleId, table.enrollmentId, table.sectionId, table.courseId, table.itemId, table.periodId)
      .nullsNotDistinct(),
    index().on(table.periodId),
    check('waivers_have_reason', sql`btrim(${table.reason}) <> ''`),
  ],
);

/** What is being done about a finding: whose it is, and what was said of it last. */
export const findingNotes = pgTable(
  'finding_notes',
  {
    id: id(),
    ...periodFinding(),
    comment: text().notNull(),
    assignedTo: integer().references(() => people.id),
    notedBy: integer()
      .notNull()
      .references(() => people.id),
    notedAt: instant().notNull(),
    createdAt: createdAt(),
  },
  (table) => [
    unique('finding_notes_once')
      .on(table.ruleId, table.enrollmentId, table.sectionId, table.courseId, table.itemId, table.periodId)
      .nullsNotDistinct(),
    index().on(table.periodId),
    check('finding_notes_say_something', sql`${table.comment} <> '' OR ${table.assignedTo} IS NOT NULL`),
  ],
);

/** What a certificate tells, as it was when it was issued. */
export interface CertificateFacts {
  /** Title and code of each course that it is about; none for all of the school. */
  readonly courses: readonly string[];
  readonly runAt: string;
  readonly grades: number;
  readonly rules: readonly (RuleInForce & {
    readonly summary: string;
    readonly found: number;
    readonly waived: number;
    /** Departments and courses that it left alone, as they were called. */
    readonly leftAlone: readonly string[];
  })[];
  /** Teachers who were told of findings of the period, of how many and when last. */
  readonly told: readonly { readonly to: string; readonly findings: number; readonly at: string }[];
  readonly waivers: readonly {
    readonly key: string;
    readonly summary: string;
    readonly subject: string;
    readonly sentence: string;
    readonly reason: string;
    readonly until: string | null;
    readonly by: string;
    readonly at: string;
  }[];
}

/** Certificates that the audit of a period was closed with; the last one of each choice of courses counts. */
export const auditCertificates = pgTable(
  'audit_certificates',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    /** The courses that it is about, ascending; none for all of the school. */
    courseIds: integer().array().notNull(),
    runId: integer()
      .notNull()
      .references(() => auditRuns.id),
    issuedBy: integer()
      .notNull()
      .references(() => people.id),
    issuedAt: instant().notNull(),
    note: text().notNull(),
    gradesHash: text().notNull(),
    facts: jsonb().$type<CertificateFacts>().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.periodId)],
);

/** That a teacher was told of a finding, by which message. */
export const findingNotices = pgTable(
  'finding_notices',
  {
    id: id(),
    ...periodFinding(),
    teacherId: integer()
      .notNull()
      .references(() => people.id),
    mailId: integer()
      .notNull()
      .references(() => mails.id),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.periodId)],
);

export const auditFindings = pgTable(
  'audit_findings',
  {
    id: id(),
    runId: integer()
      .notNull()
      .references(() => auditRuns.id),
    ruleId: text().notNull(),
    ...findingPlace(),
    message: text().notNull(),
    data: jsonb().$type<Record<string, string>>().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.runId), index().on(table.enrollmentId)],
);
