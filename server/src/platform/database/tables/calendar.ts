import { sql } from 'drizzle-orm';
import { boolean, check, date, index, integer, jsonb, pgTable, text, type AnyPgColumn } from 'drizzle-orm/pg-core';
import { createdAt, id, onlyKnownWords } from './columns.js';

export const schools = pgTable('schools', {
  id: id(),
  code: text().notNull().unique(),
  name: text().notNull(),
  /** As the frame shows it, without the district's name. */
  shortName: text().notNull(),
  /** Days of the week with classes, 1 for Monday to 7 for Sunday. */
  weekdays: jsonb().$type<number[]>().notNull().default([1, 2, 3, 4, 5]),
  /** Whether its sections take attendance by day. */
  takesAttendance: boolean().notNull().default(false),
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
  (table) => [
    ...onlyKnownWords(table),
    index().on(table.schoolId),
    check('periods_days_in_order', sql`${table.startsOn} <= ${table.endsOn}`),
  ],
);

/** Days without classes, both ends included. */
export const breaks = pgTable(
  'breaks',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    name: text().notNull(),
    startsOn: date().notNull(),
    endsOn: date().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.schoolId), check('breaks_days_in_order', sql`${table.startsOn} <= ${table.endsOn}`)],
);
