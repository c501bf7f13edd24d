import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { copyLine, readCopyLines } from '#core/formats';
import { startTestServer, type TestServer } from '../../../test/test-server.js';
import { Bulk } from './bulk.js';
import { CopyReader } from './copy-reader.js';
import { Transactions } from './transactions.js';

let server: TestServer;
let bulk: Bulk;
beforeAll(async () => {
  server = await startTestServer();
  bulk = server.application.get(Bulk);
  await server.database.queries.execute(sql`CREATE TABLE shells (id int PRIMARY KEY, name text)`);
});
afterAll(() => server.stop());

const kept = async () =>
  (await server.database.queries.execute<{ id: number; name: string | null }>(sql`SELECT * FROM shells ORDER BY id`))
    .rows;

describe('rows written as text', () => {
  it('stand in the table as they were, whatever signs they hold', async () => {
    const names = ['whelk', 'two\tcolumns', 'two\r\nlines', 'C:\\shells\\n', '\\N', '', null, 'Ærø 🐚'];
    await bulk.run(async (_queries, write) => {
      const lines = names.map((name, id) => copyLine([id, name]));
      await write('shells (id, name)', lines.slice(0, 4).join(''));
      await write('shells (id, name)', lines.slice(4).join(''));
    });
    expect(await kept()).toEqual(names.map((name, id) => ({ id, name })));
    const text = await server.application.get(CopyReader).read('SELECT id, name FROM shells ORDER BY id');
    expect(readCopyLines(text.toString())).toEqual(names.map((name, id) => [String(id), name]));
  });

  it('belong to the transaction: where anything in it fails, none of them stays', async () => {
    const before = await kept();
    const failing = bulk.run(async (queries, write) => {
      await write('shells (id, name)', copyLine([100, 'cockle']));
      await queries.execute(sql`INSERT INTO shells VALUES (101, 'limpet')`);
      await write('shells (id, name)', copyLine([100, 'cockle again']));
    });
    await expect(failing).rejects.toThrow(/duplicate key/);
    expect(await kept()).toEqual(before);
  });

  it('keep nobody else from asking: whoever asks meanwhile gets an answer after them', async () => {
    const writing = bulk.run(async (_queries, write) => {
      for (let id = 200; id < 220; id++) await write('shells (id, name)', copyLine([id, 'tellin']));
    });
    const asking = Promise.all(Array.from({ length: 20 }, () => kept()));
    await writing;
    for (const rows of await asking) expect([0, 20]).toContain(rows.filter(({ id }) => id >= 200).length);
  });
});

describe('rows read as text inside a transaction', () => {
  it('are those that it sees itself, and nobody else’s transaction reads them', async () => {
    const [copies, transactions] = [server.application.get(CopyReader), server.application.get(Transactions)];
    const query = 'SELECT id FROM shells WHERE id >= 300';
    const found = await transactions.tryOut(async (queries) => {
      await queries.execute(sql`INSERT INTO shells VALUES (300, 'abalone')`);
      return (await copies.readIn(queries, query)).toString();
    });
    expect([found, (await copies.read(query)).toString()]).toEqual(['300\n', '']);
    expect(() => copies.readIn(transactions.reading, query)).toThrow('these queries are no transaction');
  });

  it('break nothing where the query is wrong: the transaction is taken back, and its connection serves others', async () => {
    const [copies, transactions] = [server.application.get(CopyReader), server.application.get(Transactions)];
    const before = await kept();
    const wrong = transactions.run(async (queries) => {
      await queries.execute(sql`INSERT INTO shells VALUES (301, 'nautilus')`);
      return copies.readIn(queries, 'SELECT nothing FROM nowhere');
    });
    await expect(wrong).rejects.toThrow(/nowhere/);
    expect(await kept()).toEqual(before);
  });
});
