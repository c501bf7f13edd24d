import { strToU8, unzipSync, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BookReply } from '#contract/calculation';
import type { ExchangeImportReply, ExchangeRowsReply } from '#contract/exchange';
import type { Problem } from '#contract/problems';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';
import { writtenZip } from '../../test/written-zip.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

/*
 * A zip written by hand from the field lists of OneRoster 1.1 (1EdTech; from memory): one small school beside the demo's.
 */
const manifest = `propertyName,value
manifest.version,1.0
oneroster.version,1.1
file.academicSessions,bulk
file.categories,bulk
file.classes,bulk
file.classResources,absent
file.courses,bulk
file.courseResources,absent
file.demographics,bulk
file.enrollments,bulk
file.lineItems,bulk
file.orgs,bulk
file.resources,absent
file.results,bulk
file.users,bulk
source.systemName,Hand
source.systemCode,hand
`;
const byHand: Readonly<Record<string, string>> = {
  'manifest.csv': manifest,
  'orgs.csv': `sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId
o-d,,,Skerry District,district,,
o-s,,,"Skerry School, North",school,SKN,o-d
`,
  'academicSessions.csv': `sourcedId,status,dateLastModified,title,type,startDate,endDate,parentSourcedId,schoolYear
y,,,2025-26,schoolYear,2025-09-01,2026-06-30,,2026
g1,,,First,gradingPeriod,2025-09-01,2026-01-31,y,2026
g2,,,Second,gradingPeriod,2026-02-01,2026-06-30,y,2026
`,
  'users.csv': `sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password
u-1,,,true,o-s,student,ava,,Ava,Skerry,,,ava@skerry.example,,,u-3,09,
u-2,,,true,"o-s,o-d",teacher,ben,,Ben,Holm,,,ben@skerry.example,,,,,
u-3,,,true,o-s,guardian,cas,,Cas,Skerry,,,,,,u-1,,
`,
  'demographics.csv': `sourcedId,status,dateLastModified,birthDate,sex,americanIndianOrAlaskaNative,asian,blackOrAfricanAmerican,nativeHawaiianOrOtherPacificIslander,white,demographicRaceTwoOrMoreRaces,hispanicOrLatinoEthnicity,countryOfBirthCode,stateOfBirthAbbreviation,cityOfBirth,publicSchoolResidenceStatus
u-1,,,2011-03-04,,,,,,,,,,,,
`,
  'courses.csv': `sourcedId,status,dateLastModified,schoolYearSourcedId,title,courseCode,grades,orgSourcedId,subjects,subjectCodes
k,,,y,Rope Work,RW1,,o-s,Crafts,
`,
  'classes.csv': `sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds,subjects,subjectCodes,periods
c,,,Rope Work - 2,,k,RW1-2,scheduled,,o-s,"g1,g2",,,
`,
  'enrollments.csv': `sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate
e1,,,c,o-s,u-1,student,false,,
e2,,,c,o-s,u-2,teacher,true,,
`,
  'categories.csv': `sourcedId,status,dateLastModified,title
cat,,,Projects
`,
  'lineItems.csv': `sourcedId,status,dateLastModified,title,description,assignDate,dueDate,classSourcedId,categorySourcedId,gradingPeriodSourcedId,resultValueMin,resultValueMax
li,,,Monkey's fist,"A knot,
and its use",2025-09-20,2025-10-01,c,cat,g1,0,20
`,
  'results.csv': `sourcedId,status,dateLastModified,lineItemSourcedId,studentSourcedId,scoreStatus,score,scoreDate,comment
r,,,li,u-1,fully graded,17.5,2025-10-02,
`,
};

function zipOf(files: Readonly<Record<string, string>>): Buffer {
  return Buffer.from(zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)]))));
}
async function put<Body = ExchangeImportReply>(bytes: Buffer, name = 'by-hand.zip') {
  const form = new FormData();
  form.append('file', new File([bytes as never], name));
  return registrar.send<Body>('POST', '/exchange/imports', form);
}
const rowsOf = async ({ id }: { id: number }, query = '') =>
  (await registrar.get<ExchangeRowsReply>(`/exchange/imports/${id}/rows?${query}`)).body;
