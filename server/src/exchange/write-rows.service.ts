import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import {
  extension,
  flagOf,
  isTeaching,
  kindOfPerson,
  listOf,
  periodKindOf,
  rolesByUser,
  sectionNumberOf,
  type ExchangeFile,
  type ExchangeRow,
  type ExchangeRows,
  type PlannedExchangeRow,
} from '#core/exchange';
import { CalculatedGradesRepository } from '#server/calculation';
import type { Queries } from '#server/platform';
import { ExchangeIds } from './exchange-ids.js';

/** What a zip's rows become, file after file, all inside one transaction. */
interface Writing {
  readonly queries: Queries;
  readonly ids: ExchangeIds;
  /** All rows of the zip, also those that are the same. */
  readonly files: ExchangeRows;
  readonly today: string;
  readonly of: (file: ExchangeFile, ...outcomes: PlannedExchangeRow['outcome'][]) => readonly ExchangeRow[];
}

/** Rows written with one statement. */
const rowsAtOnce = 5_000;

@Injectable()
export class WriteRowsService {
  constructor(private readonly calculated: CalculatedGradesRepository) {}

  async write(
    queries: Queries,
    plan: readonly PlannedExchangeRow[],
    files: ExchangeRows,
    today: string,
  ): Promise<void> {
    const writing: Writing = {
      queries,
      files,
      today,
      ids: await ExchangeIds.read(queries),
      of: (file, ...outcomes) =>
        plan.filter((each) => each.file === file && outcomes.includes(each.outcome)).map(({ row }) => row),
    };
    await writeSchools(writing);
    await writeSessions(writing);
    await writePeople(writing);
    await writeCourses(writing);
    await writeClasses(writing);
    await writeEnrollments(writing);
    await writeCategories(writing);
    await writeLineItems(writing);
    await writeResults(writing);
    await this.markStale(writing);
  }

  private async markStale({ queries, ids, files, of }: Writing): Promise<void> {
    const classOf = new Map((files.lineItems ?? []).map((row) => [row['sourcedId'], row['classSourcedId']]));
    const touched = [
      ...of('lineItems', 'new', 'changed', 'delete').map((row) => row['classSourcedId']),
      ...of('results', 'new', 'changed', 'delete').map((row) => classOf.get(row['lineItemSourcedId'])),
    ];
    const sections = [...new Set(touched)].flatMap((each) => ids.of('section', each) ?? []);
    await this.calculated.markStale(queries, sections, null);
  }
}

