import { expect, it } from 'vitest';
import { startTestServer } from '../../../test/test-server.js';
import { StatementNames } from './preparing-client.js';

it('a statement has a name from the tenth time on, one for each text, and only so many have one', () => {
  const names = new StatementNames();
  const asked = (text: string, times: number) => Array.from({ length: times }, () => names.of(text)).at(-1);
  expect([asked('one', 9), asked('one', 1), asked('one', 1)]).toEqual([undefined, 'often_1', 'often_1']);
  expect([asked('two', 10), asked('one', 1)]).toEqual(['often_2', 'often_1']);
  const more = Array.from({ length: 400 }, (_each, at) => asked(`more ${at}`, 10));
  expect(new Set(more.filter((name) => name !== undefined)).size).toBe(298);
  expect([asked('late', 50), asked('two', 1)]).toEqual([undefined, 'often_2']);
});

it('answers of statements that are asked by turns, prepared or not, are their own', async () => {
  const server = await startTestServer();
  const ask = async (factor: number, at: number) => {
    const { rows } = await server.database.pool.query({ text: `SELECT $1::int * ${factor} AS answer` }, [at]);
    return rows[0]!.answer as number;
  };
  for (let at = 0; at < 25; at++) expect([await ask(2, at), await ask(3, at)]).toEqual([2 * at, 3 * at]);
  await server.stop();
});
