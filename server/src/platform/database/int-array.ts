import { sql, type SQL } from 'drizzle-orm';

/** One array parameter in place of one parameter for each number, of which PostgreSQL takes 65,535 at most. */
export function intArray(values: readonly number[]): SQL {
  return sql`${`{${values.join(',')}}`}::int[]`;
}
