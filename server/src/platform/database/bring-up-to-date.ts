import { createHash } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import { sql } from 'drizzle-orm';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import type pg from 'pg';

const migrationsFolder = fileURLToPath(new URL('../../../drizzle', import.meta.url));

/** Other tables, another mark: what was made of some is not taken for what would be made of others. */
export function markOfTables(): string {
  const hashes = readMigrationFiles({ migrationsFolder }).map(({ hash }) => hash);
  return createHash('sha256').update(hashes.join()).digest('hex').slice(0, 12);
}

/** The tables are of a Wombat that this one does not follow on. */
export class OtherTablesError extends Error {
  override readonly name = 'OtherTablesError';
}

/** Any number that nobody else locks. */
const lockNumber = 7_260_417;

/**
 * Brings the tables up to date, one server at a time.
 * @param named how whoever starts Wombat knows the database, such as "the folder /var/wombat"
 * @throws OtherTablesError where they were made by a migration that this version does not have
 */
export async function bringUpToDate(pool: pg.Pool, named: string): Promise<void> {
  const client = await pool.connect();
  const queries = drizzle({ client });
  try {
    await queries.execute(sql`SELECT pg_advisory_lock(${lockNumber})`);
    const ours = new Set(readMigrationFiles({ migrationsFolder }).map(({ hash }) => hash));
    const { rows: known } = await queries.execute<{ there: boolean }>(
      sql`SELECT to_regclass('drizzle.__drizzle_migrations') IS NOT NULL AS there`,
    );
    const { rows: made } = known[0]!.there
      ? await queries.execute<{ hash: string }>(sql`SELECT hash FROM drizzle.__drizzle_migrations`)
      : { rows: [] };
    if (made.some(({ hash }) => !ours.has(hash)))
      throw new OtherTablesError(
        `The data in ${named} is of another version of Wombat, and this one cannot read it. Use the version that made ` +
          'it, or choose another place with WOMBAT_DATA or DATABASE_URL; the demo makes its data anew with --reset.',
      );
    await migrate(queries, { migrationsFolder });
  } finally {
    await queries.execute(sql`SELECT pg_advisory_unlock(${lockNumber})`).catch(() => undefined);
    client.release();
  }
}
