import { sql } from 'drizzle-orm';
import { inPieces, type Writing } from './writing.js';

export async function writeSchools({ queries, ids, of }: Writing): Promise<void> {
  const [district] = of('orgs', 'new', 'changed').filter(({ type }) => type === 'district');
  if (district) {
    const value = { sourcedId: district['sourcedId'], name: district['name'] };
    await queries.execute(sql`
      INSERT INTO settings (key, value) VALUES ('district', ${JSON.stringify(value)}::jsonb)
      ON CONFLICT (key) DO UPDATE SET value = excluded.value`);
  }
  const created = of('orgs', 'new').filter(({ type }) => type === 'school');
  const given = await ids.give(
    'school',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  const rows = created.map((row, at) => ({
    id: given[at],
    code: row['identifier'] || row['sourcedId'],
    name: row['name'],
  }));
  await inPieces(rows, (piece) =>
    queries.execute(sql`
    INSERT INTO schools (id, code, name, short_name) SELECT n.id, n.code, n.name, n.name
    FROM jsonb_to_recordset(${piece}::jsonb) AS n (id int, code text, name text)`),
  );
  const changed = of('orgs', 'changed')
    .filter(({ type }) => type === 'school')
    .map((row) => ({
      id: ids.of('school', row['sourcedId']),
      code: row['identifier'] ?? '',
      name: row['name'],
    }));
  await inPieces(changed, (piece) =>
    queries.execute(sql`
    UPDATE schools s SET name = n.name, code = coalesce(nullif(n.code, ''), s.code),
      short_name = CASE WHEN s.short_name = s.name THEN n.name ELSE s.short_name END
    FROM jsonb_to_recordset(${piece}::jsonb) AS n (id int, code text, name text) WHERE s.id = n.id`),
  );
}
