import { integer, pgTable } from 'drizzle-orm/pg-core';
import { id } from './columns.js';

/**
 * How often the set-up was written: triggers add a row for each statement that changes a table it rests on, whoever makes
 * it. Rows are only ever added, or some of them made one with their sum, so that the sum names one state of what is committed.
 */
export const setUpChanges = pgTable('set_up_changes', {
  id: id(),
  times: integer().notNull(),
});
