import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest';
import type { BoardReply, BoardSchoolReply, BoardSheetReply, RemindersReply } from '#contract/board';
import type { MailReply } from '#contract/mail';
import type { SheetReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import { changeOf, openPeriod, quarterGrade, sheetNamed } from '../../test/sheets.js';
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

const own = 'Tidal Ecology 1'; // Harun Nance teaches it
const boardOf = async (client: TestClient, period = openPeriod) =>
  (await client.get<BoardReply>(`/board?period=${period}`)).body;
const sheetIn = (board: BoardReply, section: string, itemId = quarterGrade): BoardSheetReply =>
  board.sections.find((each) => each.section === section)!.sheets.find((each) => each.itemId === itemId)!;
const ownSheet = async () => sheetIn(await boardOf(registrar), own);

/** The counts of a sheet worked out from its rows, in another way than the board does. */
function countedByHand({ rows, codes, period, failingNeedsLastDate, scales }: SheetReply) {
  const here = rows.filter(({ withdrawnOn }) => withdrawnOn === null);
  const needsDate = (row: (typeof rows)[number]) => {
    const { code, label } = row.mark;
    if (code) return codes.find((each) => each.code === code)!.needsLastDate;
    const bands = scales.find(({ version }) => version === row.scaleVersion)!.bands;
    return failingNeedsLastDate && bands.some((band) => band.label === label && !band.passes);
  };
  const isGood = (day: string | null) => day !== null && day >= period.startsOn && day <= period.endsOn;
  return {
    expected: here.length,
    blanks: here.filter(({ mark }) => !mark.percent && !mark.label && !mark.code).length,
    codes: here.filter(({ mark }) => mark.code).length,
    missingDates: here.filter((row) => needsDate(row) && !isGood(row.mark.lastDate)).length,
  };
}

describe('the board', () => {
  it('counts each sheet as its rows say, for every section and item', async () => {
    const board = await boardOf(registrar);
    expect(board.items.map(({ name, window }) => [name, window!.state])).toEqual([
      ['Quarter grade', 'open'],
      ['Exam', 'open'],
    ]);
    for (const { sectionId, sheets } of board.sections)
      for (const sheet of sheets) {
        const { body } = await registrar.get<SheetReply>(`/grade-sheets/${sectionId}/${sheet.itemId}/${openPeriod}`);
        const { expected, blanks, codes, missingDates } = sheet;
        expect([body.section, { expected, blanks, codes, missingDates }]).toEqual([body.section, countedByHand(body)]);
      }
  });

  it('shows teachers their own sections, and everybody else all of the school', async () => {
    const [all, harun, viewer] = [
      await boardOf(registrar),
      await boardOf(teacher),
      await boardOf(await server.as('ottilie')),
    ];
    expect(new Set(harun.sections.map((each) => each.teacher))).toEqual(new Set(['Nance, Harun']));
    expect(viewer.sections).toEqual(all.sections);
    expect(all.sections.length).toBeGreaterThan(harun.sections.length);
  });

  it('follows what is posted, signed off, overridden and withdrawn at once', async () => {
    const { path, sheet } = await sheetNamed(teacher, own);
    const before = await ownSheet();
    const rows = sheet.rows.filter(({ withdrawnOn, mark }) => withdrawnOn === null && !mark.code && !mark.label);
    const [first, second] = rows;
    await teacher.send('PUT', path, {
      changes: [changeOf(first!, { percent: '81', label: 'B−' }), changeOf(second!, { code: 'INC' })],
    });
    const after = await ownSheet();
    expect(after).toMatchObject({
      blanks: before.blanks - 2,
      codes: before.codes + 1,
      missingDates: before.missingDates + 1,
    });
    await teacher.send('PUT', `${path}/sign-off`, { note: 'One waits.' });
    expect((await ownSheet()).signedOff).toMatchObject({ by: 'Harun Nance', note: 'One waits.' });
    await teacher.send('DELETE', `${path}/sign-off`);
    expect((await ownSheet()).signedOff).toBeNull();
    await server.database.pool.query('UPDATE enrollments SET withdrawn_on = $2 WHERE id = $1', [
      first!.enrollmentId,
      '2026-01-12',
    ]);
    expect((await ownSheet()).expected).toBe(before.expected - 1);
    await server.database.pool.query('UPDATE enrollments SET withdrawn_on = NULL WHERE id = $1', [first!.enrollmentId]);
    expect((await ownSheet()).expected).toBe(before.expected);
  });

  it('tells of each school what its own board adds up to, to who may look at the school', async () => {
    const { body: schools } = await registrar.get<BoardSchoolReply[]>('/board/schools');
    expect(schools.map(({ school, period }) => [school, period])).toEqual([
      ['Upper School', 'Quarter 2'],
      ['Gannet Primary', 'Trimester 2'],
      ['Evening College', 'Winter term'],
      ['Spindle Rock', 'Third term'],
    ]);
    for (const { periodId, due, signedOff, blanks } of schools) {
      const { body: board } = await registrar.get<BoardReply>(`/board?period=${periodId}`);
      const open = new Set(
        board.items.filter(({ window }) => window !== null && window.opensAt <= board.now).map(({ itemId }) => itemId),
      );
      const sheets = board.sections
        .flatMap((section) => section.sheets)
        .filter((each) => open.has(each.itemId) && each.expected > 0);
      expect([due, signedOff, blanks]).toEqual([
        sheets.length,
        sheets.filter((each) => each.signedOff !== null).length,
        sheets.reduce((sum, each) => sum + each.blanks, 0),
      ]);
    }
    expect((await teacher.get('/board/schools')).status).toBe(403);
  });

  it('tells who looks that something changed, and nothing of what', async () => {
    const ended = new AbortController();
    onTestFinished(() => ended.abort());
    const stream = await teacher.stream('/board/events', ended.signal);
    expect(stream.headers.get('content-type')).toContain('text/event-stream');
    const reader = stream.body!.getReader();
    const { path, sheet } = await sheetNamed(teacher, own);
    const row = sheet.rows.find(({ withdrawnOn }) => withdrawnOn === null)!;
    await teacher.send('PUT', path, { changes: [changeOf(row, { percent: '64', label: 'D' })] });
    let text = '';
    while (!text.includes('event: changed')) text += new TextDecoder().decode((await reader.read()).value);
    expect(text).not.toContain(row.student);
    expect((await fetch(`${server.address}/api/board/events`)).status).toBe(401);
  });
});

describe('reminders', () => {
  const remind = (request: object, client = registrar) =>
    client.send<RemindersReply & Problem>('POST', `/board/${openPeriod}/reminders`, request);
  const teacherId = async () => (await boardOf(registrar)).sections.find(({ section }) => section === own)!.teacherId;

  it('are looked at, then sent once, name what lacks and no student, and a second one says so', async () => {
    const teacherIds = [await teacherId()];
    const preview = await remind({ teacherIds });
    expect(preview.body).toMatchObject({
      isSent: false,
      skipped: [],
      messages: [{ teacher: 'Harun Nance', earlier: 0 }],
    });
    const [message] = preview.body.messages;
    expect(message!.text).toMatch(/- Tidal Ecology 1, Quarter grade: \d+ blanks/);
    expect(message!.text).toContain('The posting window closes on Friday 23 January 2026 at 17:00.');
    const { sheet } = await sheetNamed(registrar, own);
    for (const { student } of sheet.rows) expect(message!.text).not.toContain(student.split(',')[1]!.trim());
    const { fingerprint } = preview.body;
    const [one, other] = await Promise.all([remind({ teacherIds, fingerprint }), remind({ teacherIds, fingerprint })]);
    expect([one.status, other.status].toSorted()).toEqual([200, 409]);
    const { body: mails } = await registrar.get<MailReply[]>('/mails?school=1');
    expect(mails[0]).toMatchObject({ to: 'Harun Nance', subject: message!.subject, body: message!.text });
    expect(mails.filter(({ subject }) => subject === message!.subject)).toHaveLength(1);
    expect((await ownSheet()).reminded).toMatchObject({ times: 1, by: 'Morwenna Oake' });
    const second = await remind({ teacherIds, note: 'Please come by.' });
    expect(second.body.messages[0]!.text).toMatch(/This is reminder 2\. The last one was sent on Wednesday 21 January/);
    expect(second.body.messages[0]!.text).toContain('Please come by.');
  });

  it('are sent as they were looked at, or not at all', async () => {
    const teacherIds = [await teacherId()];
    const { fingerprint } = (await remind({ teacherIds })).body;
    const { path, sheet } = await sheetNamed(teacher, own);
    const row = sheet.rows.find(({ withdrawnOn, mark }) => withdrawnOn === null && !mark.label && !mark.code)!;
    await teacher.send('PUT', path, { changes: [changeOf(row, { percent: '77', label: 'C+' })] });
    expect((await remind({ teacherIds, fingerprint })).body.code).toBe('reminders-changed');
  });

  it('skip who has nothing open, with the reason; and only registrars send them', async () => {
    const { rows } = await server.database.pool.query<{ id: number }>(
      `SELECT id FROM people WHERE kind = 'staff' AND given_name = 'Ottilie'`,
    );
    expect((await remind({ teacherIds: [rows[0]!.id] })).body).toMatchObject({
      messages: [],
      skipped: [{ teacher: 'Ottilie Brandreth', why: 'Nothing of theirs is open in this period.' }],
    });
    expect((await remind({ teacherIds: [rows[0]!.id] }, teacher)).status).toBe(403);
    expect((await remind({ teacherIds: [] })).status).toBe(422);
  });

  it('say that the window is closed, once it is', async () => {
    const teacherIds = [await teacherId()];
    server.clock.setTo(new Date('2026-01-26T09:00:00Z'));
    onTestFinished(() => server.clock.setTo(demoInstant));
    const { body } = await remind({ teacherIds }, await signIn(server.address, 'morwenna'));
    expect(body.messages[0]!.text).toContain('The posting window closed on Friday 23 January 2026 at 17:00.');
  });
});
