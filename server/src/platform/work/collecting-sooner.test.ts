import { execFileSync } from 'node:child_process';
import { expect, it } from 'vitest';
import { workerFile } from './worker-file.js';

const script = workerFile(new URL('./collecting-sooner.js', import.meta.url));

/** The most that a process of its own has in use, in megabytes, when rows come and go in one of these ways. */
function mostUsed(way: string): number {
  const program = `
    import { getHeapStatistics } from 'node:v8';
    import { collectingSooner } from ${JSON.stringify(script)};
    let most = 0;
    async function comeAndGo() {
      const kept = [];
      for (let round = 0; round < 24; round++) {
        kept.push(Array.from({ length: 80_000 }, (_, at) => [String(at), "x" + at, { at }]));
        if (kept.length > 4) kept.shift();
        most = Math.max(most, getHeapStatistics().used_heap_size);
      }
    }
    ${way}
    console.log(most / 1e6);`;
  return Number(execFileSync(process.execPath, ['--input-type=module', '-e', program], { encoding: 'utf8' }));
}

it('keeps less garbage while a work lasts, however many others end meanwhile, and as much as ever after the last', () => {
  const usual = mostUsed('await comeAndGo();');
  const sooner = mostUsed('await collectingSooner(comeAndGo);');
  const beside = mostUsed(
    'await collectingSooner(async () => { await collectingSooner(async () => {}); await comeAndGo(); });',
  );
  const afterwards = mostUsed(
    'await collectingSooner(() => Promise.reject(new Error())).catch(() => {}); await comeAndGo();',
  );
  expect(sooner / usual).toBeLessThan(0.85);
  expect(beside / usual).toBeLessThan(0.85);
  expect(afterwards / usual).toBeGreaterThan(0.85);
});
