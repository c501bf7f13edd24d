import { strFromU8, unzipSync, zipSync } from 'fflate';
import iconv from 'iconv-lite';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ExchangeImportReply, ExchangeRowsReply } from '#contract/exchange';
import { startEmptyServer } from '../../test/test-server.js';
import { writtenZip } from '../../test/written-zip.js';

/*
 * A zip of OneRoster 1.2 as other systems write them (1EdTech; from memory): a course of the district and sessions that two
 * schools share, ids that are not the numbers on the cards, several roles, flags, a text score, a line item that says not what
 * it is out of. The older version has been tried with the zip by hand of `exchange.http.test.ts`.
 */
type Table = readonly [head: string, ...rows: string[]];
const files: Readonly<Record<string, Table>> = {
  orgs: [
    'sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId',
    'd,,,Skerry District,district,,',
    'h,,,Höhe School,school,HS,d',
    'm,,,Middle School,school,MS,d',
    'h-dep,,,Crafts,department,,h',
  ],
  academicSessions: [
    'sourcedId,status,dateLastModified,title,type,startDate,endDate,parentSourcedId,schoolYear',
    'y,,,2025-26,schoolYear,2025-09-01,2026-06-30,,2026',
    's1,,,Semester 1,semester,2025-09-01,2026-01-31,y,2026',
    'q1,,,Quarter 1,gradingPeriod,2025-09-01,2025-11-07,s1,2026',
    'q2,,,Quarter 2,gradingPeriod,2025-11-10,2026-01-31,s1,2026',
  ],
  users: [
    'sourcedId,status,dateLastModified,enabledUser,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password,userMasterIdentifier,resourceSourcedIds,preferredGivenName,preferredMiddleName,preferredFamilyName,primaryOrgSourcedId,pronouns',
    '6b1f-a,,,true,ava.s,,Ava,Skerry,M,1001,ava@skerry.example,,,x-9,09,secret,,,Av,,,h,she',
    '6b1f-b,,,false,bo.s,,Bo,Skerry,,1002,,,,,7,,,,,,,m,',
    '6b1f-t,,,true,holm,,Ben,Holm,,77,ben@skerry.example,,,,,,,,,,,,',
    '6b1f-c,,,true,cal,,Cal,Ness,,,,,,,,,,,,,,h,',
  ],
  roles: [
    'sourcedId,status,dateLastModified,userSourcedId,roleType,role,beginDate,endDate,orgSourcedId,userProfileSourcedId',
    'r1,,,6b1f-a,primary,student,,,h,',
    'r2,,,6b1f-b,primary,student,2025-09-01,,m,',
    'r3,,,6b1f-t,primary,teacher,,,h,',
    'r4,,,6b1f-t,secondary,aide,,,m,',
    'r5,,,6b1f-c,primary,counselor,,,h,',
  ],
  courses: [
    'sourcedId,status,dateLastModified,schoolYearSourcedId,title,courseCode,grades,orgSourcedId,subjects,subjectCodes',
    'k,,,y,Rope Work,RW1,"09,10",d,"Crafts,Sea",',
    'k-unused,,,y,Net Work,NW1,,d,Crafts,',
    'k-dep,,,y,Sail Work,SW1,,h-dep,Crafts,',
  ],
  classes: [
    'sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds,subjects,subjectCodes,periods',
    'c-h,,,Ropes with Holm,,k,RW-H,scheduled,Loft 2,h,"q1,q2",,,3',
    'c-m,,,Ropes for beginners,,k,RW-M,scheduled,,m,s1,,,',
  ],
  enrollments: [
    'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate',
    'e1,,,c-h,h,6b1f-a,student,false,2025-09-02,',
    'e2,,,c-m,m,6b1f-b,student,false,,',
    'e3,,,c-h,h,6b1f-t,teacher,true,2025-08-20,',
    'e4,,,c-m,m,6b1f-t,teacher,true,,',
  ],
  categories: ['sourcedId,status,dateLastModified,title,weight', 'cat,,,Projects,40'],
  lineItems: [
    'sourcedId,status,dateLastModified,title,description,assignDate,dueDate,classSourcedId,categorySourcedId,gradingPeriodSourcedId,resultValueMin,resultValueMax,academicSessionSourcedId,schoolSourcedId',
    'l|1,,,Splice,An eye,2025-11-12,2025-12-01T23:59:00Z,c-h,cat,q2,0,20,,',
    'l2,,,Whipping,,2025-11-12,2025-12-01,c-m,cat,q2,0,10,,',
    'l3,,,Bend,,2025-11-12,2025-12-02,c-m,cat,q2,0,,,',
    'l4,,,Hitch,,2025-11-12,2025-12-03,c-m,cat,q2,0,10,,',
  ],
  results: [
    'sourcedId,status,dateLastModified,lineItemSourcedId,studentSourcedId,scoreStatus,score,scoreDate,comment,textScore,classSourcedId,inProgress,incomplete,late,missing',
    'r1-0,,,l|1,6b1f-a,fully graded,17.5,2025-12-04,well done,B+,,,,true,',
    'r2-0,,,l2,6b1f-b,fully graded,,2025-12-04,,A,,,,,',
    'r3-0,,,l3,6b1f-b,fully graded,7,2025-12-04,,,,,,,',
    'r4-0,,,l4,6b1f-b,fully graded,70.3333333,2025-12-04,,,,,,,',
  ],
};