async function writeSchools({ queries, ids, of }: Writing): Promise<void> {
  const created = of('orgs', 'new');
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
  const changed = of('orgs', 'changed').map((row) => ({
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

/** A session becomes a period of each school that uses it; parents come first. */
async function writeSessions(writing: Writing): Promise<void> {
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

async function writePeople({ queries, ids, files, of }: Writing): Promise<void> {
  const roles = rolesByUser(files);
  const orgs = new Map((files.roles ?? []).map((row) => [row['userSourcedId'], row['orgSourcedId']]));
  const rowOf = (row: ExchangeRow, id: number | undefined) => {
    const [org] = listOf(row['orgSourcedIds'] ?? row['primaryOrgSourcedId'] ?? orgs.get(row['sourcedId']) ?? '');
    return {
      id,
      sourcedId: row['sourcedId'],
      kind: kindOfPerson(roles.get(row['sourcedId']!) ?? []) ?? 'staff',
      schoolId: ids.of('school', org) ?? null,
      givenName: row['givenName'],
      familyName: row['familyName'],
      email: row['email'] ?? '',
      yearGroup: row['grades'] || null,
    };
  };
  const created = of('users', 'new');
  const given = await ids.givePeople(created.map(({ sourcedId }) => sourcedId!));
  const shape = sql`(id int, "sourcedId" text, kind text, "schoolId" int, "givenName" text, "familyName" text, email text, "yearGroup" text)`;
  await inPieces(
    created.map((row, at) => rowOf(row, given[at])),
    (piece) =>
      queries.execute(sql`
    INSERT INTO people (id, sourced_id, kind, school_id, given_name, family_name, email, year_group)
    SELECT n.id, n."sourcedId", n.kind, n."schoolId", n."givenName", n."familyName", n.email, n."yearGroup"
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}`),
  );
  await inPieces(
    of('users', 'changed').map((row) => rowOf(row, ids.people.get(row['sourcedId']!))),
    (piece) =>
      queries.execute(sql`
    UPDATE people p SET given_name = n."givenName", family_name = n."familyName",
      email = coalesce(nullif(n.email, ''), p.email), year_group = coalesce(n."yearGroup", p.year_group)
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE p.id = n.id`),
  );
  await inPieces(of('demographics', 'new', 'changed'), (piece) =>
    queries.execute(sql`
    UPDATE people p SET birth_date = n."birthDate"::date
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ("sourcedId" text, "birthDate" text)
    WHERE p.sourced_id = n."sourcedId" AND n."birthDate" <> ''`),
  );
}

async function writeCourses({ queries, ids, files, of }: Writing): Promise<void> {
  // A course of the whole district belongs to the school of its first class.
  const ofClass = new Map(
    (files.classes ?? []).toReversed().map((row) => [row['courseSourcedId'], row['schoolSourcedId']]),
  );
  const [first] = (files.orgs ?? []).flatMap((row) => ids.of('school', row['sourcedId']) ?? []);
  const own = (row: ExchangeRow, name: string) => row[extension(name)] || null;
  const rowOf = (row: ExchangeRow, id: number | undefined) => ({
    id,
    schoolId: ids.of('school', row['orgSourcedId']) ?? ids.of('school', ofClass.get(row['sourcedId'])) ?? first,
    code: row['courseCode'] || row['sourcedId'],
    title: row['title'],
    department: listOf(row['subjects'] ?? '')[0] ?? null,
    kind: own(row, 'kind'),
    level: own(row, 'level'),
    length: own(row, 'length'),
    credits: own(row, 'credits'),
    mostCredits: own(row, 'mostCredits'),
    onTranscript: own(row, 'onTranscript'),
    countsInGpa: own(row, 'countsInGpa'),
  });
  const shape = sql`(id int, "schoolId" int, code text, title text, department text, kind text, level text, length text,
    credits numeric, "mostCredits" numeric, "onTranscript" boolean, "countsInGpa" boolean)`;
  const created = of('courses', 'new');
  const given = await ids.give(
    'course',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  await inPieces(
    created.map((row, at) => rowOf(row, given[at])),
    (piece) =>
      queries.execute(sql`
    INSERT INTO courses (id, school_id, code, title, department, kind, level, length, credits, most_credits, on_transcript, counts_in_gpa)
    SELECT n.id, n."schoolId", n.code, n.title, coalesce(n.department, 'General'), coalesce(n.kind, ''), coalesce(n.level, 'regular'),
           coalesce(n.length, 'year'), n.credits, n."mostCredits", n."onTranscript", n."countsInGpa"
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}`),
  );
  await inPieces(
    of('courses', 'changed').map((row) => rowOf(row, ids.of('course', row['sourcedId']))),
    (piece) =>
      queries.execute(sql`
    UPDATE courses c SET title = n.title, code = n.code, department = coalesce(n.department, c.department),
      kind = coalesce(n.kind, c.kind), level = coalesce(n.level, c.level), length = coalesce(n.length, c.length),
      credits = coalesce(n.credits, c.credits), most_credits = coalesce(n."mostCredits", c.most_credits),
      on_transcript = coalesce(n."onTranscript", c.on_transcript), counts_in_gpa = coalesce(n."countsInGpa", c.counts_in_gpa),
      version = c.version + 1
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE c.id = n.id`),
  );
}

async function writeClasses(writing: Writing): Promise<void> {
  const { queries, ids, files, of } = writing;
  const teachers = new Map(
    (files.enrollments ?? [])
      .filter((row) => isTeaching('enrollments', row) && row['status'] !== 'tobedeleted')
      .toSorted((a, b) => Number(b['primary'] === 'true') - Number(a['primary'] === 'true'))
      .toReversed()
      .map((row) => [row['classSourcedId'], ids.people.get(row['userSourcedId'] ?? '')]),
  );
  const terms = await termsOf(queries);
  const rowOf = (row: ExchangeRow, id: number | undefined, number: number | undefined) => {
    const schoolId = ids.of('school', row['schoolSourcedId']);
    const periods = listOf(row['termSourcedIds'] ?? '').flatMap((each) => ids.of('period', each, schoolId) ?? []);
    return {
      id,
      courseId: ids.of('course', row['courseSourcedId']),
      number,
      teacherId: teachers.get(row['sourcedId']) ?? null,
      periodId: terms(periods),
      startsOn: row[extension('startsOn')] || null,
      endsOn: row[extension('endsOn')] || null,
    };
  };
  const shape = sql`(id int, "courseId" int, number int, "teacherId" int, "periodId" int, "startsOn" date, "endsOn" date)`;
  const created = of('classes', 'new');
  const given = await ids.give(
    'section',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  const taken = await numbersOf(queries);
  const added = created.map((row, at) => {
    const plain = rowOf(row, given[at], undefined);
    return { ...plain, number: taken(plain, sectionNumberOf(row)) };
  });
  await inPieces(added, (piece) =>
    queries.execute(sql`
    INSERT INTO sections (id, course_id, number, teacher_id, period_id, starts_on, ends_on)
    SELECT n.id, n."courseId", n.number, n."teacherId", n."periodId", n."startsOn", n."endsOn"
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}`),
  );
  const changed = of('classes', 'changed').map((row) =>
    rowOf(row, ids.of('section', row['sourcedId']), Number(row[extension('number')]) || undefined),
  );
  await inPieces(changed, (piece) =>
    queries.execute(sql`
    UPDATE sections s SET course_id = n."courseId", period_id = n."periodId", number = coalesce(n.number, s.number),
      starts_on = coalesce(n."startsOn", s.starts_on), ends_on = coalesce(n."endsOn", s.ends_on)
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE s.id = n.id`),
  );
}

/** The one period of several that a class runs through: the innermost that holds them all. */
async function termsOf(queries: Queries): Promise<(periods: readonly number[]) => number | undefined> {
  const { rows } = await queries.execute<{ id: number; schoolId: number; startsOn: string; endsOn: string }>(sql`
    SELECT id, school_id AS "schoolId", starts_on::text AS "startsOn", ends_on::text AS "endsOn" FROM periods`);
  const byId = new Map(rows.map((row) => [row.id, row]));
  return (periods) => {
    const own = periods.flatMap((id) => byId.get(id) ?? []);
    if (own.length <= 1) return own[0]?.id;
    const holding = rows.filter((row) =>
      own.every(
        ({ schoolId, startsOn, endsOn }) =>
          row.schoolId === schoolId && row.startsOn <= startsOn && row.endsOn >= endsOn,
      ),
    );
    const days = ({ startsOn, endsOn }: (typeof rows)[number]) => Date.parse(endsOn) - Date.parse(startsOn);
    return (holding.toSorted((a, b) => days(a) - days(b))[0] ?? own[0])?.id;
  };
}

/** The number a section asks for, or the next free one of its course in its period. */
async function numbersOf(queries: Queries) {
  const { rows } = await queries.execute<{ key: string; number: number }>(sql`
    SELECT course_id || '|' || period_id AS key, number FROM sections`);
  const taken = new Map<string, Set<number>>();
  for (const { key, number } of rows) taken.set(key, (taken.get(key) ?? new Set()).add(number));
  return (
    { courseId, periodId }: { courseId: number | undefined; periodId: number | undefined },
    asked: number | undefined,
  ) => {
    const own = taken.get(`${courseId}|${periodId}`) ?? new Set<number>();
    let number = asked ?? 1;
    while (own.has(number)) number++;
    taken.set(`${courseId}|${periodId}`, own.add(number));
    return number;
  };
}

async function writeEnrollments({ queries, ids, today, of }: Writing): Promise<void> {
  const rowOf = (row: ExchangeRow, id: number | undefined) => ({
    id,
    sectionId: ids.of('section', row['classSourcedId']),
    studentId: ids.people.get(row['userSourcedId'] ?? ''),
    enteredOn: row['beginDate'] || null,
    withdrawnOn: row['endDate'] || null,
  });
  const shape = sql`(id int, "sectionId" int, "studentId" int, "enteredOn" date, "withdrawnOn" date)`;
  const created = of('enrollments', 'new').filter((row) => !isTeaching('enrollments', row));
  const given = await ids.give(
    'enrollment',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  await inPieces(
    created.map((row, at) => rowOf(row, given[at])),
    (piece) =>
      queries.execute(sql`
    INSERT INTO enrollments (id, section_id, student_id, entered_on, withdrawn_on)
    SELECT n.id, n."sectionId", n."studentId", coalesce(n."enteredOn", s.starts_on, p.starts_on), n."withdrawnOn"
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} JOIN sections s ON s.id = n."sectionId" JOIN periods p ON p.id = s.period_id`),
  );
  const changed = of('enrollments', 'changed').map((row) => rowOf(row, undefined));
  await inPieces(changed, (piece) =>
    queries.execute(sql`
    UPDATE enrollments e SET entered_on = coalesce(n."enteredOn", e.entered_on), withdrawn_on = n."withdrawnOn"
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}
    WHERE e.section_id = n."sectionId" AND e.student_id = n."studentId"`),
  );
  const teaching = of('enrollments', 'new')
    .filter((row) => isTeaching('enrollments', row))
    .map((row) => rowOf(row, undefined));
  await inPieces(teaching, (piece) =>
    queries.execute(sql`
    UPDATE sections s SET teacher_id = n."studentId" FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE s.id = n."sectionId"`),
  );
  const ended = of('enrollments', 'delete')
    .filter((row) => !isTeaching('enrollments', row))
    .map((row) => ({ ...rowOf(row, undefined), withdrawnOn: row['endDate'] || today }));
  await inPieces(ended, (piece) =>
    queries.execute(sql`
    UPDATE enrollments e SET withdrawn_on = coalesce(e.withdrawn_on, n."withdrawnOn")
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}
    WHERE e.section_id = n."sectionId" AND e.student_id = n."studentId"`),
  );
}

/** A category belongs to the school it names, else to those whose classes have line items of it. */
async function writeCategories({ queries, ids, files, of }: Writing): Promise<void> {
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

async function writeLineItems({ queries, ids, of }: Writing): Promise<void> {
  const { rows: sections } = await queries.execute<{ id: number; schoolId: number }>(sql`
    SELECT s.id, c.school_id AS "schoolId" FROM sections s JOIN courses c ON c.id = s.course_id`);
  const schoolOf = new Map(sections.map(({ id, schoolId }) => [id, schoolId]));
  const { rows: members } = await queries.execute<{ key: string; id: number }>(sql`
    SELECT e.section_id || '|' || p.sourced_id AS key, e.id FROM enrollments e JOIN people p ON p.id = e.student_id`);
  const enrollmentOf = new Map(members.map(({ key, id }) => [key, id]));
  const said = (row: ExchangeRow, name: string) => row[extension(name)] || null;
  const rowOf = (row: ExchangeRow, id: number | undefined) => {
    const sectionId = ids.of('section', row['classSourcedId']);
    const schoolId = schoolOf.get(sectionId ?? 0);
    const students = listOf(said(row, 'students') ?? '').flatMap(
      (each) => enrollmentOf.get(`${sectionId}|${each}`) ?? [],
    );
    return {
      id,
      sectionId,
      periodId: ids.of('period', row['gradingPeriodSourcedId'] || row['academicSessionSourcedId'], schoolId) ?? null,
      categoryId: ids.of('category', row['categorySourcedId'], schoolId),
      name: row['title'],
      possible: row['resultValueMax'] || '0',
      dueOn: row['dueDate']!.slice(0, 10),
      isExtra: said(row, 'extra'),
      isCounted: said(row, 'counted'),
      isPublished: said(row, 'published'),
      givenTo: students.length > 0 ? students.toSorted((a, b) => a - b) : null,
    };
  };
  const shape = sql`(id int, "sectionId" int, "periodId" int, "categoryId" int, name text, possible numeric, "dueOn" date,
    "isExtra" boolean, "isCounted" boolean, "isPublished" boolean, "givenTo" jsonb)`;
  // Without a grading period it is the innermost period of the school that the due date lies in.
  const period = sql`coalesce(n."periodId", (SELECT p.id FROM periods p JOIN sections s ON s.id = n."sectionId"
    JOIN courses c ON c.id = s.course_id WHERE p.school_id = c.school_id AND n."dueOn" BETWEEN p.starts_on AND p.ends_on
    ORDER BY p.ends_on - p.starts_on LIMIT 1), (SELECT s.period_id FROM sections s WHERE s.id = n."sectionId"))`;
  const created = of('lineItems', 'new');
  const given = await ids.give(
    'assignment',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  await inPieces(
    created.map((row, at) => rowOf(row, given[at])),
    (piece) =>
      queries.execute(sql`
    INSERT INTO assignments (id, section_id, period_id, category_id, name, possible, due_on, is_extra, is_counted, is_published, given_to)
    SELECT n.id, n."sectionId", ${period}, n."categoryId", n.name, n.possible, n."dueOn", coalesce(n."isExtra", false),
           coalesce(n."isCounted", true), coalesce(n."isPublished", true), nullif(n."givenTo", 'null'::jsonb)
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}`),
  );
  await inPieces(
    of('lineItems', 'changed').map((row) => rowOf(row, ids.of('assignment', row['sourcedId']))),
    (piece) =>
      queries.execute(sql`
    UPDATE assignments a SET period_id = ${period}, category_id = n."categoryId", name = n.name, possible = n.possible,
      due_on = n."dueOn", is_extra = coalesce(n."isExtra", a.is_extra), is_counted = coalesce(n."isCounted", a.is_counted),
      is_published = coalesce(n."isPublished", a.is_published), version = a.version + 1
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE a.id = n.id`),
  );
  const gone = of('lineItems', 'delete').map((row) => ({ id: ids.of('assignment', row['sourcedId']) }));
  // One with scores stays and no longer counts: nothing that somebody scored is lost.
  await inPieces(gone, (piece) =>
    queries.execute(sql`
    UPDATE assignments a SET is_counted = false, version = a.version + 1
    FROM jsonb_to_recordset(${piece}::jsonb) AS n (id int) WHERE a.id = n.id`),
  );
}

async function writeResults({ queries, ids, of }: Writing): Promise<void> {
  const rowOf = (row: ExchangeRow) => ({
    assignmentId: ids.of('assignment', row['lineItemSourcedId']),
    studentId: ids.people.get(row['studentSourcedId'] ?? ''),
    points: row['score'] || null,
    flag: flagOf(row),
  });
  const taken = of('results', 'delete').map((row) => ({ ...rowOf(row), points: null, flag: null }));
  await inPieces([...of('results', 'new', 'changed').map(rowOf), ...taken], (piece) =>
    queries.execute(sql`
    INSERT INTO scores (assignment_id, enrollment_id, points, flag)
    SELECT n."assignmentId", e.id, n.points, n.flag
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ("assignmentId" int, "studentId" int, points numeric, flag text)
    JOIN assignments a ON a.id = n."assignmentId" JOIN enrollments e ON e.section_id = a.section_id AND e.student_id = n."studentId"
    ON CONFLICT (assignment_id, enrollment_id) DO UPDATE SET points = excluded.points, flag = excluded.flag, version = scores.version + 1`),
  );
}

async function inPieces(rows: readonly object[], write: (piece: string) => Promise<unknown>): Promise<void> {
  for (let from = 0; from < rows.length; from += rowsAtOnce)
    await write(JSON.stringify(rows.slice(from, from + rowsAtOnce)));
}
