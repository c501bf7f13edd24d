import { date, index, integer, pgTable, primaryKey, text, unique } from 'drizzle-orm/pg-core';
import { createdAt, id, instant, onlyKnownWords } from './columns.js';
import { enrollments, sections } from './courses.js';
import { people } from './people.js';

/** Registers that were taken: on such a day whoever sat in the section and has no absence was present. */
export const registers = pgTable(
  'registers',
  {
    id: id(),
    sectionId: integer()
      .notNull()
      .references(() => sections.id),
    day: date().notNull(),
    takenBy: integer()
      .notNull()
      .references(() => people.id),
    takenAt: instant().notNull(),
    createdAt: createdAt(),
  },
  (table) => [unique('registers_once').on(table.sectionId, table.day)],
);

/** The exceptions of registers. */
export const absences = pgTable(
  'absences',
  {
    enrollmentId: integer()
      .notNull()
      .references(() => enrollments.id),
    day: date().notNull(),
    kind: text({ enum: ['absent', 'excused', 'late'] }).notNull(),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    primaryKey({ columns: [table.enrollmentId, table.day] }),
    index('absences_day').on(table.day),
  ],
);
