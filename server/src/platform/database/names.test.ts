import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { sectionName } from '#core/courses';
import { startTestServer, type TestServer } from '../../../test/test-server.js';
import { sectionNameOf } from './names.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

it.each([
  ['Boatbuilding', 2],
  ['Making, year 1', 2],
  ['10', 11],
  ['Year 1 Making ', 3],
])('the database calls section %s %i what core calls it', async (title, number) => {
  const { rows } = await server.database.queries.execute<{ name: string }>(sql`
    SELECT ${sectionNameOf('c', 's')} AS name FROM (SELECT ${title}::text AS title) c, (SELECT ${number}::int AS number) s`);
  expect(rows).toEqual([{ name: sectionName(title, number) }]);
});