const utf8 = (text: string) => new TextEncoder().encode(text);
function zipOf(tables: Readonly<Record<string, Table>>, mode = 'bulk', encode = utf8): Buffer {
  const manifest = ['propertyName,value', 'manifest.version,1.0', 'oneroster.version,1.2'];
  const contents = Object.entries(tables).map(([name, rows]) => [`${name}.csv`, encode(`${rows.join('\r\n')}\r\n`)]);
  const modes = Object.keys(tables).map((name) => `file.${name},${mode}`);
  return Buffer.from(
    zipSync({ 'manifest.csv': utf8([...manifest, ...modes].join('\r\n')), ...Object.fromEntries(contents) }),
  );
}

let empty: Awaited<ReturnType<typeof startEmptyServer>>;
let read: ExchangeImportReply;
beforeAll(async () => {
  empty = await startEmptyServer();
  read = await put(zipOf(files));
});
afterAll(() => empty.stop());

async function put(zip: Buffer): Promise<ExchangeImportReply> {
  const form = new FormData();
  form.append('file', new File([zip as never], 'others.zip'));
  return (await empty.registrar.send<ExchangeImportReply>('POST', '/exchange/imports', form)).body;
}
async function accept({ id, previewId }: ExchangeImportReply): Promise<void> {
  await empty.registrar.send('POST', `/exchange/imports/${id}/accept`, { previewId });
  expect((await writtenZip(empty.registrar, id)).body).toMatchObject({ status: 'accepted', problem: null });
}
const rowsOf = async ({ id }: ExchangeImportReply, outcome: string) =>
  (await empty.registrar.get<ExchangeRowsReply>(`/exchange/imports/${id}/rows?outcome=${outcome}`)).body.rows;
const reasons = async (zip: ExchangeImportReply, outcome: string) =>
  (await rowsOf(zip, outcome)).map(({ file, row, faults }) => `${file} ${row['sourcedId']}: ${faults[0]!.says}`);
const all = async (text: string) => (await empty.database.pool.query(text)).rows;
async function exported(version = '1.2'): Promise<Record<string, Record<string, string>[]>> {
  const { body } = await empty.registrar.get<Uint8Array>(`/exchange/export?version=${version}`, 'bytes');
  return Object.fromEntries(
    Object.entries(unzipSync(body)).map(([name, bytes]) => [
      name.replace('.csv', ''),
      Papa.parse<Record<string, string>>(strFromU8(bytes).trim(), { header: true }).data,
    ]),
  );
}

