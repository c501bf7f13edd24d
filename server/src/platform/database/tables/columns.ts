import { customType, integer, timestamp } from 'drizzle-orm/pg-core';

/** A row's own number. Bulk loads may bring theirs. */
export const id = () => integer().primaryKey().generatedByDefaultAsIdentity();

export const instant = () => timestamp({ withTimezone: true, precision: 3, mode: 'date' });

export const createdAt = () => instant().notNull().defaultNow();

export const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
