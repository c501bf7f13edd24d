import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seedFile } from '#server/application';
import { openDatabase } from './open-database.js';
import { keepCopies } from './keep-copies.js';
import { FolderInUseError, lockFolderOrThrow } from './folder-lock.js';

const program = fileURLToPath(new URL('../../../../demo/dist/start-demo.js', import.meta.url));

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'wombat-database-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('the lock of the data folder', () => {
  it('is held by one process, and given back', async () => {
    const unlock = await lockFolderOrThrow(join(folder, 'locked'));
    await expect(lockFolderOrThrow(join(folder, 'locked'))).rejects.toThrow(FolderInUseError);
    await unlock();
    await (
      await lockFolderOrThrow(join(folder, 'locked'))
    )();
    expect(readdirSync(join(folder, 'locked'))).toEqual([]);
  });

  it('closes the folder to everybody else on the machine, also one that stood open', async () => {
    mkdirSync(join(folder, 'open'), { mode: 0o777 });
    const unlock = await lockFolderOrThrow(join(folder, 'open'));
    expect(statSync(join(folder, 'open')).mode & 0o777).toBe(0o700);
    await unlock();
  });

  it('left behind by a process that is gone is taken over, though it bore our own number', async () => {
    mkdirSync(join(folder, 'left/in-use'), { recursive: true });
    writeFileSync(join(folder, 'left/wombat.pid'), String(process.pid));
    const unlock = await lockFolderOrThrow(join(folder, 'left'));
    expect(existsSync(join(folder, 'left/in-use'))).toBe(true);
    await unlock();
  });
});

describe('the embedded database', () => {
  const source = () => ({ kind: 'folder', folder: join(folder, 'data'), seedFile }) as const;

  it('turns a second server away with a sentence, and the first goes on undisturbed', async () => {
    const database = await openDatabase(source());
    const second = spawnSync(process.execPath, [program, '--empty'], {
      env: { ...process.env, DATABASE_URL: '', WOMBAT_DATA: join(folder, 'data'), PORT: '0' },
      encoding: 'utf8',
    });
    expect(second.status).toBe(1);
    expect(second.stderr).toContain(
      `is in use by another Wombat (process ${process.pid}). Stop that one first, or choose another folder with WOMBAT_DATA.`,
    );
    await database.queries.execute(sql`INSERT INTO settings VALUES ('kept', '1')`);
    await database.close();
    expect(existsSync(join(folder, 'data/in-use'))).toBe(false);
  });

  it('keeps what was committed when its process is killed, and nothing of what was not', async () => {
    const script = `
      import('#server/platform').then(async ({ openDatabase }) => {
        const { pool } = await openDatabase(${JSON.stringify(source())});
        await pool.query("INSERT INTO settings VALUES ('committed', '1')");
        await pool.query('BEGIN');
        await pool.query("INSERT INTO settings VALUES ('open', '1')");
        console.log('now');
      });`;
    const child = spawn(process.execPath, ['--input-type=module', '-e', script], {
      cwd: fileURLToPath(new URL('../../../../', import.meta.url)),
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await once(child.stdout, 'data');
    child.kill('SIGKILL');
    await once(child, 'exit');
    const database = await openDatabase(source());
    const { rows } = await database.pool.query<{ key: string }>(
      `SELECT key FROM settings WHERE key IN ('committed', 'open', 'kept') ORDER BY key`,
    );
    await database.close();
    expect(rows.map(({ key }) => key)).toEqual(['committed', 'kept']);
  });

  it('lets whoever waits behind a long transaction wait, without a limit that would make a fault of it', async () => {
    const database = await openDatabase(source());
    expect(database.pool.options.connectionTimeoutMillis ?? 0).toBe(0);
    const order: string[] = [];
    const long = database.queries.transaction(async (queries) => {
      await queries.execute(sql`SELECT pg_sleep(1)`);
      order.push('long');
    });
    const waiting = Array.from({ length: 20 }, async (_each, at) => {
      await database.queries.execute(sql`SELECT ${at}::int`);
      order.push(`waiting ${at}`);
    });
    await Promise.all([long, ...waiting]);
    expect([order[0], order.length]).toEqual(['long', 21]);
    await database.close();
  });

  it('begins with all of its files or not at all: after a first start that broke off the next one begins anew', async () => {
    const broken = join(folder, 'broken.tar.gz');
    const bytes = readFileSync(seedFile);
    writeFileSync(broken, bytes.subarray(0, bytes.length / 2));
    const data = join(folder, 'begun');
    await expect(openDatabase({ kind: 'folder', folder: data, seedFile: broken })).rejects.toThrow(
      /end of file|zlib|TAR/i,
    );
    expect(readdirSync(data)).toEqual(['database.new']);
    const database = await openDatabase({ kind: 'folder', folder: data, seedFile });
    expect((await database.pool.query('SELECT 1 FROM log_head')).rowCount).toBe(1);
    await database.close();
  });

  it('dumps itself to one file, from which another folder starts', async () => {
    const database = await openDatabase(source());
    await database.dump!(join(folder, 'copy.tar.gz'));
    await database.close();
    const copy = await openDatabase({
      kind: 'folder',
      folder: join(folder, 'copied'),
      seedFile: join(folder, 'copy.tar.gz'),
    });
    expect((await copy.pool.query(`SELECT 1 FROM settings WHERE key = 'kept'`)).rowCount).toBe(1);
    await copy.close();
  });

  it('keeps copies that reached the disk, when something changed, no more than three, and disturbs nobody meanwhile', async () => {
    const copying = join(folder, 'copying');
    const copies = () => (existsSync(copying) ? readdirSync(copying).filter((name) => name.endsWith('.gz')) : []);
    const database = await openDatabase(source());
    const end = keepCopies({ pool: database.pool, dump: database.dump!, folder: copying, everyMs: 150 });
    await setTimeout(500);
    const untouched = copies().length;
    await database.pool.query('CREATE TABLE written (id int)');
    const seen = new Set<string>();
    let written = 0;
    for (; seen.size < 5; written++) {
      await database.pool.query('INSERT INTO written VALUES ($1)', [written]);
      for (const name of copies()) seen.add(name);
    }
    await setTimeout(1500);
    await end();
    const kept = copies().toSorted();
    await database.close();
    expect([untouched, kept.length]).toEqual([0, 3]);
    const restored = await openDatabase({
      kind: 'folder',
      folder: join(folder, 'restored'),
      seedFile: join(copying, kept.at(-1)!),
    });
    expect((await restored.pool.query('SELECT count(*)::int AS count FROM written')).rows).toEqual([
      { count: written },
    ]);
    await restored.close();
  });

  it('answers in a thread of its own: a long query does not hold up what else the process does', async () => {
    const database = await openDatabase(source());
    let longest = 0;
    let last = performance.now();
    const ticking = setInterval(() => {
      longest = Math.max(longest, performance.now() - last);
      last = performance.now();
    }, 5);
    const began = performance.now();
    await database.pool.query('SELECT count(*) FROM generate_series(1, 3000000)');
    const whole = performance.now() - began;
    clearInterval(ticking);
    await database.close();
    expect(longest).toBeLessThan(whole / 2);
  });
});
