// What the commands of the README share: installing, building, running a step and saying what failed.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync, writeFileSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));

const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm';
const installedMark = join(root, 'node_modules/.cache/wombat/installed');

/** Runs a command in the project and stops with its exit code when it fails. */
export function run(command, args, { quiet = false, env = {} } = {}) {
  const done = spawnSync(command, args, {
    cwd: root,
    stdio: quiet ? ['ignore', 'pipe', 'pipe'] : 'inherit',
    env: { ...process.env, ...env },
    encoding: 'utf8',
  });
  if (done.error) throw done.error;
  if (done.status !== 0) {
    if (quiet) process.stderr.write(`${done.stdout}${done.stderr}`);
    console.error(`\n${[command, ...args].join(' ')} failed.`);
    process.exit(done.status ?? 1);
  }
}

/** A program out of node_modules/.bin, through this Node.js. */
export function runTool(name, args, options) {
  const manifest = JSON.parse(readFileSync(join(root, 'node_modules', name, 'package.json'), 'utf8'));
  const bin = typeof manifest.bin === 'string' ? manifest.bin : (manifest.bin[name] ?? Object.values(manifest.bin)[0]);
  run(process.execPath, [join(root, 'node_modules', name, bin), ...args], options);
}

/** Installs the packages unless they are installed as the lock file says. */
export function install() {
  const wanted = String(statSync(join(root, 'package-lock.json')).mtimeMs);
  if (existsSync(installedMark) && readFileSync(installedMark, 'utf8') === wanted) return;
  console.log('Installing the packages (once)…');
  run(npm, ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { quiet: true });
  mkdirSync(dirname(installedMark), { recursive: true });
  writeFileSync(installedMark, wanted);
}

/** Compiles what changed, and the web application with it. */
export function build() {
  runTool('@typescript/native', ['-b']);
  runTool('vite', ['build', '--logLevel', 'warn']);
}

/** What Node.js is started with for a server: what was just made is looked through in small steps, and takes less memory. */
export const serverFlags = ['--max-semi-space-size=4'];
