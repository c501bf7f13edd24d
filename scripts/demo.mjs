// npm run demo: installs, builds, makes the demo district and starts Wombat. Again: starts on what is there.
// -- --reset makes the district anew; -- --empty starts without data. PORT and WOMBAT_DATA say where.
import { spawn } from 'node:child_process';
import { existsSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { build, install, root, serverFlags } from './steps.mjs';

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(`Wombat needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
  process.exit(1);
}

install();
buildWhenChanged();
if (process.argv.includes('--reset')) {
  const folder = resolve(process.env.WOMBAT_DATA ?? join(root, '.wombat'));
  rmSync(join(folder, 'database'), { recursive: true, force: true });
}
const wombat = spawn(
  process.execPath,
  [...serverFlags, join(root, 'demo/dist/start-demo.js'), ...process.argv.slice(2)],
  {
    cwd: root,
    stdio: 'inherit',
  },
);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => wombat.kill(signal));
wombat.on('exit', (code) => process.exit(code ?? 0));

/** A second start takes seconds: nothing is compiled while no source is newer than the last build. */
function buildWhenChanged() {
  const mark = join(root, 'node_modules/.cache/wombat/built');
  const newest = Math.max(
    ...['core', 'contract', 'server', 'standins', 'web', 'demo'].map((layer) => newestIn(join(root, layer))),
  );
  if (existsSync(mark) && existsSync(join(root, 'demo/dist/start-demo.js')) && statSync(mark).mtimeMs > newest) return;
  console.log('Building…');
  build();
  writeFileSync(mark, '');
}

function newestIn(folder) {
  return Math.max(
    0,
    ...readdirSync(folder, { withFileTypes: true })
      .filter(({ name }) => name !== 'dist' && name !== 'files')
      .map((entry) => {
        const path = join(folder, entry.name);
        return entry.isDirectory() ? newestIn(path) : statSync(path).mtimeMs;
      }),
  );
}
