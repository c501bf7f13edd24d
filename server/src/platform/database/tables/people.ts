import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  check,
  date,
  index,
  integer,
  json,
  jsonb,
  pgTable,
  text,
  timestamp,
  unique,
  varchar,
} from 'drizzle-orm/pg-core';
import { roles } from '#core/access';
import { pronouns, type OwnView } from '#core/people';
import { schools } from './calendar.js';
import { createdAt, id, instant, onlyKnownWords } from './columns.js';

export const people = pgTable(
  'people',
  {
    id: id(),
    /** The id that the roster's own system knows the person by. */
    sourcedId: text().notNull().unique(),
    /** Made by hand: the id is ours, and no roster's. */
    isMadeHere: boolean().notNull().default(false),
    /** The number that people at school know a student by, as on a card; null where the id is all there is. */
    number: text(),
    kind: text({ enum: ['student', 'staff'] }).notNull(),
    schoolId: integer().references(() => schools.id),
    givenName: text().notNull(),
    familyName: text().notNull(),
    /** The given name that the person goes by, where it is another than the legal one. */
    preferredName: text(),
    /** How the person is spoken of, as in comments; null where nobody said. */
    pronoun: text({ enum: pronouns }),
    email: text().notNull(),
    birthDate: date(),
    /** Year of school, such as "10"; for students. */
    yearGroup: text(),
    /** First and last day at the school, where they are known. */
    enteredOn: date(),
    leftOn: date(),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    check('people_days_in_order', sql`${table.enteredOn} <= ${table.leftOn}`),
    index().on(table.schoolId, table.kind),
  ],
);

export const accounts = pgTable(
  'accounts',
  {
    id: id(),
    personId: integer()
      .notNull()
      .unique()
      .references(() => people.id),
    username: text().notNull().unique(),
    /** Null until a first password is chosen. */
    passwordHash: text(),
    /** Whoever is not active cannot sign in, and is signed out. */
    isActive: boolean().notNull().default(true),
    createdAt: createdAt(),
  },
  (table) => [...onlyKnownWords(table)],
);

/** The roles that an account holds, and where; without a school for the whole district. */
export const accountRoles = pgTable(
  'account_roles',
  {
    id: id(),
    accountId: integer()
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    role: text({ enum: roles }).notNull(),
    schoolId: integer().references(() => schools.id),
    createdAt: createdAt(),
  },
  (table) => [
    ...onlyKnownWords(table),
    unique().on(table.accountId, table.role, table.schoolId).nullsNotDistinct(),
    index().on(table.schoolId),
  ],
);

/** Two records that look alike and were said to be of two people; the lower number first. */
export const differentPeople = pgTable(
  'different_people',
  {
    id: id(),
    oneId: integer()
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    otherId: integer()
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    createdAt: createdAt(),
  },
  (table) => [
    check('different_people_in_order', sql`${table.oneId} < ${table.otherId}`),
    unique().on(table.oneId, table.otherId),
    index().on(table.otherId),
  ],
);

/** How whoever has an account likes the screen; who never said so has the usual view. */
export const ownViews = pgTable('own_views', {
  id: id(),
  accountId: integer()
    .notNull()
    .unique()
    .references(() => accounts.id, { onDelete: 'cascade' }),
  view: jsonb().$type<Partial<OwnView>>().notNull(),
  createdAt: createdAt(),
});

/** Records that were found to be of somebody who has another one, with all that was moved, so that it can be undone. */
export const mergedPeople = pgTable(
  'merged_people',
  {
    id: id(),
    /** The number that the record had. */
    goneId: integer().notNull().unique(),
    keptId: integer()
      .notNull()
      .references(() => people.id),
    /** By which a roster knew the record, and may know it still. */
    goneSourcedId: text().notNull(),
    /** Numbers of the rows that were moved to the kept one, by table and column. */
    moved: jsonb().$type<Readonly<Record<string, readonly number[]>>>().notNull(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.keptId)],
);

/** Links by which somebody chooses a password, each good for one time and until it expires; only their hashes are kept. */
export const accountLinks = pgTable(
  'account_links',
  {
    id: id(),
    accountId: integer()
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    tokenHash: text().notNull().unique(),
    writtenAt: instant().notNull(),
    expiresAt: instant().notNull(),
    usedAt: instant(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.accountId)],
);

/** Keys of people's own devices, by which they sign in without a password; only what is public of each is kept. */
export const passkeys = pgTable(
  'passkeys',
  {
    id: id(),
    accountId: integer()
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    /** By which the device knows it, in base64url. */
    credentialId: text().notNull().unique(),
    /** In base64url, as the device gave it (COSE). */
    publicKey: text().notNull(),
    /** How often the device says that it was used; a smaller one than before is of a copy. */
    counter: bigint({ mode: 'number' }).notNull(),
    /** How the device is reached: internal, usb, hybrid and the like. */
    transports: jsonb().$type<readonly string[]>().notNull(),
    /** What its owner calls it. */
    name: text().notNull(),
    lastUsedAt: instant(),
    createdAt: createdAt(),
  },
  (table) => [index().on(table.accountId)],
);

/** Failed tries to sign in, in the shape that rate-limiter-flexible reads and writes; `expire` in milliseconds. */
export const signInTries = pgTable('sign_in_tries', {
  key: varchar({ length: 255 }).primaryKey(),
  points: integer().notNull().default(0),
  expire: bigint({ mode: 'number' }),
});

/** Sessions in the shape that connect-pg-simple reads and writes. */
export const sessions = pgTable(
  'sessions',
  { sid: text().primaryKey(), sess: json().notNull(), expire: timestamp({ precision: 6 }).notNull() },
  (table) => [index().on(table.expire)],
);
