import { rmSync } from 'node:fs';
import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import pg from 'pg';
import { copyOfPreparedDistrict } from '../../../test/prepared-district.js';
import { startPgliteServer, type PgliteServer } from './pglite-server.js';

/* What pg sends for a statement with values, and what PostgreSQL does where one of its messages is wrong: the others, up to Sync, go unread. */

let folder: string;
let server: PgliteServer;
let client: pg.Client;
beforeAll(async () => {
  folder = await copyOfPreparedDistrict();
  server = await startPgliteServer(folder, null);
});
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

const opened: pg.Client[] = [];
async function newClient(): Promise<pg.Client> {
  const made = new pg.Client({ host: server.socketFolder, user: 'postgres', database: 'postgres' });
  await made.connect();
  opened.push(made);
  return made;
}
beforeAll(async () => {
  client = await newClient();
});
afterEach(async () => {
  await client.query('ROLLBACK'); // PostgreSQL only warns where nothing is open
});
afterAll(async () => {
  for (const each of opened) await each.end();
});

const half = (of: string) => client.query('SELECT 6 / $1::int AS half', [of]).then(({ rows }) => rows[0].half);

it.each([
  ['what cannot be parsed', () => client.query('SELECT $1::int FROM nowhere', [1]), '42P01'],
  ['a value of another kind', () => half('two'), '22P02'],
  ['what fails as it runs', () => half('0'), '22012'],
])('%s is refused, and what comes next is answered', async (_what, ask, code) => {
  await expect(ask()).rejects.toMatchObject({ code });
  expect(await half('2')).toBe(3);
});

it('a prepared statement that failed once is there the next time', async () => {
  const ask = (by: number) => client.query({ name: 'sixth', text: 'SELECT 6 / $1::int AS sixth', values: [by] });
  expect((await ask(1)).rows).toEqual([{ sixth: 6 }]);
  await expect(ask(0)).rejects.toMatchObject({ code: '22012' });
  expect((await ask(3)).rows).toEqual([{ sixth: 2 }]);
});

it('nothing of a transaction is kept that failed half way', async () => {
  await client.query('CREATE TABLE halves (half int)');
  await client.query('BEGIN');
  await client.query('INSERT INTO halves VALUES ($1)', [3]);
  await expect(half('0')).rejects.toMatchObject({ code: '22012' });
  await expect(half('2')).rejects.toMatchObject({ code: '25P02' }); // it is aborted
  await client.query('COMMIT');
  expect((await client.query('SELECT * FROM halves')).rows).toEqual([]);
});

it('ten thousand rows and text of a megabyte come whole', async () => {
  const { rows } = await client.query('SELECT n, repeat($2, 100) AS long FROM generate_series(1, $1::int) n', [
    10_000,
    'é',
  ]);
  expect(rows.map(({ n }) => n)).toEqual(Array.from({ length: 10_000 }, (_each, at) => at + 1));
  const long = 'x'.repeat(2 ** 20);
  expect((await client.query('SELECT $1::text AS long', [long])).rows[0].long).toBe(long);
});

it('what a client began and did not ask for is not done for the next', async () => {
  for (const each of opened.splice(0)) await each.end();
  const { connection } = (await newClient()).on('error', () => undefined);
  opened.pop();
  connection.parse({ name: '', text: 'CREATE TABLE begun (half int)', types: [] }, true);
  connection.bind({}, true);
  connection.execute({}, true);
  connection.stream.end();
  client = await newClient();
  expect((await client.query('SELECT to_regclass($1) AS begun', ['begun'])).rows).toEqual([{ begun: null }]);
});
