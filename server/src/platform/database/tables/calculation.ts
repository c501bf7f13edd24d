import { date, index, integer, numeric, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import { createdAt, id } from './columns.js';
import { enrollments, sections } from './courses.js';

export const categories = pgTable('categories', {
  id: id(),
  schoolId: integer()
    .notNull()
    .references(() => schools.id),
  name: text().notNull(),
  weight: numeric({ precision: 6, scale: 2 }).notNull(),
  createdAt: createdAt(),
});

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
    createdAt: createdAt(),
  },
  (table) => [index().on(table.sectionId, table.periodId)],
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
    /** Null when nothing counts: the flag says why. */
    points: numeric({ precision: 6, scale: 2 }),
    flag: text({ enum: ['missing', 'late', 'exempt'] }),
    createdAt: createdAt(),
  },
  (table) => [primaryKey({ columns: [table.assignmentId, table.enrollmentId] })],
);
