import { index, integer, jsonb, numeric, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import { createdAt, id, instant } from './columns.js';
import { enrollments, sections } from './courses.js';
import { people } from './people.js';
import { reportItems } from './report-items.js';

export const fileImports = pgTable(
  'file_imports',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id),
    fileName: text().notNull(),
    byteSize: integer().notNull(),
    sha256: text().notNull(),
    status: text({ enum: ['read', 'accepted', 'undone'] }).notNull(),
    headerRow: integer().notNull(),
    idColumn: integer(),
    gradeColumn: integer(),
    sectionId: integer().references(() => sections.id),
    readBy: integer()
      .notNull()
      .references(() => people.id),
    readAt: instant().notNull(),
    acceptedAt: instant(),
    undoneAt: instant(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.schoolId, table.periodId)],
);

/** The file's table as it was read, so that a preview can be made again with other columns, and looked up later. */
export const fileRows = pgTable(
  'file_rows',
  {
    importId: integer()
      .notNull()
      .references(() => fileImports.id, { onDelete: 'cascade' }),
    row: integer().notNull(),
    cells: jsonb().$type<string[]>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.importId, table.row] })],
);

/** What accepting the file did with each row, kept so that it can be undone. */
export const fileRowOutcomes = pgTable(
  'file_row_outcomes',
  {
    importId: integer()
      .notNull()
      .references(() => fileImports.id),
    row: integer().notNull(),
    outcome: text().notNull(),
    enrollmentId: integer().references(() => enrollments.id),
    before: numeric({ precision: 13, scale: 10 }),
    beforeImportId: integer().references(() => fileImports.id),
    beforeImportRow: integer(),
    after: numeric({ precision: 13, scale: 10 }),
  },
  (table) => [primaryKey({ columns: [table.importId, table.row] })],
);
