// npm run test:postgres: starts a PostgreSQL server of its own on loopback and runs the server's tests against it.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync, chownSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root } from './steps.mjs';

install();
build();
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
let status = 1;
try {
  const env = { ...process.env, DATABASE_URL: `postgres://wombat@127.0.0.1:${port}/postgres` };
  status =
    spawnSync(process.execPath, [join(root, 'node_modules/vitest/vitest.mjs'), 'run', '--project', 'server'], {
      cwd: root,
      stdio: 'inherit',
      env,
    }).status ?? 1;
} finally {
  call('pg_ctl', ['-D', data, '-m', 'fast', 'stop']);
  rmSync(folder, { recursive: true, force: true });
}
process.exit(status);

/** The folder with PostgreSQL's programs; Debian keeps them out of the path. */
function programs() {
  const debian = '/usr/lib/postgresql';
  const versions = existsSync(debian) ? readdirSync(debian).toSorted((a, b) => Number(b) - Number(a)) : [];
  const found = [
    ...versions.map((version) => join(debian, version, 'bin')),
    ...(process.env.PATH ?? '').split(':'),
  ].find((each) => existsSync(join(each, 'initdb')));
  if (found) return found;
  console.error('No PostgreSQL server is installed. On Debian: apt-get install postgresql');
  process.exit(1);
}

function freePort() {
  return new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port: free } = server.address();
      server.close(() => resolve(free));
    });
  });
}
