// npm run test:postgres: starts a PostgreSQL server of its own on loopback and runs the server's tests against it.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { withPostgres } from './postgres.mjs';
import { build, install, root } from './steps.mjs';

install();
build();
const status = await withPostgres((DATABASE_URL) => {
  const vitest = join(root, 'node_modules/vitest/vitest.mjs');
  const env = { ...process.env, DATABASE_URL };
  return spawnSync(process.execPath, [vitest, 'run', '--project', 'server'], { cwd: root, stdio: 'inherit', env })
    .status;
});
process.exit(status ?? 1);
