import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { markOfTables, type DatabaseSource } from '#server/platform';

export interface Configuration {
  readonly port: number;
  readonly database: DatabaseSource;
}

const root = fileURLToPath(new URL('../../..', import.meta.url));

/** The empty cluster that new data folders are made from. */
export const seedFile = join(root, `node_modules/.cache/wombat/empty-database-${markOfTables()}.tar.gz`);

/**
 * What the environment says: PORT (4600), DATABASE_URL for a PostgreSQL server, otherwise WOMBAT_DATA for the folder of
 * the embedded database (.wombat beside the program).
 * @throws RangeError when PORT is no port
 */
export function readConfigurationOrThrow(environment: NodeJS.ProcessEnv): Configuration {
  const port = Number(environment['PORT'] ?? 4600);
  if (!Number.isInteger(port) || port < 0 || port > 65_535) {
    throw new RangeError(`PORT is "${environment['PORT']}"; it must be a number from 0 to 65535`);
  }
  const url = environment['DATABASE_URL'];
  if (url) return { port, database: { kind: 'server', url } };
  const folder = resolve(environment['WOMBAT_DATA'] ?? join(root, '.wombat'));
  return { port, database: { kind: 'folder', folder, seedFile } };
}
