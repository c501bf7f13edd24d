import { getTableColumns, getTableName, sql } from 'drizzle-orm';
import { check, customType, integer, timestamp, type CheckBuilder, type ExtraConfigColumn } from 'drizzle-orm/pg-core';

/** A row's own number. Bulk loads may bring theirs. */
export const id = () => integer().primaryKey().generatedByDefaultAsIdentity();

export const instant = () => timestamp({ withTimezone: true, precision: 3, mode: 'date' });

export const createdAt = () => instant().notNull().defaultNow();

export const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

/** Holds every column of a table that is one of a few words to them, in the database too. */
export function onlyKnownWords(columns: Readonly<Record<string, ExtraConfigColumn>>): CheckBuilder[] {
  const [{ table }] = Object.values(columns) as [ExtraConfigColumn];
  return Object.entries(getTableColumns(table)).flatMap(([key, column]) => {
    const words = column.enumValues?.map((word) => `'${word}'`).join(', ');
    return words ? check(`${getTableName(table)}_${snake(key)}_known`, sql`${column} IN (${sql.raw(words)})`) : [];
  });
}

const snake = (key: string) => key.replaceAll(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
