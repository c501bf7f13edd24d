import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AuditReply } from '#contract/audit';
import type { BookReply, CalculationReply } from '#contract/calculation';
import type { CalendarReply } from '#contract/calendar';
import type { CoursesReply } from '#contract/courses';
import type { SaveSheetReply, SheetListReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import type { ReportItemsReply } from '#contract/report-items';
import type { CodesReply } from '#contract/codes';
import type { ScalesReply } from '#contract/scales';
import type { FileImportReply } from '#contract/files';
import { changeOf, openPeriod, sheetNamed } from '../test/sheets.js';
import { checkLog } from '../test/check-log.js';
import { auditNow } from '../test/audit-now.js';
import { startTestServer, type TestClient, type TestServer } from '../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let teacher: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  [registrar, teacher] = [await server.as('morwenna'), await server.as('harun')];
});
afterAll(() => server.stop());

/** Lets every insert into a table fail while `work` runs, as a full disk would. */
async function whileFailing<T>(table: string, work: () => Promise<T>): Promise<T> {
  const { pool } = server.database;
  await pool.query(
    `CREATE FUNCTION fail() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE EXCEPTION 'no space left'; END $$`,
  );
  await pool.query(`CREATE TRIGGER failing BEFORE INSERT ON ${table} EXECUTE FUNCTION fail()`);
  try {
    return await work();
  } finally {
    await pool.query(`DROP TRIGGER failing ON ${table}`);
    await pool.query('DROP FUNCTION fail()');
  }
}

const counts = async () => {
  const { rows } = await server.database.pool.query<Record<string, string>>(`
    SELECT (SELECT count(*) FROM grades) AS grades, (SELECT sum(version) FROM grades) AS versions, (SELECT count(*) FROM receipts) AS receipts,
           (SELECT count(*) FROM computed_grades) AS computed, (SELECT count(*) FROM file_row_outcomes) AS outcomes,
           (SELECT count(*) FROM audit_findings) AS findings, (SELECT count(*) FROM change_log) AS log`);
  return rows[0]!;
};