async function take({ id, previewId }: ExchangeImportReply) {
  const begun = await registrar.send<ExchangeImportReply>('POST', `/exchange/imports/${id}/accept`, { previewId });
  return begun.status === 200 ? writtenZip(registrar, id) : begun;
}
const exported = async (version: string) =>
  Buffer.from((await registrar.get<Uint8Array>(`/exchange/export?version=${version}`, 'bytes')).body);
const sumOf = (read: ExchangeImportReply, outcome: 'new' | 'changed' | 'same' | 'refuse' | 'left' | 'delete') =>
  read.files.reduce((sum, { counts }) => sum + counts[outcome], 0);
const one = async <Row extends object>(text: string) => (await server.database.pool.query<Row>(text)).rows[0];

describe('a zip by hand', () => {
  it('is shown row by row before anything is written: new, and what Wombat holds nothing of', async () => {
    const { status, body } = await put(zipOf(byHand));
    expect(status).toBe(201);
    expect(body).toMatchObject({ version: '1.1', status: 'read' });
    expect([sumOf(body, 'refuse'), sumOf(body, 'left'), sumOf(body, 'new')]).toEqual([0, 2, 14]);
    const { rows } = await rowsOf(body, 'outcome=left');
    expect(rows.map(({ file, line, faults }) => [file, line, faults[0]!.field])).toEqual([
      ['orgs', 2, 'type'],
      ['users', 4, 'role'],
    ]);
    expect(await one(`SELECT 1 FROM schools WHERE code = 'SKN'`)).toBeUndefined();
  });

  it('taken in is a school with its periods, people, section and grade book', async () => {
    const { body: read } = await put(zipOf(byHand));
    const taken = await take(read);
    expect([taken.status, taken.body.status]).toEqual([200, 'accepted']);
    const found = await one<{ section: number; period: number; number: number; teacher: string; year: string }>(`
      SELECT s.id AS section, g.id AS period, s.number, t.family_name AS teacher, y.name AS year
      FROM schools k JOIN courses c ON c.school_id = k.id JOIN sections s ON s.course_id = c.id JOIN people t ON t.id = s.teacher_id
      JOIN periods y ON y.id = s.period_id JOIN periods g ON g.school_id = k.id AND g.name = 'First' AND g.parent_id = y.id
      WHERE k.code = 'SKN'`);
    expect(found).toMatchObject({ number: 2, teacher: 'Holm', year: '2025-26' });
    const { body: book } = await registrar.get<BookReply>(`/grade-books/${found!.section}/${found!.period}`);
    expect(book).toMatchObject({
      section: 'Rope Work 2',
      assignments: [{ name: "Monkey's fist", possible: '20', dueOn: '2025-10-01' }],
      students: [{ student: 'Skerry, Ava' }],
      scores: [{ points: '17.5', flag: null }],
    });
    expect(await one(`SELECT birth_date::text AS day FROM people WHERE sourced_id = 'u-1'`)).toEqual({
      day: '2011-03-04',
    });
  });

  it('put in again is all the same, and changed names only what changed', async () => {
    expect(sumOf((await put(zipOf(byHand))).body, 'same')).toBe(14);
    const files = { ...byHand, 'users.csv': byHand['users.csv']!.replace('Ava,Skerry', 'Ava,Holm') };
    const { body } = await put(zipOf(files));
    expect((await rowsOf(body, 'outcome=changed')).rows.map(({ changes }) => changes)).toEqual([['familyName']]);
    await take(body);
    expect(await one(`SELECT family_name AS name FROM people WHERE sourced_id = 'u-1'`)).toEqual({ name: 'Holm' });
  });

  it('loses nothing by columns that it does not have', async () => {
    await server.database.pool.query(`
      UPDATE enrollments SET withdrawn_on = '2026-01-05' WHERE student_id = (SELECT id FROM people WHERE sourced_id = 'u-1');
      UPDATE scores SET flag = 'late' WHERE enrollment_id = (SELECT id FROM enrollments WHERE student_id = (SELECT id FROM people WHERE sourced_id = 'u-1'))`);
    const files = {
      'manifest.csv':
        'propertyName,value\noneroster.version,1.1\nfile.enrollments,bulk\nfile.lineItems,bulk\nfile.results,bulk\nfile.academicSessions,bulk\n',
      'academicSessions.csv':
        'sourcedId,status,title,type,startDate,endDate,schoolYear\ng1,,First half,gradingPeriod,2025-09-01,2026-01-31,2026\n',
      'enrollments.csv':
        'sourcedId,status,classSourcedId,schoolSourcedId,userSourcedId,role,beginDate\ne1,,c,o-s,u-1,student,2025-09-08\n',
      'lineItems.csv':
        "sourcedId,status,title,dueDate,classSourcedId,categorySourcedId\nli,,Monkey's fist again,2025-10-01,c,cat\n",
      'results.csv':
        'sourcedId,status,lineItemSourcedId,studentSourcedId,scoreStatus,score\nr,,li,u-1,fully graded,18\n',
    };
    const { body } = await put(zipOf(files));
    expect([sumOf(body, 'changed'), sumOf(body, 'refuse')]).toEqual([4, 0]);
    await take(body);
    const found = await one(`
      SELECT a.name, trim_scale(a.possible)::text AS possible, trim_scale(x.points)::text AS points, x.flag,
             e.entered_on::text AS entered, e.withdrawn_on::text AS left, y.name AS year
      FROM people p JOIN enrollments e ON e.student_id = p.id JOIN scores x ON x.enrollment_id = e.id
      JOIN assignments a ON a.id = x.assignment_id JOIN periods g ON g.id = a.period_id JOIN periods y ON y.id = g.parent_id
      WHERE p.sourced_id = 'u-1'`);
    expect(found).toEqual({
      name: "Monkey's fist again",
      possible: '20',
      points: '18',
      flag: 'late',
      entered: '2025-09-08',
      left: '2026-01-05',
      year: '2025-26',
    });
    await server.database.pool.query(`
      UPDATE enrollments SET withdrawn_on = NULL WHERE student_id = (SELECT id FROM people WHERE sourced_id = 'u-1')`);
  });

  it('as a delta ends an enrollment and takes a score away', async () => {
    const delta = `propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\nfile.enrollments,delta\nfile.results,delta\n`;
    const head = (file: string) => byHand[file]!.split('\n')[0]!;
    const files = {
      'manifest.csv': delta,
      'enrollments.csv': `${head('enrollments.csv')}\ne1,tobedeleted,2026-01-10T00:00:00Z,c,o-s,u-1,student,,,2026-01-09\n`,
      'results.csv': `${head('results.csv')}\nr,tobedeleted,2026-01-10T00:00:00Z,li,u-1,fully graded,,,\n`,
    };
    const { body } = await put(zipOf(files));
    expect(sumOf(body, 'delete')).toBe(2);
    await take(body);
    const after = await one(`
      SELECT e.withdrawn_on::text AS day, x.points FROM enrollments e JOIN people p ON p.id = e.student_id
      JOIN scores x ON x.enrollment_id = e.id WHERE p.sourced_id = 'u-1'`);
    expect(after).toEqual({ day: '2026-01-09', points: null });
  });

  it('as a delta gives a class a co-teacher, lets the two change places, and takes one away', async () => {
    const zip = (...lines: string[]) =>
      zipOf({
        'manifest.csv': `propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\nfile.users,delta\nfile.enrollments,delta\n`,
        'users.csv': `${byHand['users.csv']!.split('\n')[0]!}\nu-9,active,2026-01-10T00:00:00Z,true,o-s,teacher,dov,,Dov,Rook,,,,,,,,\n`,
        'enrollments.csv': [byHand['enrollments.csv']!.split('\n')[0]!, ...lines, ''].join('\n'),
      });
    const row = (id: string, person: string, primary: string, status = 'active', until = '') =>
      `${id},${status},2026-01-10T00:00:00Z,c,o-s,${person},teacher,${primary},,${until}`;
    const teaching = async () =>
      one<{ teacher: string; others: string[] }>(`
        SELECT t.given_name AS teacher, (SELECT coalesce(array_agg(p.given_name), '{}') FROM section_co_teachers k
          JOIN people p ON p.id = k.person_id WHERE k.section_id = s.id) AS others
        FROM sections s JOIN people t ON t.id = s.teacher_id JOIN courses c ON c.id = s.course_id WHERE c.code = 'RW1'`);
    const bring = async (...lines: string[]) => take((await put(zip(...lines))).body);
    await bring(row('e9', 'u-9', 'false'));
    expect(await teaching()).toEqual({ teacher: 'Ben', others: ['Dov'] });
    await bring(row('e9', 'u-9', 'true'), row('e2', 'u-2', 'false'));
    expect(await teaching()).toEqual({ teacher: 'Dov', others: ['Ben'] });
    // Whoever has stopped before today teaches it no more.
    await bring(row('e2', 'u-2', 'false', 'active', '2026-01-20'));
    expect(await teaching()).toEqual({ teacher: 'Dov', others: [] });
    await bring(row('e2', 'u-2', 'true'), row('e9', 'u-9', 'false', 'tobedeleted'));
    expect(await teaching()).toEqual({ teacher: 'Ben', others: [] });
  });

  it('whose preview is not the one that was looked at is not taken in', async () => {
    const { body } = await put(
      zipOf({ ...byHand, 'courses.csv': byHand['courses.csv']!.replace('Rope Work', 'Ropes') }),
    );
    const refused = await take({ ...body, previewId: 'x'.repeat(64) });
    expect([refused.status, (refused.body as unknown as Problem).code]).toEqual([409, 'preview-changed']);
  });

  it('is not imported where anything changed here after it was looked at, and is once it was looked at again', async () => {
    await take((await put(zipOf(byHand))).body);
    const { body } = await put(
      zipOf({ ...byHand, 'courses.csv': byHand['courses.csv']!.replace('Rope Work', 'Ropes') }),
    );
    await server.database.pool.query(`UPDATE courses SET title = 'Rigging' WHERE title = 'Rope Work'`);
    await take(body);
    const { body: stopped } = await registrar.get<ExchangeImportReply>(`/exchange/imports/${body.id}`);
    expect([stopped.status, stopped.problem]).toEqual([
      'read',
      'Something changed here between the preview and the import.',
    ]);
    expect(stopped.previewId).not.toBe(body.previewId);
    expect((await one<{ count: string }>(`SELECT count(*) FROM courses WHERE title = 'Rigging'`))!.count).toBe('1');
    await take(stopped);
    expect((await one<{ count: string }>(`SELECT count(*) FROM courses WHERE title = 'Ropes'`))!.count).toBe('1');
    await take((await put(zipOf(byHand))).body);
  });
});

