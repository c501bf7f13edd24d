import { expect, it } from 'vitest';
import { startTestServer } from '../../../test/test-server.js';

const often = 12;

it('prepares what is asked often, under one name for each text, and leaves the rest', async () => {
  const server = await startTestServer();
  const { pool } = server.database;
  const ask = async (text: string, times: number) => {
    const answers: unknown[] = [];
    for (let at = 0; at < times; at++) {
      const { rows } = await pool.query({ text }, [at]);
      answers.push(rows[0]!.answer);
    }
    return answers;
  };
  const [twice, thrice, seldom] = ['$1::int * 2', '$1::int * 3', '$1::int * 4'].map((sum) => `SELECT ${sum} AS answer`);
  // by turns, so that a name given to both would answer with the other's sum
  const answers: unknown[] = [];
  for (let at = 0; at < often; at++) answers.push(await ask(twice!, 1), await ask(thrice!, 2));
  expect(answers.flat()).toEqual(Array.from({ length: often }, () => [0, 0, 3]).flat());
  await ask(seldom!, 3);
  const { rows } = await pool.query("SELECT name, statement FROM pg_prepared_statements WHERE name LIKE 'often%'");
  const prepared = rows.map(({ statement }) => statement).filter((text: string) => text.endsWith('AS answer'));
  expect(prepared.toSorted()).toEqual([twice, thrice]);
  expect(new Set(rows.map(({ name }) => name)).size).toBe(rows.length);
  await server.stop();
});
