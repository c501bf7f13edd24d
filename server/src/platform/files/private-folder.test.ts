import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { privateFolder } from './private-folder.js';

it('is closed to others, and another one each time', () => {
  const [first, second] = [privateFolder('shells'), privateFolder('shells')];
  expect(first).not.toBe(second);
  expect(statSync(first).mode & 0o777).toBe(0o700);
});

it('goes with the process', () => {
  const script = `import('#server/platform').then(({ privateFolder }) => console.log(privateFolder('shells')))`;
  const cwd = fileURLToPath(new URL('../../../../', import.meta.url));
  const { stdout } = spawnSync(process.execPath, ['-e', script], { cwd, encoding: 'utf8' });
  expect(stdout).toContain('wombat-shells-');
  expect(existsSync(stdout.trim())).toBe(false);
});