describe('a zip of another system', () => {
  it('has refused, with the reason, what cannot be held exactly, and skipped what Wombat does not hold', async () => {
    expect(await reasons(read, 'refuse')).toEqual([
      'lineItems l3: it is blank, and a score has to be out of something',
      'results r3-0: "l3" is in no row of lineItems.csv, nor known here',
      'results r4-0: "70.3333333" has more than two decimals; points have at most two',
    ]);
    expect(await reasons(read, 'left')).toEqual([
      'orgs h-dep: Wombat holds one district and its schools; this department is skipped',
      'courses k-unused: no class of any school takes this course of the district; it comes with the first one',
      'results r2-0: Wombat scores in points; a text score alone is skipped',
    ]);
  });

  it('brings a shared course and shared sessions to each school that uses them, and nothing to the other', async () => {
    await accept(read);
    expect(
      await all(`
      SELECT k.code, c.code AS course, p.name AS term, t.family_name AS teacher, (SELECT count(*)::int FROM enrollments e WHERE e.section_id = s.id) AS students
      FROM sections s JOIN courses c ON c.id = s.course_id JOIN schools k ON k.id = c.school_id JOIN periods p ON p.id = s.period_id
      JOIN people t ON t.id = s.teacher_id WHERE p.school_id = k.id ORDER BY k.code`),
    ).toEqual([
      { code: 'HS', course: 'RW1', term: 'Semester 1', teacher: 'Holm', students: 1 },
      { code: 'MS', course: 'RW1', term: 'Semester 1', teacher: 'Holm', students: 1 },
    ]);
    expect(
      await all(`SELECT k.code, string_agg(p.name, ', ' ORDER BY p.starts_on, p.ends_on DESC) AS periods
        FROM schools k JOIN periods p ON p.school_id = k.id GROUP BY 1 ORDER BY 1`),
    ).toEqual([
      { code: 'HS', periods: '2025-26, Semester 1, Quarter 1, Quarter 2' },
      { code: 'MS', periods: '2025-26, Semester 1, Quarter 1, Quarter 2' },
    ]);
    expect(
      await all(`SELECT a.name, p.name AS period, k.code FROM assignments a JOIN periods p ON p.id = a.period_id
        JOIN schools k ON k.id = p.school_id ORDER BY 1`),
    ).toEqual([
      { name: 'Hitch', period: 'Quarter 2', code: 'MS' },
      { name: 'Splice', period: 'Quarter 2', code: 'HS' },
      { name: 'Whipping', period: 'Quarter 2', code: 'MS' },
    ]);
    expect(await all(`SELECT code FROM courses WHERE code = 'SW1'`)).toEqual([{ code: 'SW1' }]);
  });

  it('keeps a number beside the id, a flag, and no password', async () => {
    expect(await all(`SELECT number, year_group AS year FROM people WHERE sourced_id = '6b1f-a'`)).toEqual([
      { number: '1001', year: '9' },
    ]);
    expect(await all(`SELECT trim_scale(points)::text AS points, flag FROM scores`)).toEqual([
      { points: '17.5', flag: 'late' },
    ]);
    expect(JSON.stringify(await all('SELECT * FROM roster_fields'))).not.toContain('secret');
  });

  it('put in again changes nothing', async () => {
    const again = await put(zipOf(files));
    for (const outcome of ['new', 'changed', 'delete']) expect(await rowsOf(again, outcome)).toEqual([]);
  });

  it('goes out as it came: nothing is invented, and what leads nowhere is blank', async () => {
    const out = await exported();
    expect(
      out['users']!.map(({ sourcedId, username, enabledUser, identifier, grades, preferredGivenName }) =>
        [sourcedId, username, enabledUser, identifier, grades, preferredGivenName].join('|'),
      ),
    ).toEqual([
      '6b1f-a|ava.s|true|1001|09|Av',
      '6b1f-b|bo.s|false|1002|07|',
      '6b1f-t|holm|true|77||',
      '6b1f-c|cal|true|||',
    ]);
    expect(
      out['roles']!.map(({ sourcedId, role, roleType, orgSourcedId, beginDate }) =>
        [sourcedId, role, roleType, orgSourcedId, beginDate].join('|'),
      ),
    ).toEqual([
      'r1|student|primary|h|',
      'r2|student|primary|m|2025-09-01',
      'r3|teacher|primary|h|',
      'r4|aide|secondary|m|',
      'r5|counselor|primary|h|',
    ]);
    const [ropes] = out['courses']!;
    expect(ropes).toMatchObject({ sourcedId: 'k', orgSourcedId: 'd', subjects: 'Crafts,Sea', grades: '09,10' });
    expect(out['classes']![0]).toMatchObject({
      title: 'Ropes with Holm',
      classCode: 'RW-H',
      location: 'Loft 2',
      termSourcedIds: 'q1,q2',
    });
    expect(out['enrollments']!.find(({ sourcedId }) => sourcedId === 'e3')).toMatchObject({ beginDate: '2025-08-20' });
    expect(out['categories']).toMatchObject([{ weight: '40' }]);
    expect(out['lineItems']![0]).toMatchObject({
      description: 'An eye',
      assignDate: '2025-11-12',
      dueDate: '2025-12-01',
    });
    expect(out['results']).toMatchObject([
      { sourcedId: 'r1-0', scoreDate: '2025-12-04', comment: 'well done', textScore: 'B+', late: 'true' },
    ]);
    const older = await exported('1.1');
    expect(older['users']!.map(({ role }) => role)).toEqual(['student', 'student', 'teacher', 'administrator']);
  });

  it('has changed only what a changed row says, and a score that is new takes no old words along', async () => {
    const course = files['courses']![1]!.replace('Rope Work', 'Ropes');
    const result = files['results']![1]!.replace('17.5', '18').replace('well done', '').replace('B+', '');
    const changed = await put(
      zipOf({ courses: [files['courses']![0], course], results: [files['results']![0], result] }),
    );
    expect((await rowsOf(changed, 'changed')).map(({ file, changes }) => [file, ...changes])).toEqual([
      ['courses', 'title'],
      ['results', 'score'],
    ]);
    await accept(changed);
    expect(await all(`SELECT title, count(*)::int FROM courses WHERE code = 'RW1' GROUP BY 1`)).toEqual([
      { title: 'Ropes', count: 2 },
    ]);
    const [score] = (await exported())['results']!;
    expect(score).toMatchObject({ score: '18', late: 'true', sourcedId: 'r1-0' });
  });

  it('as a delta names a score that goes by its own id alone', async () => {
    const delta = await put(
      zipOf(
        {
          results: [
            'sourcedId,status,dateLastModified,lineItemSourcedId,studentSourcedId,scoreStatus,score,scoreDate,comment',
            'r1-0,tobedeleted,2026-01-10T00:00:00Z,,,,,,',
          ],
        },
        'delta',
      ),
    );
    expect(await rowsOf(delta, 'delete')).toHaveLength(1);
    await accept(delta);
    expect((await exported())['results']).toEqual([]);
  });

  it('that is not in UTF-8 is read as what it is, and that is said', async () => {
    const { encodings, id } = await put(
      zipOf({ orgs: files['orgs']! }, 'bulk', (text) => new Uint8Array(iconv.encode(text, 'windows-1252'))),
    );
    expect(encodings).toEqual([{ file: 'orgs.csv', encoding: 'Windows-1252' }]);
    const { body } = await empty.registrar.get<ExchangeRowsReply>(`/exchange/imports/${id}/rows?outcome=same`);
    expect(body.rows.map(({ row }) => row['name'])).toContain('Höhe School');
  });

  it.each<[string, Record<string, Table>, string]>([
    [
      'a ring of sessions',
      {
        academicSessions: [
          files['academicSessions']![0],
          'a,,,A,term,2025-09-01,2025-10-01,b,2026',
          'b,,,B,term,2025-09-01,2025-10-01,a,2026',
        ],
      },
      '',
    ],
    [
      'a session that ends before it begins',
      { academicSessions: [files['academicSessions']![0], 'a,,,A,term,2025-09-01,2025-08-01,,2026'] },
      'academicSessions a: 2025-08-01 is before 2025-09-01',
    ],
    [
      'points beyond all bounds',
      { lineItems: [files['lineItems']![0], 'l9,,,X,,2025-11-12,2025-12-01,c-h,cat,q2,0,100000,,'] },
      'lineItems l9: "100000" is not from 0 to 9999.99',
    ],
    [
      'a score below nothing',
      { results: [files['results']![0], 'r9,,,l|1,6b1f-a,fully graded,-1,2025-12-04,,,,,,,'] },
      'results r9: "-1" is not from 0 to 9999.99',
    ],
    [
      'two scores of one student',
      {
        results: [
          files['results']![0],
          'r8,,,l|1,6b1f-a,fully graded,1,2025-12-04,,,,,,,',
          'r9,,,l|1,6b1f-a,fully graded,2,2025-12-04,,,,,,,',
        ],
      },
      'results r8: the file has 2 rows of this student for this line item',
    ],
    [
      'two courses of one code at a school',
      { courses: [files['courses']![0], 'k8,,,y,Other,RW1,,h,Crafts,'] },
      'courses k8: "RW1" is the code of another one too',
    ],
    [
      'an assignment that moves',
      { lineItems: [files['lineItems']![0], files['lineItems']![1]!.replace('c-h', 'c-m')] },
      'lineItems l|1: an assignment stays in its class',
    ],
  ])('with %s is answered in words', async (_case, tables, reason) => {
    const zip = await put(zipOf(tables));
    expect((await reasons(zip, 'refuse'))[0] ?? '').toBe(reason);
    if (reason === '') await accept(zip);
  });
});
