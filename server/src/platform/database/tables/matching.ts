import { boolean, date, index, integer, jsonb, numeric, pgTable, primaryKey, text, unique } from 'drizzle-orm/pg-core';
import { categories } from './calculation.js';
import { schools } from './calendar.js';
import { createdAt, id, instant, onlyKnownWords } from './columns.js';
import { sections } from './courses.js';
import { people } from './people.js';
import { reportItems } from './report-items.js';

/** What is carried over every night, and for whom. */
export interface NightlyPlan {
  /** Time of day in the district's zone, such as "02:30". */
  readonly at: string;
  readonly mode: 'keep' | 'replace';
  readonly carriesWork: boolean;
  readonly carriesTotals: boolean;
  readonly setBy: number;
  /** An instant: it waits for the first time of day after it. */
  readonly setAt: string;
}

const decision = () =>
  text({ enum: ['open', 'joined', 'ignored'] })
    .notNull()
    .default('open');

/** Whether the platform no longer tells it; what was decided is kept in case it comes back. */
const isGone = () => boolean().notNull().default(false);

export const learningPlatforms = pgTable(
  'learning_platforms',
  {
    id: id(),
    schoolId: integer()
      .notNull()
      .references(() => schools.id),
    name: text().notNull(),
    address: text().notNull(),
    clientId: text().notNull(),
    clientSecret: text().notNull(),
    state: text({ enum: ['new', 'reading', 'read', 'failed'] })
      .notNull()
      .default('new'),
    /** Classes read so far, and of how many, while it is being read. */
    done: integer().notNull().default(0),
    total: integer().notNull().default(0),
    /** Why the last reading failed, in words. */
    problem: text(),
    readAt: instant(),
    /** Where a run puts what has no group of its own or one that nobody joined; null to refuse it. */
    defaultCategoryId: integer().references(() => categories.id),
    /** What runs each night and at which time of the district's day, if anything does. */
    nightly: jsonb().$type<NightlyPlan>(),
    createdAt: createdAt(),
  },
  (table) => [...onlyKnownWords(table), unique().on(table.schoolId, table.name)],
);

const platformId = () =>
  integer()
    .notNull()
    .references(() => learningPlatforms.id, { onDelete: 'cascade' });

export const platformPeople = pgTable(
  'platform_people',
  {
    id: id(),
    platformId: platformId(),
    sourcedId: text().notNull(),
    identifier: text(),
    email: text(),
    givenName: text().notNull(),
    familyName: text().notNull(),
    birthDate: date(),
    decision: decision(),
    studentId: integer().references(() => people.id),
    isGone: isGone(),
    createdAt: createdAt(),
  },
  (table) => [...onlyKnownWords(table), unique().on(table.platformId, table.sourcedId)],
);

export const platformClasses = pgTable(
  'platform_classes',
  {
    id: id(),
    platformId: platformId(),
    sourcedId: text().notNull(),
    title: text().notNull(),
    code: text(),
    term: text().notNull(),
    decision: decision(),
    sectionId: integer().references(() => sections.id),
    isGone: isGone(),
    createdAt: createdAt(),
  },
  (table) => [...onlyKnownWords(table), unique().on(table.platformId, table.sourcedId), index().on(table.sectionId)],
);

export const platformMembers = pgTable(
  'platform_members',
  {
    classId: integer()
      .notNull()
      .references(() => platformClasses.id, { onDelete: 'cascade' }),
    personId: integer()
      .notNull()
      .references(() => platformPeople.id, { onDelete: 'cascade' }),
  },
  (table) => [primaryKey({ columns: [table.classId, table.personId] })],
);

/** The names that a platform has for what we call a category, a report item or a label. */
export const platformNames = pgTable(
  'platform_names',
  {
    id: id(),
    platformId: platformId(),
    /** Null for a letter, which the whole platform uses. */
    classId: integer().references(() => platformClasses.id, { onDelete: 'cascade' }),
    kind: text({ enum: ['group', 'total', 'letter'] }).notNull(),
    sourcedId: text().notNull(),
    name: text().notNull(),
    weight: numeric({ precision: 6, scale: 2 }),
    decision: decision(),
    categoryId: integer().references(() => categories.id),
    itemId: integer().references(() => reportItems.id),
    label: text(),
    isGone: isGone(),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    unique().on(table.platformId, table.kind, table.sourcedId),
    index().on(table.classId),
  ],
);
