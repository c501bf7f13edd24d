import { sql } from 'drizzle-orm';
import { extension, kindOfPerson, listOf, yearGroupOf, type ExchangeRow } from '#core/exchange';
import { inPieces, type Writing } from './writing.js';

export async function writePeople({ queries, ids, roles, orgs, of }: Writing): Promise<void> {
  const rowOf = (row: ExchangeRow, id: number | undefined) => {
    const named = [row['orgSourcedIds'] ?? '', row['primaryOrgSourcedId'] ?? ''].flatMap(listOf);
    const schools = [...named, ...(orgs.get(row['sourcedId']!) ?? [])].map((org) => ids.of('school', org));
    return {
      id,
      sourcedId: row['sourcedId'],
      number: row['identifier'] || null,
      kind: kindOfPerson(roles.get(row['sourcedId']!) ?? []) ?? 'staff',
      schoolId: schools.find((school) => school !== undefined) ?? null,
      givenName: row['givenName'],
      familyName: row['familyName'],
      preferredName: row['preferredGivenName'] || row[extension('preferredName')] || null,
      enteredOn: row[extension('enteredOn')]?.slice(0, 10) || null,
      leftOn: row[extension('leftOn')]?.slice(0, 10) || null,
      pronoun: row[extension('pronoun')] || null,
      email: row['email'] ?? '',
      yearGroup: yearGroupOf(row['grades'] ?? '') || null,
    };
  };
  const created = of('users', 'new');
  const given = await ids.givePeople(created.map(({ sourcedId }) => sourcedId!));
  const shape = sql`(id int, "sourcedId" text, number text, kind text, "schoolId" int, "givenName" text, "familyName" text, "preferredName" text, email text, "yearGroup" text, "enteredOn" date, "leftOn" date, pronoun text)`;
  await inPieces(
    created.map((row, at) => rowOf(row, given[at])),
    (piece) =>
      queries.execute(sql`
    INSERT INTO people (id, sourced_id, number, kind, school_id, given_name, family_name, preferred_name, email, year_group, entered_on, left_on, pronoun)
    SELECT n.id, n."sourcedId", n.number, n.kind, n."schoolId", n."givenName", n."familyName", n."preferredName",
      n.email, n."yearGroup", n."enteredOn", n."leftOn", n.pronoun
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}`),
  );
  await inPieces(
    of('users', 'changed').map((row) => rowOf(row, ids.people.get(row['sourcedId']!))),
    (piece) =>
      queries.execute(sql`
    UPDATE people p SET given_name = n."givenName", family_name = n."familyName",
      preferred_name = coalesce(n."preferredName", p.preferred_name), number = coalesce(n.number, p.number),
      email = coalesce(nullif(n.email, ''), p.email), year_group = coalesce(n."yearGroup", p.year_group),
      entered_on = coalesce(n."enteredOn", p.entered_on), left_on = coalesce(n."leftOn", p.left_on), pronoun = coalesce(n.pronoun, p.pronoun)
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE p.id = n.id`),
  );
  await inPieces(of('demographics', 'new', 'changed'), (piece) =>
    queries.execute(sql`
    UPDATE people p SET birth_date = left(n."birthDate", 10)::date
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ("sourcedId" text, "birthDate" text)
    WHERE p.sourced_id = n."sourcedId" AND n."birthDate" <> ''`),
  );
}
