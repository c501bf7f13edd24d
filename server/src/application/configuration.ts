import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { markOfTables, type DatabaseSource } from '#server/platform';

export interface Configuration {
  readonly port: number;
  readonly database: DatabaseSource;
  /** After how many minutes in which nobody does anything a session ends. */
  readonly pauseMinutes: number;
}

/** Unless the environment says otherwise. */
export const usualPauseMinutes = 120;
/** A shorter one would end before its warning; a longer one than a day is none. */
const [leastPause, longestPause] = [5, 24 * 60];

const root = fileURLToPath(new URL('../../..', import.meta.url));

/** The empty cluster that new data folders are made from. */
export const seedFile = join(root, `node_modules/.cache/wombat/empty-database-${markOfTables()}.tar.gz`);

/**
 * What the environment says: PORT (4600), DATABASE_URL for a PostgreSQL server, otherwise WOMBAT_DATA for the folder of
 * the embedded database (.wombat beside the program), WOMBAT_SESSION_MINUTES (120) for how long a session lasts unused.
 * @throws RangeError when PORT is no port, or a session would last less than 5 minutes or more than a day
 */
export function readConfigurationOrThrow(environment: NodeJS.ProcessEnv): Configuration {
  const port = Number(environment['PORT'] ?? 4600);
  if (!Number.isInteger(port) || port < 0 || port > 65_535) {
    throw new RangeError(`PORT is "${environment['PORT']}"; it must be a number from 0 to 65535`);
  }
  const pauseMinutes = Number(environment['WOMBAT_SESSION_MINUTES'] ?? usualPauseMinutes);
  if (!Number.isInteger(pauseMinutes) || pauseMinutes < leastPause || pauseMinutes > longestPause) {
    throw new RangeError(
      `WOMBAT_SESSION_MINUTES is "${environment['WOMBAT_SESSION_MINUTES']}"; it must be a number from ${leastPause} to ${longestPause}`,
    );
  }
  const url = environment['DATABASE_URL'];
  if (url) return { port, pauseMinutes, database: { kind: 'server', url } };
  const folder = resolve(environment['WOMBAT_DATA'] ?? join(root, '.wombat'));
  return { port, pauseMinutes, database: { kind: 'folder', folder, seedFile } };
}
