import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { decimalOrThrow, roundHalfUp } from '#core/numbers';

const here = fileURLToPath(new URL('.', import.meta.url));
const domains = readdirSync(here, { withFileTypes: true }).filter((each) => each.isDirectory());

/** The examples of a README: what is asked, over as many lines as it takes, and what comes of it. */
function examplesOf(readme: string): [expression: string, result: string][] {
  const blocks = [...readme.matchAll(/```js\n(.*?)```/gs)].map(([, block]) => block!);
  return blocks.flatMap((block) =>
    [...block.matchAll(/(.*?); \/\/ (.*?)\n/gs)].map(([, asked, result]): [string, string] => [
      asked!.replace(/\s+/g, ' ').trim(),
      result!,
    ]),
  );
}

describe.each(domains.map(({ name }) => name).filter((name) => name !== 'statistics' && name !== 'formats'))(
  'the README of %s',
  (domain) => {
    const readme = readFileSync(`${here}${domain}/README.md`, 'utf8');

    it('is one screen, and says what there is, the one rule, and an example', () => {
      expect(readme.split('\n').length).toBeLessThanOrEqual(40);
      for (const part of ['**Objects.**', '**The one rule.**', '```js']) expect(readme).toContain(part);
    });

    it.each(examplesOf(readme))('says what is so: %s', async (expression, result) => {
      const names = (await import(`./${domain}/index.ts`)) as Record<string, unknown>;
      const known: Record<string, unknown> = { ...names, decimal: decimalOrThrow, halfUp: roundHalfUp };
      const run = (text: string): unknown =>
        // The examples are our own text, and a reader should be able to trust them.
        // oxlint-disable-next-line no-implied-eval
        new Function(...Object.keys(known), `return (${text})`)(...Object.values(known));
      expect(run(expression)).toEqual(run(result));
    });
  },
);
