import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest';
import type { ChangeReply } from '#contract/changes';
import { noMark } from '#core/posting';
import { bodyOfMark, type SaveSheetReply, type SheetListReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import type { TermLineReply } from '#contract/calendar';
import { changeOf, examGrade, quarterGrade, sheetNamed } from '../../test/sheets.js';
import { demoInstant, signIn, startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let teacher: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  teacher = await server.as('harun');
});
afterAll(() => server.stop());

const active = async (section: string) => {
  const { path, sheet } = await sheetNamed(registrar, section);
  return { path, sheet, rows: sheet.rows.filter(({ withdrawnOn }) => withdrawnOn === null) };
};

it('the term line tells how far each period is', async () => {
  const { body } = await registrar.get<TermLineReply>('/schools/1/term-line');
  const quarters = body.periods.filter(({ kind }) => kind === 'quarter');
  expect(body.suggestedPeriodId).toBe(4);
  expect(
    quarters.map(({ name, posting }) => [
      name,
      posting!.sections - posting!.sectionsComplete,
      posting!.window!.state,
      posting!.sealedAt !== null,
    ]),
  ).toEqual([
    ['Quarter 1', 0, 'closed', true],
    ['Quarter 2', 7, 'open', false],
    ['Quarter 3', 185, 'not yet open', false],
    ['Quarter 4', 185, 'not yet open', false],
  ]);
});

it('of several open windows the one that closes first is where everybody begins', async () => {
  server.clock.setTo(new Date('2026-01-23T16:40:00Z'));
  onTestFinished(() => server.clock.setTo(demoInstant));
  const late = await signIn(server.address, 'morwenna');
  const { body } = await late.get<TermLineReply>('/schools/1/term-line');
  const open = body.periods.filter(({ posting }) => posting?.window?.state === 'open').map(({ name }) => name);
  expect([open.toSorted(), body.periods.find(({ id }) => id === body.suggestedPeriodId)!.name]).toEqual([
    ['Quarter 2', 'Semester 1'],
    'Quarter 2',
  ]);
});

