import { mkdirSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Logger } from '@nestjs/common';
import type pg from 'pg';

/** Copies kept beside the data. */
const copiesKept = 3;

interface CopySource {
  readonly pool: pg.Pool;
  /** Writes the whole database to one file that has reached the disk. */
  readonly dump: (file: string) => Promise<void>;
  readonly folder: string;
  readonly everyMs: number;
}

/**
 * Copies to go back to should the folder itself be damaged or deleted: at fixed times in which something changed, one that has
 * reached the disk is written. Whether something changed is asked over the connection that everybody uses, as a query
 * from inside PGlite would break into one that is under way. Returns what ends it.
 */
export function keepCopies({ pool, dump, folder, everyMs }: CopySource): () => Promise<void> {
  let copied = writtenUpTo(pool);
  let working: Promise<void> = Promise.resolve();
  const copyWhenChanged = async () => {
    const written = await writtenUpTo(pool);
    if (written === (await copied)) return;
    mkdirSync(folder, { recursive: true });
    await dump(join(folder, `wombat-${new Date().toISOString().replace(/[:.]/g, '-')}.tar.gz`));
    copied = Promise.resolve(written);
    const copies = readdirSync(folder).filter((name) => name.endsWith('.tar.gz'));
    for (const old of copies.toSorted().slice(0, -copiesKept)) rmSync(join(folder, old));
  };
  const timer = setInterval(() => {
    working = working.then(copyWhenChanged).catch((error: unknown) => {
      new Logger('Copies').error(`No copy of the database was written: ${String(error)}`);
    });
  }, everyMs);
  timer.unref();
  return async () => {
    clearInterval(timer);
    await Promise.all([working, copied]);
  };
}

/** How far the write-ahead log reaches; it moves with every change and with nothing else. */
async function writtenUpTo(pool: pg.Pool): Promise<string> {
  const { rows } = await pool.query<{ at: string }>('SELECT pg_current_wal_insert_lsn()::text AS at');
  return rows[0]!.at;
}
