import { sql } from 'drizzle-orm';
import { boolean, integer, numeric, pgTable, text, unique, type AnyPgColumn, check } from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import { createdAt, id, onlyKnownWords } from './columns.js';
import { courses, sections } from './courses.js';
import { people } from './people.js';

export const scales = pgTable(
  'scales',
  {
    id: id(),
    /** Null for a scale of the whole district. */
    schoolId: integer().references(() => schools.id),
    name: text().notNull(),
    kind: text({ enum: ['percent', 'level', 'choice'] })
      .notNull()
      .default('percent'),
    /** The scale it follows, and by how much it lies beside it; all set or none. */
    tiedToId: integer().references((): AnyPgColumn => scales.id),
    cutOffShift: numeric({ precision: 5, scale: 2 }),
    pointsShift: numeric({ precision: 4, scale: 2 }),
    /** Of a level scale the level at its top, such as 4; null for the others. */
    highestLevel: numeric({ precision: 5, scale: 2 }),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    check(
      'scales_tie_is_whole',
      sql`num_nulls(${table.tiedToId}, ${table.cutOffShift}, ${table.pointsShift}) IN (0, 3)`,
    ),
    check('scales_level_has_top', sql`(${table.kind} = 'level') = (${table.highestLevel} IS NOT NULL)`),
  ],
);

/** Cut-offs are never edited in place: each save is the next version, in force from a period on. */
export const scaleVersions = pgTable(
  'scale_versions',
  {
    id: id(),
    scaleId: integer()
      .notNull()
      .references(() => scales.id),
    number: integer().notNull(),
    fromPeriodId: integer()
      .notNull()
      .references(() => periods.id),
    savedBy: integer().references(() => people.id),
    createdAt: createdAt(),
  },
  (table) => [
    check('scale_versions_number_from_one', sql`${table.number} >= 1`),
    unique().on(table.scaleId, table.number),
  ],
);

export const bands = pgTable(
  'bands',
  {
    id: id(),
    versionId: integer()
      .notNull()
      .references(() => scaleVersions.id),
    label: text().notNull(),
    lowest: numeric({ precision: 6, scale: 2 }),
    points: numeric({ precision: 4, scale: 2 }),
    passes: boolean().notNull(),
    earnsCredit: boolean().notNull(),
    descriptor: text().notNull(),
    isOff: boolean().notNull().default(false),
    position: integer().notNull().default(1),
    createdAt: createdAt(),
  },
  (table) => [check('bands_lowest_not_negative', sql`${table.lowest} >= 0`), unique().on(table.versionId, table.label)],
);

/**
 * Which scale is used where, from a period on until another line of the same place begins. Only the columns of its kind are
 * set.
 */
export const scalePlacements = pgTable(
  'scale_placements',
  {
    id: id(),
    kind: text({ enum: ['system', 'school', 'department', 'level', 'course', 'section'] }).notNull(),
    schoolId: integer().references(() => schools.id),
    department: text(),
    level: text({ enum: ['regular', 'honours', 'college'] }),
    courseId: integer().references(() => courses.id),
    sectionId: integer().references(() => sections.id),
    /** Null where the place inherits again from the period on. */
    scaleId: integer().references(() => scales.id),
    isLocked: boolean().notNull().default(false),
    /** From which period on it holds; null for always. */
    fromPeriodId: integer().references(() => periods.id),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    check(
      'scale_placements_one_place',
      sql`${table.kind} = CASE
        WHEN ${table.sectionId} IS NOT NULL THEN 'section' WHEN ${table.courseId} IS NOT NULL THEN 'course'
        WHEN ${table.level} IS NOT NULL THEN 'level' WHEN ${table.department} IS NOT NULL THEN 'department'
        WHEN ${table.schoolId} IS NOT NULL THEN 'school' ELSE 'system' END`,
    ),
    unique('scale_placements_place')
      .on(
        table.kind,
        table.schoolId,
        table.department,
        table.level,
        table.courseId,
        table.sectionId,
        table.fromPeriodId,
      )
      .nullsNotDistinct(),
  ],
);

/** What may be posted in a label's place. */
export const specialCodes = pgTable(
  'special_codes',
  {
    code: text().primaryKey(),
    meaning: text().notNull(),
    isOff: boolean().notNull().default(false),
    asPart: text({ enum: ['leaves', 'blocks', 'counts', 'missing'] })
      .notNull()
      .default('missing'),
    countsAs: numeric({ precision: 6, scale: 2 }),
    isFailing: boolean().notNull().default(false),
    forbidsPercent: boolean().notNull(),
    needsLastDate: boolean().notNull(),
    needsFirstDay: boolean().notNull().default(false),
    lapsesInto: text(),
    lapsesAfterDays: integer(),
    triesCredit: boolean().notNull(),
    earnsCredit: boolean().notNull().default(false),
    countsInGpa: boolean().notNull().default(false),
    onTranscript: boolean().notNull(),
    position: integer().notNull(),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    check('special_codes_lapse_is_whole', sql`num_nulls(${table.lapsesInto}, ${table.lapsesAfterDays}) IN (0, 2)`),
    check('special_codes_counts_as_something', sql`${table.asPart} <> 'counts' OR ${table.countsAs} IS NOT NULL`),
  ],
);