describe('when the database fails half way through', () => {
  it.each(['receipts', 'change_log'])('at %s, a save leaves nothing behind', async (table) => {
    const { path, sheet } = await sheetNamed(registrar, 'Shore Life 2');
    const changes = sheet.rows
      .filter(({ withdrawnOn }) => withdrawnOn === null)
      .map((row) => changeOf(row, { percent: '70', label: 'C-' }));
    const before = await counts();
    const { status, body } = await whileFailing(table, () => registrar.send<Problem>('PUT', path, { changes }));
    expect([status, body.code]).toEqual([500, 'unexpected']);
    expect(body.detail).toMatch(/^Nothing was saved\. The server noted it as [0-9a-f]{8}\.$/);
    expect(await counts()).toEqual(before);
    expect((await registrar.send('PUT', path, { changes: changes.slice(0, 1) })).status).toBe(200);
  });

  it('accepting a file writes none of its rows', async () => {
    const form = new FormData();
    form.append(
      'file',
      new Blob([new Uint8Array(readFileSync(new URL('../../demo/files/tidal-ecology-1.csv', import.meta.url)))]),
      'tidal.csv',
    );
    const { body: file } = await registrar.send<FileImportReply>('POST', `/file-imports?period=${openPeriod}`, form);
    const before = await counts();
    const accept = () =>
      registrar.send<FileImportReply>('POST', `/file-imports/${file.id}/accept`, {
        planNumber: file.plan!.number,
      });
    expect((await whileFailing('computed_grades', accept)).status).toBe(500);
    expect(await counts()).toEqual(before);
    expect((await accept()).body.status).toBe('accepted');
  });

  it('an audit keeps no run without its findings', async () => {
    const before = await counts();
    const run = () =>
      auditNow(registrar, openPeriod).then(
        ({ body }) => body.run!.findings.length > 0,
        (error: Error) => error.message,
      );
    expect(await whileFailing('audit_findings', run)).toMatch(/^the audit is failed: ./);
    expect(await counts()).toEqual(before);
    expect((await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body.run).toBeNull();
    expect(await run()).toBe(true);
  });
});

describe('when the database fails half way through the set-up', () => {
  const setUp = async () => {
    const [items, courses, calendars, scales, codes] = await Promise.all(
      [
        '/schools/1/report-items?period=4',
        '/schools/1/courses?period=4',
        '/calendars',
        '/scales?period=6',
        '/codes',
      ].map(async (path) => (await registrar.get<never>(path)).body),
    );
    return { items, courses, calendars, scales, codes } as unknown as {
      items: ReportItemsReply;
      courses: CoursesReply;
      calendars: CalendarReply[];
      scales: ScalesReply;
      codes: CodesReply;
    };
  };
  type SetUp = Awaited<ReturnType<typeof setUp>>;

  it.each<[string, string, (now: SetUp) => [method: 'PUT' | 'POST', path: string, body: object]]>([
    [
      'rules and exceptions',
      'report_item_exceptions',
      ({ items }) => [
        'PUT',
        '/schools/1/report-items/assignment?period=4',
        { revision: items.revision, rules: items.rules.slice(1), exceptions: items.exceptions },
      ],
    ],
    [
      'a new item with its windows',
      'posting_windows',
      ({ items: { items } }) => {
        const {
          id: _id,
          revision: _version,
          scaleName: _name,
          labels: _labels,
          descriptors: _words,
          postedGrades: _posted,
          ...body
        } = items[0]!;
        return [
          'POST',
          '/schools/1/report-items?period=4',
          { ...body, name: 'Effort', heading: 'Effort', windowsLike: 1 },
        ];
      },
    ],
    [
      'a calendar',
      'posting_windows',
      ({ calendars: [calendar] }) => {
        const { revision, weekdays, periods, windows } = calendar!;
        const bare = periods.map(({ id, parentId, kind, name, startsOn, endsOn }) => ({
          id,
          parentId,
          kind,
          startsOn,
          endsOn,
          name: `${name} anew`,
        }));
        const own = windows.map(({ id: _id, ...window }) => window);
        return ['PUT', '/schools/1/calendar', { revision, weekdays, periods: bare, breaks: [], windows: own }];
      },
    ],
    [
      'courses',
      'change_log',
      ({ courses: { courses } }) => {
        const changes = courses.map(({ id, revision, cells }) => ({ id, revision, cells: { ...cells, kind: 'anew' } }));
        return ['PUT', '/schools/1/courses?period=4', { changes, removed: [] }];
      },
    ],
    [
      'a version of a scale that others follow',
      'change_log',
      ({ scales: { scales } }) => {
        const { id, latestVersion, bands } = scales[0]!;
        const moved = bands.map((band) => (band.label === 'A' ? { ...band, lowest: '94' } : band));
        return ['PUT', `/scales/${id}`, { basedOnVersion: latestVersion, fromPeriodId: 6, bands: moved }];
      },
    ],
    [
      'the codes',
      'special_codes',
      ({ codes: { revision, codes } }) => {
        const bare = codes.map(({ grades: _grades, ...code }) => code);
        return ['PUT', '/codes', { revision, codes: bare.toReversed() }];
      },
    ],
  ])('saving %s leaves everything as it was', async (_what, table, request) => {
    const before = await setUp();
    const [method, path, body] = request(before);
    const failed = await whileFailing(table, () => registrar.send<Problem>(method, path, body));
    expect([failed.status, failed.body.code]).toEqual([500, 'unexpected']);
    expect(await setUp()).toEqual(before);
  });
});

describe('when the database fails half way through a grade book or its policy', () => {
  const bookPath = '/grade-books/13/4';
  const state = async () => {
    const [book, calculation] = await Promise.all([
      teacher.get<BookReply>(bookPath),
      registrar.get<CalculationReply>(`/calculation?period=${openPeriod}`),
    ]);
    return { book: book.body, calculation: calculation.body };
  };
  type State = Awaited<ReturnType<typeof state>>;

  it.each<[string, string, (now: State) => [who: TestClient, method: 'PUT' | 'POST', path: string, body: object]]>([
    [
      'scores',
      'change_log',
      ({ book: { scores } }) => {
        const changes = scores.slice(0, 9).map((score) => ({ ...score, points: '1', flag: null }));
        return [teacher, 'PUT', `${bookPath}/scores`, { changes }];
      },
    ],
    [
      'an assignment',
      'change_log',
      ({ book: { assignments } }) => {
        const { id: _id, version: _version, ...body } = assignments[0]!;
        return [teacher, 'POST', `${bookPath}/assignments`, { ...body, alsoIn: [] }];
      },
    ],
    [
      'a policy and what becomes stale by it',
      'stale_books',
      ({ calculation: { policies } }) => {
        const { policy, revision } = policies[0]!;
        const place = { department: null, sectionId: null, periodId: null, revision };
        return [
          registrar,
          'PUT',
          `/schools/1/policies?period=${openPeriod}`,
          { ...place, policy: { ...policy, cap: '90' } },
        ];
      },
    ],
    [
      'a list of categories',
      'change_log',
      ({ calculation: { categories, revision } }) => {
        const bare = categories.map(({ id, name, tint, isActive }) => ({ id, name: `${name} anew`, tint, isActive }));
        return [registrar, 'PUT', '/schools/1/categories', { revision, categories: bare.toReversed() }];
      },
    ],
  ])('saving %s leaves everything as it was', async (_what, table, request) => {
    const before = await state();
    const [who, method, path, body] = request(before);
    const failed = await whileFailing(table, () => who.send<Problem>(method, path, body));
    expect([failed.status, failed.body.code]).toEqual([500, 'unexpected']);
    expect(await state()).toEqual(before);
  });
});

describe('many people at once', () => {
  it('save their own sheets; every save is kept and the log stays one chain', async () => {
    const { body: lists } = await registrar.get<SheetListReply[]>(`/grade-sheets?period=${openPeriod}`);
    const sheets = await Promise.all(
      lists[0]!.sheets.slice(20, 32).map(({ section }) => sheetNamed(registrar, section)),
    );
    const before = Number((await counts())['log']);
    const answers = await Promise.all(
      sheets.map(({ path, sheet }) => {
        const row = sheet.rows.find(({ withdrawnOn }) => withdrawnOn === null)!;
        return registrar.send<SaveSheetReply>('PUT', path, {
          changes: [changeOf(row, { comment: 'Saved at the same moment.' })],
        });
      }),
    );
    expect(answers.map(({ status }) => status)).toEqual(sheets.map(() => 200));
    const check = await checkLog(registrar);
    expect(check).toMatchObject({ checked: before + sheets.length, entries: before + sheets.length, state: 'whole' });
  });
});
