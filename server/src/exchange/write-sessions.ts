import { sql } from 'drizzle-orm';
import { extension, listOf, periodKindOf, type ExchangeRow } from '#core/exchange';
import { inPieces, type Writing } from './writing.js';

/** A session becomes a period of each school that uses it; parents come first. */
export async function writeSessions(writing: Writing): Promise<void> {
  const { queries, ids, of } = writing;
  const schools = schoolsOfSessions(writing);
  const created = of('academicSessions', 'new').flatMap((row) => schools(row).map((schoolId) => ({ row, schoolId })));
  const given = await ids.give(
    'period',
    created.map(({ row, schoolId }) => ({ sourcedId: row['sourcedId']!, schoolId })),
  );
  const rowOf = ({ row, schoolId }: { row: ExchangeRow; schoolId: number }, id: number | undefined) => ({
    id,
    schoolId,
    kind: periodKindOf(row),
    name: row['title'],
    startsOn: row['startDate'],
    endsOn: row['endDate'],
    parentId: ids.of('period', row['parentSourcedId'], schoolId) ?? null,
  });
  const added = created
    .map((each, at) => rowOf(each, given[at]))
    .toSorted((a, b) => (a.startsOn! < b.startsOn! ? -1 : 1));
  await inPieces(added, (piece) =>
    queries.execute(sql`
    INSERT INTO periods (id, school_id, kind, name, starts_on, ends_on)
    SELECT n.id, n."schoolId", n.kind, n.name, n."startsOn", n."endsOn" FROM ${periodRows(piece)}`),
  );
  const changed = of('academicSessions', 'changed').flatMap((row) =>
    schools(row).map((schoolId) => rowOf({ row, schoolId }, ids.of('period', row['sourcedId'], schoolId))),
  );
  await inPieces(changed, (piece) =>
    queries.execute(sql`
    UPDATE periods p SET kind = n.kind, name = n.name, starts_on = n."startsOn", ends_on = n."endsOn"
    FROM ${periodRows(piece)} WHERE p.id = n.id`),
  );
  await inPieces([...added, ...changed], (piece) =>
    queries.execute(sql`
    UPDATE periods p SET parent_id = n."parentId" FROM ${periodRows(piece)} WHERE p.id = n.id`),
  );
}

function periodRows(piece: string) {
  return sql`jsonb_to_recordset(${piece}::jsonb)
    AS n (id int, "schoolId" int, kind text, name text, "startsOn" date, "endsOn" date, "parentId" int)`;
}

/** The school that the row itself names, else those whose classes use the session or one that lies in it, else all. */
function schoolsOfSessions({ ids, files }: Writing): (row: ExchangeRow) => number[] {
  const parents = new Map(
    (files.academicSessions ?? []).map((row) => [row['sourcedId']!, row['parentSourcedId'] ?? '']),
  );
  const users = new Map<string, Set<number>>();
  for (const row of files.classes ?? []) {
    const schoolId = ids.of('school', row['schoolSourcedId']);
    if (schoolId === undefined) continue;
    for (let session of listOf(row['termSourcedIds'] ?? ''))
      while (session !== '' && session !== undefined) {
        users.set(session, (users.get(session) ?? new Set()).add(schoolId));
        session = parents.get(session) ?? '';
      }
  }
  const all = (files.orgs ?? []).flatMap((row) => ids.of('school', row['sourcedId']) ?? []);
  const within = (row: ExchangeRow): number[] => {
    for (let at: string | undefined = row['sourcedId']; at; at = parents.get(at)) {
      const own = users.get(at);
      if (own) return [...own];
    }
    return all;
  };
  return (row) => {
    const stated = ids.of('school', row[extension('school')]);
    return stated === undefined ? within(row) : [stated];
  };
}