describe('saving a sheet', () => {
  it('keeps every change, tells what it was in a receipt, and leaves an entry in the log for each', async () => {
    const { path, rows } = await active('Tidal Ecology 1');
    const [first, second] = rows;
    const changes = [
      changeOf(first!, { percent: '86.4', label: 'B' }),
      changeOf(second!, { code: 'INC', lastDate: '2026-01-16', comment: 'Returns 9 February.' }),
    ];
    const { status, body, change } = await teacher.send<SaveSheetReply>('PUT', path, { changes });
    expect(status).toBe(200);
    expect(body.receipt!.changes).toEqual([
      {
        student: first!.student,
        before: null,
        after: { ...bodyOfMark(noMark), percent: '86.4', label: 'B' },
      },
      {
        student: second!.student,
        before: null,
        after: { ...bodyOfMark(noMark), code: 'INC', lastDate: '2026-01-16', comment: 'Returns 9 February.' },
      },
    ]);
    const { sheet } = await sheetNamed(registrar, 'Tidal Ecology 1');
    const saved = sheet.rows.find(({ enrollmentId }) => enrollmentId === first!.enrollmentId)!;
    expect(saved).toMatchObject({ version: 1, postedBy: 'Harun Nance', mark: { percent: '86.40', label: 'B' } });
    const { body: history } = await registrar.get<ChangeReply[]>(
      `/changes?thing=${encodeURIComponent(`grade 1/4/${first!.enrollmentId}`)}`,
    );
    expect(history).toMatchObject([
      { id: change, actor: 'Harun Nance', action: 'post Quarter grade of Tidal Ecology 1' },
    ]);
    expect(history[0]!.things.map(({ called }) => called)).toEqual([
      `the grade of ${first!.student} (Quarter grade, Quarter 2)`,
      `the grade of ${second!.student} (Quarter grade, Quarter 2)`,
    ]);
    expect(history[0]!.things[0]!.fields).toEqual(
      expect.arrayContaining([
        { field: 'percent', before: '', after: '86.4' },
        { field: 'label', before: '', after: 'B' },
      ]),
    );
  });

  it('is undone with a receipt of its own, by whom may open the sheet', async () => {
    const { path, rows } = await active('Shore Life 1');
    const [first, second] = rows;
    const before = (await sheetNamed(registrar, 'Shore Life 1')).sheet;
    const saved = await registrar.send<SaveSheetReply>('PUT', path, {
      changes: [changeOf(first!, { percent: '55', label: 'F' }), changeOf(second!, { percent: '56', label: 'F' })],
    });
    expect((await teacher.send('POST', `/changes/${saved.change}/undo`)).status).toBe(404);
    expect((await registrar.send('POST', `/changes/${saved.change}/undo`)).status).toBe(200);
    const after = (await sheetNamed(registrar, 'Shore Life 1')).sheet;
    expect(after.rows.map(({ mark }) => mark)).toEqual(before.rows.map(({ mark }) => mark));
    expect(after.receipts[0]!.savedBy).toBe('Morwenna Oake');
    const figures = (rows: typeof before.rows) =>
      [first!, second!].map(({ enrollmentId, student }) => [
        student,
        Number(rows.find((row) => row.enrollmentId === enrollmentId)!.mark.percent),
      ]);
    expect(after.receipts[0]!.changes.map(({ student, after: mark }) => [student, Number(mark.percent)])).toEqual(
      figures(before.rows).toSorted(([a], [b]) => (a! < b! ? -1 : 1)),
    );
  });

  it('over an older version is refused with the rows named; neither that row nor any other is written', async () => {
    const { path, rows } = await active('Shore Life 2');
    const [mine, other] = rows;
    await registrar.send('PUT', path, { changes: [changeOf(mine!, { percent: '70', label: 'C-' })] });
    const stale = {
      changes: [changeOf(mine!, { percent: '95', label: 'A' }), changeOf(other!, { percent: '95', label: 'A' })],
    };
    const { status, body } = await registrar.send<Problem>('PUT', path, stale);
    expect([status, body.code]).toEqual([409, 'grades-changed']);
    expect(body.errors).toEqual([
      { field: `enrollments.${mine!.enrollmentId}`, detail: `${mine!.student} was saved by Morwenna Oake meanwhile` },
    ]);
    const after = await active('Shore Life 2');
    expect(after.rows.find(({ enrollmentId }) => enrollmentId === mine!.enrollmentId)!.mark.percent).toBe('70.00');
    expect(after.rows.find(({ enrollmentId }) => enrollmentId === other!.enrollmentId)!.mark).toEqual(other!.mark);
    expect(after.sheet.receipts).toHaveLength(1);
  });

  it('of two people at the same moment, one is told and nothing is lost', async () => {
    const { path, rows } = await active('Shore Life 3');
    const change = (percent: string) =>
      registrar.send('PUT', path, { changes: [changeOf(rows[0]!, { percent, label: 'A' })] });
    const answers = await Promise.all([change('94'), change('95'), change('96')]);
    expect(answers.map(({ status }) => status).toSorted()).toEqual([200, 409, 409]);
    expect((await active('Shore Life 3')).rows[0]!.version).toBe(rows[0]!.version + 1);
  });

  it.each([
    [
      'a percentage of "abc"',
      { percent: 'abc' },
      'percent',
      'a percentage from 0 to 200 with at most two decimals, such as 86.4',
    ],
    [
      'a negative percent',
      { percent: '-1' },
      'percent',
      'a percentage from 0 to 200 with at most two decimals, such as 86.4',
    ],
    ['1e9', { percent: '1e9' }, 'percent', 'a percentage from 0 to 200 with at most two decimals, such as 86.4'],
    ['201', { percent: '201' }, 'percent', 'a percentage from 0 to 200, such as 86.4'],
    ['a day that is none', { lastDate: '2026-02-30' }, 'lastDate', 'a day that exists, such as 2026-01-16'],
    ['a label and a code', { label: 'B', code: 'INC' }, 'code', 'either a label or a code, not both'],
    ['a long comment', { comment: 'x'.repeat(101) }, 'comment', 'at most 100 characters'],
  ])('with %s names the field, and writes nothing', async (_what, change, field, detail) => {
    const { path, rows, sheet } = await active('Shore Life 4');
    const { status, body } = await registrar.send<Problem>('PUT', path, {
      changes: [changeOf(rows[0]!, { percent: '90', label: 'A-' }), changeOf(rows[1]!, change)],
    });
    expect([status, body.errors]).toEqual([422, [{ field: `changes.1.${field}`, detail }]]);
    expect((await active('Shore Life 4')).sheet).toEqual(sheet);
  });

  it('refuses what is above the highest percentage of the item, but keeps what stood there before', async () => {
    const exam = async () => {
      const { path, sheet } = await sheetNamed(registrar, 'Shore Life 4', examGrade);
      return { path, sheet, rows: sheet.rows.filter(({ withdrawnOn }) => withdrawnOn === null) };
    };
    const { path, sheet, rows } = await exam();
    expect(sheet.highestPercent).toBe('100');
    const typed = (percent: string, at = 0) =>
      registrar.send<Problem>('PUT', path, { changes: [changeOf(rows[at]!, { percent, label: 'A+' })] });
    expect((await typed('105')).body.errors).toEqual([
      { field: 'changes.0.percent', detail: 'a percentage from 0 to 100, such as 86.4' },
    ]);
    expect((await exam()).sheet).toEqual(sheet);
    const raised = await server.database.pool.query(
      'UPDATE grades SET percent = 103, version = version + 1 WHERE enrollment_id = $1 AND item_id = $2 RETURNING id',
      [rows[1]!.enrollmentId, examGrade],
    );
    expect(raised.rowCount).toBe(1);
    const [, standing] = (await exam()).rows;
    const commented = { changes: [changeOf(standing!, { comment: 'Extra work handed in.' })] };
    expect((await registrar.send('PUT', path, commented)).status).toBe(200);
  });

  it('keeps a comment and hours from before the item took fewer, but takes no others like them', async () => {
    const { path, rows } = await active('Shore Life 4');
    const { enrollmentId } = rows[2]!;
    await registrar.send('PUT', path, { changes: [changeOf(rows[2]!, { percent: '88', label: 'B+' })] });
    const long = 'Brought three more pages. '.repeat(5);
    await server.database.pool.query(
      'UPDATE grades SET comment = $1, hours = 12.50, version = version + 1 WHERE enrollment_id = $2',
      [long, enrollmentId],
    );
    const standing = (await active('Shore Life 4')).rows.find((row) => row.enrollmentId === enrollmentId)!;
    const saved = (change: object) => registrar.send<Problem>('PUT', path, { changes: [changeOf(standing, change)] });
    const refused = await saved({ comment: `${long}!`, hours: '13' });
    expect(refused.body.errors.map(({ field }) => field)).toEqual(['changes.0.comment', 'changes.0.hours']);
    expect((await saved({ percent: '90', hours: '12.5' })).status).toBe(200);
  });

  it('refuses NUL in a comment without writing anything', async () => {
    const { path, rows, sheet } = await active('Shore Life 4');
    const { status, body } = await registrar.send<Problem>('PUT', path, {
      changes: [changeOf(rows[0]!, { comment: 'a\u0000b' })],
    });
    expect([status, body.errors[0]?.field]).toEqual([422, 'changes.0.comment']);
    expect((await active('Shore Life 4')).sheet).toEqual(sheet);
  });

  it('refuses a student of another section, and one student twice', async () => {
    const { path, rows } = await active('Shore Life 5');
    const strange = { ...changeOf(rows[0]!, {}), enrollmentId: 999_999 };
    const { body } = await registrar.send<Problem>('PUT', path, {
      changes: [strange, changeOf(rows[0]!, {}), changeOf(rows[0]!, {})],
    });
    expect(body.errors).toEqual([
      { field: 'changes.0.enrollmentId', detail: 'a student of this section' },
      { field: 'changes.2.enrollmentId', detail: 'each student at most once' },
    ]);
  });
});

