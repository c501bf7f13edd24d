import { sql } from 'drizzle-orm';
import { boolean, date, index, integer, jsonb, numeric, pgTable, text, unique, check } from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import { createdAt, id, onlyKnownWords } from './columns.js';
import { people } from './people.js';

export const courses = pgTable(
  'courses',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    code: text().notNull(),
    title: text().notNull(),
    department: text().notNull(),
    kind: text().notNull().default(''),
    level: text({ enum: ['regular', 'honours', 'college'] }).notNull(),
    length: text({ enum: ['year', 'semester', 'term'] }).notNull(),
    /** Null, here and below, where the course leaves it to its department or school. */
    credits: numeric({ precision: 6, scale: 4 }),
    mostCredits: numeric({ precision: 6, scale: 4 }),
    onTranscript: boolean(),
    countsInGpa: boolean(),
    allowsExempt: boolean(),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    check('courses_credits_not_negative', sql`${table.credits} >= 0 AND ${table.mostCredits} >= 0`),
    unique().on(table.schoolId, table.code),
  ],
);

/** What holds where a course says nothing: for a department or, without one, for the whole school. */
export const courseDefaults = pgTable(
  'course_defaults',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    department: text(),
    credits: numeric({ precision: 6, scale: 4 }),
    mostCredits: numeric({ precision: 6, scale: 4 }),
    onTranscript: boolean(),
    countsInGpa: boolean(),
    allowsExempt: boolean(),
    createdAt: createdAt(),
  },
  (table) => [
    check('course_defaults_credits_not_negative', sql`${table.credits} >= 0 AND ${table.mostCredits} >= 0`),
    unique().on(table.schoolId, table.department).nullsNotDistinct(),
  ],
);

export const sections = pgTable(
  'sections',
  {
    id: id(),
    courseId: integer()
      .notNull()
      .references(() => courses.id),
    number: integer().notNull(),
    teacherId: integer()
      .notNull()
      .references(() => people.id),
    /** The section runs from the start to the end of this period, through all periods inside it. */
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    /** Where the section begins later or ends earlier than its period. */
    startsOn: date(),
    endsOn: date(),
    /** How many students there is room for; null where nobody said. */
    seats: integer(),
    createdAt: createdAt(),
  },
  (table) => [
    check('sections_days_in_order', sql`${table.startsOn} <= ${table.endsOn}`),
    check('sections_seats_some', sql`${table.seats} > 0`),
    unique().on(table.courseId, table.number, table.periodId),
    index().on(table.teacherId),
  ],
);

/** Who teach a section beside its teacher. */
export const sectionCoTeachers = pgTable(
  'section_co_teachers',
  {
    id: id(),
    sectionId: integer()
      .notNull()
      .references(() => sections.id, { onDelete: 'cascade' }),
    personId: integer()
      .notNull()
      .references(() => people.id),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.sectionId), index().on(table.personId)],
);

export const enrollments = pgTable(
  'enrollments',
  {
    id: id(),
    sectionId: integer()
      .notNull()
      .references(() => sections.id),
    studentId: integer()
      .notNull()
      .references(() => people.id),
    enteredOn: date().notNull(),
    withdrawnOn: date(),
    createdAt: createdAt(),
  },
  (table) => [unique().on(table.sectionId, table.studentId), index().on(table.studentId)],
);

/** What went along with students who left a seat for one in another section, so that it can be undone. */
export const movedWork = pgTable(
  'moved_work',
  {
    id: id(),
    /** The seat in the section that the student came to. */
    toId: integer()
      .notNull()
      .unique()
      .references(() => enrollments.id),
    fromId: integer()
      .notNull()
      .references(() => enrollments.id),
    /** Posted grades that went along, each with its version then. */
    grades: jsonb().$type<readonly (readonly [id: number, version: number])[]>().notNull(),
    /** Assignments whose scores count in the new section, each with its like there. */
    assignments: jsonb().$type<readonly (readonly [from: number, to: number])[]>().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.fromId)],
);
