import { sql } from 'drizzle-orm';
import { periodKindOf } from '#core/exchange';
import { changedAtSchools, inPieces, missingAtSchools, type AtSchool, type Writing } from './writing.js';

/** A session becomes a period of each school that uses it; parents come first. */
export async function writeSessions(writing: Writing): Promise<void> {
  const { queries, ids } = writing;
  const changes = changedAtSchools(writing, 'academicSessions', 'period');
  const created = missingAtSchools(writing, 'academicSessions', 'period');
  const given = await ids.give(
    'period',
    created.map(({ row, schoolId }) => ({ sourcedId: row['sourcedId']!, schoolId })),
  );
  const rowOf = ({ row, schoolId }: AtSchool, id: number) => ({
    id,
    schoolId,
    kind: periodKindOf(row),
    name: row['title'],
    startsOn: row['startDate']!.slice(0, 10),
    endsOn: row['endDate']!.slice(0, 10),
    parentId: ids.of('period', row['parentSourcedId'], schoolId) ?? null,
  });
  const added = created.map((each, at) => rowOf(each, given[at]!));
  await inPieces(added, (piece) =>
    queries.execute(sql`
    INSERT INTO periods (id, school_id, kind, name, starts_on, ends_on)
    SELECT n.id, n."schoolId", n.kind, n.name, n."startsOn", n."endsOn" FROM ${periodRows(piece)}`),
  );
  const changed = changes.map((each) => rowOf(each, each.id));
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