describe('a zip that is wrong', () => {
  const { 'manifest.csv': _manifest, ...withoutManifest } = byHand;
  it.each<[string, Buffer, string]>([
    ['has no manifest', zipOf(withoutManifest), 'manifest.csv is missing'],
    [
      'lacks a file that the manifest names',
      zipOf({ 'manifest.csv': manifest, 'orgs.csv': byHand['orgs.csv']! }),
      'academicSessions.csv is not there',
    ],
    ['has its files in a folder', zipOf({ 'zip/manifest.csv': manifest }), 'lies in a folder'],
    [
      'has a file with a strange column',
      zipOf({ ...byHand, 'categories.csv': 'sourcedId,status,dateLastModified,title,colour\n' }),
      'no column "colour"',
    ],
    [
      'has a row with too few cells',
      zipOf({ ...byHand, 'categories.csv': 'sourcedId,status,dateLastModified,title\ncat,,\n' }),
      'categories.csv, line 2: 3 cells where the head has 4',
    ],
    [
      'has a web page for a file',
      zipOf({ ...byHand, 'orgs.csv': '<!doctype html><p>Sign in' }),
      'orgs.csv is a web page',
    ],
  ])('because it %s is refused with the file and the line', async (_case, bytes, says) => {
    const { status, body } = await put<Problem>(bytes);
    expect([status, body.code]).toEqual([422, 'exchange-unreadable']);
    expect(body.detail).toContain(says);
  });

  it('is no zip at all, or one that leads out of itself or says it unpacks to more than fits', async () => {
    expect((await put<Problem>(Buffer.from('sourcedId,title'))).body.detail).toContain('it is no zip');
    const { body } = await put<Problem>(zipOf({ ...byHand, '../../etc/passwd': 'x' }));
    expect([body.code, body.detail]).toEqual(['file-kind', expect.stringContaining('which leads out of it')]);
    const bomb = zipOf(byHand);
    const directory = bomb.indexOf(Buffer.from('504b0102', 'hex'));
    bomb.writeUInt32LE(0xfffffff0, directory + 24);
    expect((await put<Problem>(bomb)).body.code).toBe('file-unpacks-too-large');
  });

  it('with one refused row still takes the others, and nobody else may do it', async () => {
    const extra = 'x,,,c,o-s,nobody,student,,,\n';
    const { body } = await put(zipOf({ ...byHand, 'enrollments.csv': byHand['enrollments.csv']! + extra }));
    const { rows } = await rowsOf(body, 'outcome=refuse');
    expect(rows).toMatchObject([
      {
        file: 'enrollments',
        line: 4,
        faults: [{ field: 'userSourcedId', says: '"nobody" is in no row of users.csv, nor known here' }],
      },
    ]);
    expect((await (await server.as('harun')).get('/exchange/imports')).status).toBe(403);
  });
});

