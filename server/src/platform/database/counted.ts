import { sql, type SQL } from 'drizzle-orm';

/** A count in words in SQL, "1 place" or "7 places", and NULL for none, which `concat_ws` leaves out. */
export function counted(count: SQL, one: string, many = `${one}s`): SQL {
  return sql`CASE ${count} WHEN 0 THEN NULL WHEN 1 THEN '1 ' || ${one} ELSE ${count} || ' ' || ${many} END`;
}
