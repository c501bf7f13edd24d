import { sql } from 'drizzle-orm';
import { extension } from '#core/exchange';
import { changedAtSchools, inPieces, missingAtSchools, type Writing } from './writing.js';

/** A category belongs to each school that uses it, or to the one section that it names. */
export async function writeCategories(writing: Writing): Promise<void> {
  const { queries, ids } = writing;
  const changed = changedAtSchools(writing, 'categories', 'category').map(({ id, row }) => ({
    id,
    name: row['title'],
  }));
  const created = missingAtSchools(writing, 'categories', 'category');
  const given = await ids.give(
    'category',
    created.map(({ row, schoolId }) => ({ sourcedId: row['sourcedId']!, schoolId })),
  );
  const rows = created.map(({ row, schoolId }, at) => ({
    id: given[at],
    schoolId,
    sectionId: ids.of('section', row[extension('class')]) ?? null,
    name: row['title'],
  }));
  await inPieces(rows, (piece) =>
    queries.execute(sql`
    INSERT INTO categories (id, school_id, section_id, name, tint, position)
    SELECT n.id, n."schoolId", n."sectionId", n.name, (row_number() OVER w - 1) % 6,
           row_number() OVER w + (SELECT count(*) FROM categories c WHERE c.school_id = n."schoolId")
    FROM jsonb_to_recordset(${piece}::jsonb) AS n (id int, "schoolId" int, "sectionId" int, name text)
    WINDOW w AS (PARTITION BY n."schoolId" ORDER BY n.id)`),
  );
  await inPieces(changed, (piece) =>
    queries.execute(sql`
    UPDATE categories c SET name = n.name FROM jsonb_to_recordset(${piece}::jsonb) AS n (id int, name text) WHERE c.id = n.id`),
  );
}
