import { date, index, integer, pgTable, text, type AnyPgColumn } from 'drizzle-orm/pg-core';
import { createdAt, id } from './columns.js';

export const schools = pgTable('schools', {
  id: id(),
  code: text().notNull().unique(),
  name: text().notNull(),
  /** As the frame shows it, without the district's name. */
  shortName: text().notNull(),
  createdAt: createdAt(),
});

export const periods = pgTable(
  'periods',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    parentId: integer().references((): AnyPgColumn => periods.id),
    kind: text({ enum: ['year', 'semester', 'quarter', 'trimester', 'term'] }).notNull(),
    name: text().notNull(),
    startsOn: date().notNull(),
    endsOn: date().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.schoolId)],
);
