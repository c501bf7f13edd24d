// A PostgreSQL server of its own on loopback, for tests and measurements.
import { execFileSync } from 'node:child_process';
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/**
 * Starts it in a folder of its own, hands its address to the work, and stops and removes it when that is done.
 * @param {(url: string) => unknown} work
 * @throws Error where no PostgreSQL server is installed
 */
export async function withPostgres(work) {
  const bin = programs();
  const folder = mkdtempSync(join(tmpdir(), 'wombat-postgres-'));
  // PostgreSQL refuses to run as root; there it runs as the account that Debian's package made.
  const isRoot = process.getuid?.() === 0;
  const account = isRoot
    ? { uid: Number(execFileSync('id', ['-u', 'postgres'])), gid: Number(execFileSync('id', ['-g', 'postgres'])) }
    : {};
  if (isRoot) chownSync(folder, account.uid, account.gid);
  const port = await freePort();
  const data = join(folder, 'data');
  const call = (program, args) =>
    execFileSync(join(bin, program), args, { ...account, cwd: folder, stdio: ['ignore', 'ignore', 'inherit'] });
  call('initdb', ['-D', data, '-U', 'wombat', '--auth=trust', '--encoding=UTF8', '--locale=C.UTF-8']);
  call('pg_ctl', [
    '-D',
    data,
    '-w',
    '-l',
    join(folder, 'log'),
    '-o',
    `-p ${port} -h 127.0.0.1 -k ${folder} -c fsync=off`,
    'start',
  ]);
  try {
    return await work(`postgres://wombat@127.0.0.1:${port}/postgres`);
  } finally {
    call('pg_ctl', ['-D', data, '-m', 'fast', 'stop']);
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The folder with PostgreSQL's programs; Debian keeps them out of the path. */
function programs() {
  const debian = '/usr/lib/postgresql';
  const versions = existsSync(debian) ? readdirSync(debian).toSorted((a, b) => Number(b) - Number(a)) : [];
  const found = [
    ...versions.map((version) => join(debian, version, 'bin')),
    ...(process.env.PATH ?? '').split(':'),
  ].find((each) => existsSync(join(each, 'initdb')));
  if (found) return found;
  throw new Error('No PostgreSQL server is installed. On Debian: apt-get install postgresql');
}

function freePort() {
  return new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port: free } = server.address();
      server.close(() => resolve(free));
    });
  });
}
