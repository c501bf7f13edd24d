import { fileStatuses, type FilePlan, type FileProposals, type RowOutcome } from '#core/files';
import { sql } from 'drizzle-orm';
import { boolean, index, integer, jsonb, numeric, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import type { KeptProblem } from '../../errors/kept-problem.js';
import type { TextForm } from '../../files/read-rows.js';
import { periods, schools } from './calendar.js';
import { bytes, createdAt, id, instant, onlyKnownWords } from './columns.js';
import { sections } from './courses.js';
import { people } from './people.js';
import { reportItems } from './report-items.js';

/** A file with a table of grades, from when it was put in. */
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
    fileName: text().notNull(),
    byteSize: integer().notNull(),
    sha256: text().notNull(),
    /** As people know it: "UTF-8", "XLSX". */
    encoding: text().notNull(),
    /** How its pieces are written. */
    form: jsonb().$type<TextForm>().notNull(),
    /** The sheets of a workbook, the one that was read, and whether somebody chose it. */
    sheets: jsonb().$type<readonly { readonly name: string; readonly isHidden: boolean }[]>().notNull().default([]),
    sheet: text(),
    isSheetChosen: boolean().notNull().default(false),
    status: text({ enum: fileStatuses }).notNull(),
    /** Position of the row that names the columns, 1 for the first; 0 where none does. */
    headerRow: integer().notNull(),
    header: jsonb().$type<readonly string[]>().notNull(),
    /** The first rows of the file, of which one may name the columns. */
    leadingRows: jsonb().$type<readonly (readonly string[])[]>().notNull().default([]),
    sampleRows: jsonb().$type<readonly (readonly string[])[]>().notNull(),
    proposals: jsonb().$type<FileProposals>().notNull(),
    idColumn: integer(),
    /** The one section that the file is for; or the column that names the section of each row. */
    sectionId: integer().references(() => sections.id),
    sectionColumn: integer(),
    /** Sections that somebody chose for names in the file that are not known, by folded name. */
    namedSections: jsonb().$type<Readonly<Record<string, number>>>().notNull().default({}),
    /** All rows of the file, the header too; null until they were counted. */
    rowCount: integer(),
    /** Steps of the work under way, and how many of them are done. */
    stepCount: integer().notNull().default(0),
    stepsDone: integer().notNull().default(0),
    /** Rises with every plan and guards against accepting another one than was looked at. */
    planNumber: integer().notNull().default(0),
    plan: jsonb().$type<FilePlan>(),
    /** Why the last work came to nothing: the code of a problem, and its data. */
    problem: jsonb().$type<KeptProblem>(),
    readBy: integer()
      .notNull()
      .references(() => people.id),
    readAt: instant().notNull(),
    /** Who asked for the work that is under way, and when. */
    askedBy: integer().references(() => people.id),
    askedAt: instant(),
    acceptedBy: integer().references(() => people.id),
    acceptedAt: instant(),
    undoneAt: instant(),
    /** Which server works on it, and until when others believe so. */
    worker: text(),
    workerUntil: instant(),
    createdAt: createdAt(),
  },
  (table) => [...onlyKnownWords(table), index().on(table.schoolId, table.periodId)],
);

/** A workbook of several sheets itself, as another of them may be chosen. */
export const fileWorkbooks = pgTable('file_workbooks', {
  importId: integer()
    .primaryKey()
    .references(() => fileImports.id, { onDelete: 'cascade' }),
  bytes: bytes().notNull(),
});

/** A column of percents in a file, and the report item that they are for. */
export const fileColumns = pgTable(
  'file_columns',
  {
    importId: integer()
      .notNull()
      .references(() => fileImports.id, { onDelete: 'cascade' }),
    /** Counted from the left, 0 for the first. */
    position: integer().notNull(),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id),
  },
  (table) => [primaryKey({ columns: [table.importId, table.itemId] })],
);

/** The file itself, in pieces, so that it can be planned again with other columns, and looked up later. */
export const filePieces = pgTable(
  'file_pieces',
  {
    importId: integer()
      .notNull()
      .references(() => fileImports.id, { onDelete: 'cascade' }),
    piece: integer().notNull(),
    bytes: bytes().notNull(),
  },
  (table) => [primaryKey({ columns: [table.importId, table.piece] })],
);

/**
 * What accepting the file does, or did, with each value, kept so that it can be looked at and undone. Its lines refer to
 * other tables by number alone: checking four foreign keys took six times as long as writing two million lines.
 */
export const fileRowOutcomes = pgTable(
  'file_row_outcomes',
  {
    importId: integer().notNull(),
    row: integer().notNull(),
    itemId: integer().notNull(),
    outcome: text().$type<RowOutcome>().notNull(),
    enrollmentId: integer(),
    /** What the row calls the student and the section, and its value, as they stand in the file. */
    givenId: text().notNull(),
    givenSection: text(),
    value: text().notNull(),
    before: numeric({ precision: 13, scale: 10 }),
    after: numeric({ precision: 13, scale: 10 }),
    /** The other rows about the same student. */
    sameAs: integer().array(),
  },
  (table) => [
    primaryKey({ columns: [table.importId, table.row, table.itemId] }),
    /** Of the outcomes that are looked for and seldom many. */
    index('file_row_outcomes_left_out')
      .on(table.importId, table.outcome, table.row)
      .where(sql`outcome NOT IN ('new', 'changed', 'same')`),
  ],
);
