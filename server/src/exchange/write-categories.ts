import { sql } from 'drizzle-orm';
import { extension } from '#core/exchange';
import { inPieces, type Writing } from './writing.js';

/** A category belongs to the school it names, else to those whose classes have line items of it. */
export async function writeCategories({ queries, ids, files, of }: Writing): Promise<void> {
  const schoolOfClass = new Map(
    (files.classes ?? []).map((row) => [row['sourcedId'], ids.of('school', row['schoolSourcedId'])]),
  );
  const users = new Map<string, Set<number>>();
  for (const row of files.lineItems ?? []) {
    const schoolId = schoolOfClass.get(row['classSourcedId']);
    const category = row['categorySourcedId']!;
    if (schoolId !== undefined) users.set(category, (users.get(category) ?? new Set()).add(schoolId));
  }
  const all = (files.orgs ?? []).flatMap((row) => ids.of('school', row['sourcedId']) ?? []);
  const created = of('categories', 'new').flatMap((row) => {
    const stated = ids.of('school', row[extension('school')]);
    const schools = stated === undefined ? [...(users.get(row['sourcedId']!) ?? all)] : [stated];
    return schools.map((schoolId) => ({ row, schoolId }));
  });
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
  await inPieces(of('categories', 'changed'), (piece) =>
    queries.execute(sql`
    UPDATE categories c SET name = n.title FROM jsonb_to_recordset(${piece}::jsonb) AS n ("sourcedId" text, title text)
    JOIN sourced_ids i ON i.kind = 'category' AND i.sourced_id = n."sourcedId" WHERE c.id = i.our_id`),
  );
}