describe('a zip of OneRoster 1.2', () => {
  // 1EdTech OneRoster 1.2: the role stands in roles.csv, and scoreScales.csv holds scales (from memory).
  it('brings people by their roles and a scale with its bands', async () => {
    const files = {
      'manifest.csv':
        'propertyName,value\nmanifest.version,1.0\noneroster.version,1.2\nfile.users,bulk\nfile.roles,bulk\nfile.scoreScales,bulk\n',
      'users.csv': `sourcedId,status,dateLastModified,enabledUser,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password,userMasterIdentifier,resourceSourcedIds,preferredGivenName,preferredMiddleName,preferredFamilyName,primaryOrgSourcedId,pronouns
n-1,,,true,dov,,Dov,Stack,,,dov@stack.example,,,,10,,,,,,,PEU,
n-2,,,true,eve,,Eve,Stack,,,,,,,,,,,,,,PEU,
`,
      'roles.csv': `sourcedId,status,dateLastModified,userSourcedId,roleType,role,beginDate,endDate,orgSourcedId,userProfileSourcedId
x-1,,,n-1,primary,student,,,PEU,
x-2,,,n-2,primary,parent,,,PEU,
`,
      'scoreScales.csv': `sourcedId,status,dateLastModified,title,type,orgSourcedId,courseSourcedId,classSourcedId,scoreScaleValue
z,,,Skerry letters,,PEU,,,"{P:60-100},{N:0-59}"
`,
    };
    const { body } = await put(zipOf(files));
    expect([sumOf(body, 'new'), sumOf(body, 'left'), sumOf(body, 'refuse')]).toEqual([3, 2, 0]);
    await take(body);
    expect(await one(`SELECT kind, year_group AS year FROM people WHERE sourced_id = 'n-1'`)).toEqual({
      kind: 'student',
      year: '10',
    });
    const { rows: bands } = await server.database.pool.query(`
      SELECT b.label, trim_scale(b.lowest)::text AS lowest, b.passes FROM scales c JOIN scale_versions v ON v.scale_id = c.id
      JOIN bands b ON b.version_id = v.id WHERE c.name = 'Skerry letters' ORDER BY b.position`);
    expect(bands).toEqual([
      { label: 'P', lowest: '60', passes: true },
      { label: 'N', lowest: '0', passes: false },
    ]);
  });
});

describe('what is exported', () => {
  it('as OneRoster 1.1, put in again, is all the same', async () => {
    const zip = await exported('1.1');
    const names = Object.keys(unzipSync(zip));
    expect(names).toEqual(
      expect.arrayContaining(['manifest.csv', 'orgs.csv', 'users.csv', 'enrollments.csv', 'results.csv']),
    );
    expect(names).not.toContain('roles.csv');
    const { body } = await put(zip);
    for (const outcome of ['new', 'changed', 'delete', 'left', 'refuse'])
      expect((await rowsOf(body, `outcome=${outcome}`)).rows).toEqual([]);
    expect(sumOf(body, 'same')).toBeGreaterThan(100_000);
  });
});
