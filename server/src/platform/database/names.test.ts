import { eq, sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { sectionName } from '#core/courses';
import { listedName, spokenName as spokenByCore } from '#core/people';
import { startTestServer, type TestServer } from '../../../test/test-server.js';
import { personName, personNameOf, sectionNameOf, spokenName, spokenNameOf } from './names.js';
import { people } from './tables/people.js';

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

it.each([null, 'Hal'])(
  'the database calls a person who goes by %s what core calls them, in either way of writing a query',
  async (preferred) => {
    const hale = { givenName: 'Hale', familyName: 'Carrow' };
    const { queries } = server.database;
    await queries
      .insert(people)
      .values({ ...hale, preferredName: preferred, sourcedId: 'hale', kind: 'student', email: '' });
    const own = await queries
      .select({ listed: personName, spoken: spokenName })
      .from(people)
      .where(eq(people.sourcedId, 'hale'));
    const { rows } = await queries.execute<{ listed: string; spoken: string }>(sql`
    SELECT ${personNameOf('p')} AS listed, ${spokenNameOf('p')} AS spoken FROM people p WHERE p.sourced_id = 'hale'`);
    await queries.delete(people).where(eq(people.sourcedId, 'hale'));
    const called = { listed: listedName({ family: 'Carrow', given: 'Hale', preferred }), spoken: spokenByCore(hale) };
    expect([...own, ...rows]).toEqual([called, called]);
  },
);
