// npm test: everything from a fresh clone. Installs, builds, checks, runs the tests and the journeys, and ends with
// one line that counts them.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root } from './steps.mjs';

install();
const { fetchChromium } = await import('./fetch-chromium.mjs');
fetchChromium();
build();
await import('./lint.mjs');

const folder = mkdtempSync(join(tmpdir(), 'wombat-test-'));
const report = join(folder, 'report.json');
const vitest = join(root, 'node_modules/vitest/vitest.mjs');
const tested = spawnSync(
  process.execPath,
  [vitest, 'run', '--reporter=default', '--reporter=json', `--outputFile=${report}`],
  { cwd: root, stdio: 'inherit' },
);
const {
  numPassedTests: passed,
  numFailedTests,
  numPendingTests: skipped,
  success,
} = JSON.parse(readFileSync(report, 'utf8'));
rmSync(folder, { recursive: true });
// A file that cannot even be loaded fails no test of its own.
const failed = Math.max(numFailedTests, success && tested.status === 0 ? 0 : 1) + skipped;
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
