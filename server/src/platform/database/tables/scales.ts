import { boolean, integer, numeric, pgTable, text, unique } from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import { createdAt, id } from './columns.js';
import { people } from './people.js';

export const scales = pgTable('scales', {
  id: id(),
  schoolId: integer()
    .notNull()
    .references(() => schools.id),
  name: text().notNull(),
  createdAt: createdAt(),
});

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
  (table) => [unique().on(table.scaleId, table.number)],
);

export const bands = pgTable(
  'bands',
  {
    id: id(),
    versionId: integer()
      .notNull()
      .references(() => scaleVersions.id),
    label: text().notNull(),
    lowest: numeric({ precision: 6, scale: 2 }).notNull(),
    points: numeric({ precision: 4, scale: 2 }),
    passes: boolean().notNull(),
    earnsCredit: boolean().notNull(),
    descriptor: text().notNull(),
    createdAt: createdAt(),
  },
  (table) => [unique().on(table.versionId, table.label), unique().on(table.versionId, table.lowest)],
);

export const specialCodes = pgTable('special_codes', {
  code: text().primaryKey(),
  meaning: text().notNull(),
  forbidsPercent: boolean().notNull(),
  needsLastDate: boolean().notNull(),
  triesCredit: boolean().notNull(),
  onTranscript: boolean().notNull(),
  position: integer().notNull(),
  createdAt: createdAt(),
});
