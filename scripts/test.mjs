// npm test: everything from a fresh clone. Installs, builds, checks, runs the tests and the journeys, and ends with
// one line that counts them.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root } from './steps.mjs';

install();
const { fetchChromium } = await import('./fetch-chromium.mjs');
fetchChromium();
build();

keepInMemory();
const folder = mkdtempSync(join(tmpdir(), 'wombat-test-'));
const report = join(folder, 'report.json');
const vitest = join(root, 'node_modules/vitest/vitest.mjs');
// Lint beside the tests: they leave the processors idle for a good part of the time.
const linted = inBackground([join(root, 'scripts/lint.mjs')], 'pipe');
const tested = inBackground(
  [vitest, 'run', '--reporter=default', '--reporter=json', `--outputFile=${report}`],
  'inherit',
);
const lint = await linted.ended;
if (lint.status !== 0) {
  tested.child.kill();
  await tested.ended;
  process.stderr.write(lint.printed);
  process.exit(1);
}
const { status } = await tested.ended;
const {
  numPassedTests: passed,
  numFailedTests,
  numPendingTests: skipped,
  success,
} = JSON.parse(readFileSync(report, 'utf8'));
rmSync(folder, { recursive: true });
// A file that cannot even be loaded fails no test of its own.
const failed = Math.max(numFailedTests, success && status === 0 ? 0 : 1) + skipped;
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);

/** Starts a script of this Node.js; what it prints goes to the console, or is gathered. */
function inBackground(script, output) {
  const child = spawn(process.execPath, script, { cwd: root, stdio: ['ignore', output, output] });
  let printed = '';
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', (piece) => (printed += piece));
  const ended = once(child, 'close').then(([status]) => ({ status, printed }));
  return { child, ended };
}

/**
 * Where the machine has plenty of memory for files, tests keep theirs there: no data folder of a test has to outlive it, and
 * each save of the thousands that they make would wait for the disk.
 */
function keepInMemory() {
  const memory = '/dev/shm';
  if (process.env.TMPDIR || !existsSync(memory)) return;
  const { bavail, bsize } = statfsSync(memory);
  if (bavail * bsize > 8 * 1024 ** 3) process.env.TMPDIR = memory;
}