describe('a teacher', () => {
  it('sees the sheets of their own sections and no others', async () => {
    const { body } = await teacher.get<SheetListReply[]>('/grade-sheets?period=4');
    expect(new Set(body[0]!.sheets.map((sheet) => sheet.teacher))).toEqual(new Set(['Nance, Harun']));
    const { path } = await sheetNamed(registrar, 'Shore Life 1');
    expect((await teacher.get<Problem>(path)).body.code).toBe('not-found');
    expect(
      (
        await teacher.send<Problem>('PUT', path, {
          changes: [
            {
              enrollmentId: 1,
              version: 0,
              percent: null,
              label: null,
              code: null,
              lastDate: null,
              hours: null,
              comment: '',
            },
          ],
        })
      ).body.code,
    ).toBe('not-found');
  });

  it('posts until the last instant of the window; afterwards only a registrar who says so does', async () => {
    const { path, rows } = await active('Tidal Ecology 1');
    const request = { changes: [changeOf(rows[3]!, { percent: '81', label: 'B-' })] };
    server.clock.setTo(new Date('2026-01-23T17:00:00Z'));
    onTestFinished(() => server.clock.setTo(demoInstant));
    const [lateTeacher, lateRegistrar] = [
      await signIn(server.address, 'harun'),
      await signIn(server.address, 'morwenna'),
    ];
    const refused = await lateTeacher.send<Problem>('PUT', path, { ...request, outsideWindow: true });
    expect([refused.status, refused.body.code, refused.body.detail]).toEqual([
      409,
      'window-closed',
      'For Quarter grade in Quarter 2 it is closed.',
    ]);
    expect((await lateRegistrar.send<Problem>('PUT', path, request)).body.code).toBe('window-closed');
    expect((await lateRegistrar.send('PUT', path, { ...request, outsideWindow: true })).status).toBe(200);
  });
});

it('a sealed period takes nothing, from nobody', async () => {
  const { path, sheet } = await sheetNamed(registrar, 'Shore Life 1', quarterGrade, 3);
  const { status, body } = await registrar.send<Problem>('PUT', path, {
    changes: [changeOf(sheet.rows[0]!, { percent: '99', label: 'A' })],
    outsideWindow: true,
  });
  expect([status, body.code]).toEqual([409, 'period-sealed']);
});
