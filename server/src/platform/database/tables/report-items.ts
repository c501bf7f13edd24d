import { boolean, integer, pgTable, text, unique } from 'drizzle-orm/pg-core';
import { periods, schools } from './calendar.js';
import { createdAt, id, instant } from './columns.js';
import { scales } from './scales.js';

export const reportItems = pgTable('report_items', {
  id: id(),
  schoolId: integer()
    .notNull()
    .references(() => schools.id),
  name: text().notNull(),
  heading: text().notNull(),
  scaleId: integer()
    .notNull()
    .references(() => scales.id),
  digits: integer().notNull(),
  rounding: text({ enum: ['halfUp', 'halfEven', 'down'] }).notNull(),
  failingNeedsLastDate: boolean().notNull(),
  onTranscript: boolean().notNull(),
  createdAt: createdAt(),
});

export const reportItemRules = pgTable('report_item_rules', {
  id: id(),
  schoolId: integer()
    .notNull()
    .references(() => schools.id),
  itemId: integer()
    .notNull()
    .references(() => reportItems.id),
  periodKind: text({ enum: ['year', 'semester', 'quarter', 'trimester', 'term'] }).notNull(),
  department: text(),
  level: text({ enum: ['regular', 'honours', 'college'] }),
  length: text({ enum: ['year', 'semester', 'term'] }),
  position: integer().notNull(),
  version: integer().notNull().default(1),
  createdAt: createdAt(),
});

export const postingWindows = pgTable(
  'posting_windows',
  {
    id: id(),
    itemId: integer()
      .notNull()
      .references(() => reportItems.id),
    periodId: integer()
      .notNull()
      .references(() => periods.id),
    opensAt: instant().notNull(),
    closesAt: instant().notNull(),
    createdAt: createdAt(),
  },
  (table) => [unique().on(table.itemId, table.periodId)],
);
