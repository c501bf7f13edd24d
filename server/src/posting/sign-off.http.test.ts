import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest';
import type { ChangeReply } from '#contract/changes';
import type {
  DayReceiptsReply,
  SaveSheetReply,
  SaveStandardsReply,
  SheetListReply,
  SheetReply,
  StandardsReply,
  StockCommentsReply,
} from '#contract/posting';
import type { MailReply } from '#contract/mail';
import type { Problem } from '#contract/problems';
import { ReceiptMessagesService } from './receipt-messages.service.js';
import { changeOf, sheetNamed } from '../../test/sheets.js';
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
const afterClosing = new Date('2026-01-26T09:00:00Z');
/** Makes it another time, and signs in anew: sessions do not last that long. */
const at = async (instant: Date) => {
  server.clock.setTo(instant);
  onTestFinished(() => server.clock.setTo(demoInstant));
  const [late, asRegistrar] = [await signIn(server.address, 'harun'), await signIn(server.address, 'morwenna')];
  return { teacher: late, registrar: asRegistrar };
};
const sheetOf = async (client: TestClient, path: string) => (await client.get<SheetReply>(path)).body;
const present = ({ rows }: SheetReply) => rows.filter(({ withdrawnOn }) => withdrawnOn === null);

describe('signing a sheet off', () => {
  it('says by whom, when and with which note, and takes no grade until it is taken back', async () => {
    const { path, sheet } = await sheetNamed(teacher, own);
    const signed = await teacher.send('PUT', `${path}/sign-off`, { note: '  Two wait for a re-sit. ' });
    expect(signed.status).toBe(200);
    expect((await sheetOf(registrar, path)).signedOff).toEqual({
      by: 'Harun Nance',
      onBehalfOf: null,
      at: expect.stringMatching(/^2026-01-21T10:4/),
      note: 'Two wait for a re-sit.',
    });
    const changes = [changeOf(present(sheet)[0]!, { percent: '70', label: 'C−' })];
    for (const client of [teacher, registrar]) {
      const refused = await client.send<Problem>('PUT', path, { changes });
      expect([refused.status, refused.body.code]).toEqual([409, 'sheet-signed-off']);
      expect(refused.body.detail).toContain('Harun Nance');
    }
    expect((await teacher.send<Problem>('PUT', `${path}/sign-off`, { note: '' })).body.code).toBe('changed-meanwhile');
    expect((await teacher.send('DELETE', `${path}/sign-off`)).body).toEqual({ signedOff: null });
    expect((await teacher.send<Problem>('DELETE', `${path}/sign-off`)).body.code).toBe('sheet-not-signed-off');
    expect((await teacher.send('PUT', path, { changes })).status).toBe(200);
  });

  it('is undone as any change, and undoing grades under it is refused', async () => {
    const { path, sheet } = await sheetNamed(teacher, own);
    const saved = await teacher.send<SaveSheetReply>('PUT', path, {
      changes: [changeOf(present(sheet)[1]!, { percent: '88', label: 'B+' })],
    });
    const signed = await teacher.send('PUT', `${path}/sign-off`, { note: '' });
    expect((await teacher.send<Problem>('POST', `/changes/${saved.change}/undo`)).body.code).toBe('sheet-signed-off');
    expect((await teacher.send('POST', `/changes/${signed.change}/undo`)).status).toBe(200);
    expect((await sheetOf(teacher, path)).signedOff).toBeNull();
    expect((await teacher.send('POST', `/changes/${saved.change}/undo`)).status).toBe(200);
    const { body: history } = await teacher.get<ChangeReply[]>(
      `/changes?thing=${encodeURIComponent(`sign-off ${path.slice('/grade-sheets/'.length)}`)}`,
    );
    expect(history.map(({ action }) => action).slice(0, 2)).toEqual([
      'undo: sign off Quarter grade of Tidal Ecology 1',
      'sign off Quarter grade of Tidal Ecology 1',
    ]);
  });

  it('is for the teacher while the window is open, afterwards for a registrar who says so', async () => {
    const { path } = await sheetNamed(await server.as('morwenna'), own);
    const { teacher, registrar } = await at(afterClosing);
    expect((await teacher.send<Problem>('PUT', `${path}/sign-off`, { note: '' })).body.code).toBe('window-closed');
    expect((await registrar.send<Problem>('PUT', `${path}/sign-off`, { note: '' })).body.code).toBe('window-closed');
    const signed = await registrar.send('PUT', `${path}/sign-off`, { note: '', outsideWindow: true });
    expect(signed.status).toBe(200);
    expect((await sheetOf(teacher, path)).signedOff).toMatchObject({
      by: 'Morwenna Oake',
      onBehalfOf: 'Harun Nance',
    });
    expect((await teacher.send<Problem>('DELETE', `${path}/sign-off`)).body.code).toBe('window-closed');
    expect((await registrar.send('DELETE', `${path}/sign-off`)).status).toBe(200);
  });

  it('is not for who neither teaches the section nor is a registrar, nor for a section that there is not', async () => {
    const { path } = await sheetNamed(registrar, 'Shore Life 1');
    expect((await teacher.send('PUT', `${path}/sign-off`, { note: '' })).status).toBe(404);
    const administrator = await server.as('ottilie');
    expect((await administrator.send('PUT', `${path}/sign-off`, { note: '' })).status).toBe(403);
    expect((await registrar.send('PUT', '/grade-sheets/999999/1/4/sign-off', { note: '' })).status).toBe(404);
  });
});

describe('on behalf of a teacher', () => {
  it('the record says so: log, receipt of the sheet, and the teacher’s receipts of the day', async () => {
    const { path, sheet } = await sheetNamed(registrar, own);
    expect([sheet.onBehalfOf, (await sheetOf(teacher, path)).onBehalfOf]).toEqual(['Nance, Harun', null]);
    const row = present(sheet)[2]!;
    const saved = await registrar.send<SaveSheetReply>('PUT', path, {
      changes: [changeOf(row, { code: 'INC', percent: null, label: null, lastDate: '2026-01-16' })],
    });
    expect(saved.body.receipt).toMatchObject({ savedBy: 'Morwenna Oake', onBehalfOf: 'Harun Nance' });
    const { body: log } = await registrar.get<ChangeReply[]>(
      `/changes?thing=${encodeURIComponent(`grade 1/4/${row.enrollmentId}`)}`,
    );
    expect(log[0]!.action).toBe('post Quarter grade of Tidal Ecology 1 on behalf of Nance, Harun');
    const { body: day } = await teacher.get<DayReceiptsReply>('/receipts');
    expect(day.day).toBe('2026-01-21');
    expect(day.receipts[0]).toMatchObject({
      section: 'Tidal Ecology 1',
      item: 'Quarter grade',
      savedBy: 'Morwenna Oake',
      onBehalfOf: 'Harun Nance',
      changes: [{ student: row.student, after: { code: 'INC' } }],
    });
    expect((await registrar.get<DayReceiptsReply>('/receipts')).body.receipts[0]!.id).toBe(day.receipts[0]!.id);
    expect((await (await server.as('ottilie')).get<DayReceiptsReply>('/receipts')).body.receipts).toEqual([]);
    expect((await teacher.get<DayReceiptsReply>('/receipts?day=2026-01-20')).body.receipts).toEqual([]);
    expect((await teacher.get('/receipts?day=2026-02-30')).status).toBe(422);
  });
});

describe('an override', () => {
  const computedRow = async () => {
    const { body: lists } = await teacher.get<SheetListReply[]>('/grade-sheets?period=4');
    for (const { section } of lists[0]!.sheets) {
      const found = await sheetNamed(teacher, section);
      const row = present(found.sheet).find(({ computed }) => computed !== null);
      if (row) return { ...found, row };
    }
    throw new Error('nothing is computed in the demo');
  };

  it('keeps its reason and what was computed then; the reason goes with the override', async () => {
    const { path, sheet, row } = await computedRow();
    const save = async (version: number, change: object) => {
      const { body } = await teacher.send<SaveSheetReply>('PUT', path, {
        changes: [{ ...changeOf(row, change), version }],
      });
      return body.rows[0]!;
    };
    const overridden = await save(row.version, { percent: '12.5', label: 'F', overrideReason: 'Copied the essay' });
    expect(overridden).toMatchObject({
      computedThen: row.computed!.percent,
      mark: { percent: '12.50', overrideReason: 'Copied the essay' },
    });
    const computed = { digits: sheet.digits, percent: row.computed!.percent };
    const own = Number(computed.percent).toFixed(computed.digits);
    const label = sheet.scales
      .at(-1)!
      .bands.filter(({ lowest, isOff }) => !isOff && lowest !== null && Number(lowest) <= Number(own))
      .toSorted((a, b) => Number(b.lowest) - Number(a.lowest))[0]!.label;
    const taken = await save(overridden.version, { percent: own, label, overrideReason: 'No reason any more' });
    expect(taken.mark.overrideReason).toBe('');
  });
});

it.each([
  ['1900-01-01', /what programs write for no date/],
  ['1970-01-01', /what programs write for no date/],
  ['2025-11-09', /^a day from 2025-11-10 to 2026-01-23$/],
  ['2026-01-24', /^a day from 2025-11-10 to 2026-01-23$/],
])('a last date of %s is refused', async (lastDate, why) => {
  const { path, sheet } = await sheetNamed(teacher, own);
  const changes = [changeOf(present(sheet)[0]!, { code: 'INC', percent: null, label: null, lastDate })];
  const { status, body } = await teacher.send<Problem>('PUT', path, { changes });
  expect(status).toBe(422);
  expect(body.errors).toEqual([{ field: 'changes.0.lastDate', detail: expect.stringMatching(why) }]);
});

it('a placeholder that stands there already keeps nobody from changing the rest', async () => {
  const { path, sheet } = await sheetNamed(teacher, own);
  const row = present(sheet)[0]!;
  const change = changeOf(row, { code: 'INC', percent: null, label: null, lastDate: '2026-01-16' });
  const saved = await teacher.send<SaveSheetReply>('PUT', path, { changes: [change] });
  const { version, enrollmentId } = saved.body.rows[0]!;
  await server.database.pool.query(`UPDATE grades SET last_date = '1899-12-30' WHERE enrollment_id = $1`, [
    enrollmentId,
  ]);
  const { status, body } = await teacher.send<SaveSheetReply>('PUT', path, {
    changes: [{ ...change, version, lastDate: '1899-12-30', comment: 'Away' }],
  });
  expect([status, body.rows[0]!.mark.comment]).toEqual([200, 'Away']);
});

describe('a request to post what was typed', () => {
  const asked = async () => {
    const { path, sheet } = await sheetNamed(teacher, own);
    const changes = [changeOf(present(sheet)[3]!, { percent: '71', label: 'C−' })];
    const late = await at(afterClosing);
    expect((await late.teacher.send<Problem>('PUT', path, { changes })).body.code).toBe('window-closed');
    const sent = await late.teacher.send('POST', `${path}/requests`, { changes, note: 'The bell rang.' });
    expect(sent.status).toBe(204);
    const open = (await sheetOf(late.registrar, path)).requests.find(({ state }) => state === 'open')!;
    return { path, changes, open, ...late };
  };

  it('stands on the sheet with what was typed, and is posted or declined by a registrar once', async () => {
    const { path, changes, open, teacher, registrar } = await asked();
    expect(open).toMatchObject({ askedBy: 'Harun Nance', isOwn: false, changes, note: 'The bell rang.' });
    const answer = { state: 'declined', answer: 'It is in the next period.' };
    expect((await teacher.send<Problem>('PUT', `/posting-requests/${open.id}`, answer)).body.code).toBe('not-allowed');
    expect((await registrar.send('PUT', `/posting-requests/${open.id}`, answer)).status).toBe(204);
    const again = await registrar.send<Problem>('PUT', `/posting-requests/${open.id}`, answer);
    expect([again.body.code, again.body.detail]).toEqual(['request-answered', 'Morwenna Oake answered it meanwhile.']);
    expect((await sheetOf(teacher, path)).requests[0]).toMatchObject({
      ...answer,
      isOwn: true,
      answeredBy: 'Morwenna Oake',
    });
  });

  it('is withdrawn by whoever asked, and by nobody else', async () => {
    const { path, open, teacher, registrar } = await asked();
    const withdraw = { state: 'withdrawn', answer: '' };
    expect((await registrar.send('PUT', `/posting-requests/${open.id}`, withdraw)).status).toBe(403);
    expect((await teacher.send('PUT', `/posting-requests/${open.id}`, withdraw)).status).toBe(204);
    expect((await sheetOf(registrar, path)).requests.filter(({ state }) => state === 'open')).toEqual([]);
    expect(
      (await (await signIn(server.address, 'ruben')).send('PUT', `/posting-requests/${open.id}`, withdraw)).status,
    ).toBe(404);
    expect((await registrar.send('PUT', '/posting-requests/99999', withdraw)).status).toBe(404);
  });
});

describe('stock comments', () => {
  const save = (revision: string, comments: string[]) =>
    registrar.send<StockCommentsReply & Problem>('PUT', '/stock-comments?school=1', { comments, revision });

  it('are a school’s list, saved whole on the revision it began from, undone, and shown on each sheet', async () => {
    const { body: before } = await teacher.get<StockCommentsReply>('/stock-comments?school=1');
    const texts = ['{Name} works with care.', '{They} {are} ready for more.'];
    const saved = await save(before.revision, texts);
    expect(saved.body.comments).toEqual(texts);
    expect((await sheetNamed(teacher, own)).sheet.stockComments).toEqual(texts);
    expect((await save(before.revision, ['Other'])).body.code).toBe('changed-meanwhile');
    expect((await registrar.send('POST', `/changes/${saved.change}/undo`)).status).toBe(200);
    expect((await teacher.get<StockCommentsReply>('/stock-comments?school=1')).body).toEqual(before);
  });

  it.each([
    [['{Nmae} works.'], 'comments.0', 'words in braces that are known; {Nmae} is not'],
    [['Good.', ' Good. '], 'comments.1', 'each comment once'],
    [['Good.', '  '], 'comments.1', 'a comment, or remove the row'],
  ])('%j is refused', async (comments, field, detail) => {
    const { body } = await teacher.get<StockCommentsReply>('/stock-comments?school=1');
    expect((await save(body.revision, comments)).body.errors).toEqual([{ field, detail }]);
  });
});

it('once a day is over, everybody gets one message with all that they posted and all that was posted for them', async () => {
  const { path, sheet } = await sheetNamed(teacher, own);
  const [first, second] = present(sheet);
  const post = async (client: TestClient, row: typeof first, percent: string) => {
    const { rows } = await sheetOf(client, path);
    const now = rows.find(({ enrollmentId }) => enrollmentId === row!.enrollmentId)!;
    await client.send('PUT', path, { changes: [changeOf(now, { percent, label: 'B', code: null, lastDate: null })] });
  };
  await post(teacher, first, '84.5');
  await post(registrar, second, '85');
  const messages = server.application.get(ReceiptMessagesService);
  const mails = async () =>
    (await registrar.get<MailReply[]>('/mails?school=1')).body.filter(({ about }) => about === 'receipts 2026-01-21');
  await messages.tell();
  expect(await mails()).toEqual([]);
  await at(new Date('2026-01-22T00:00:30Z'));
  await Promise.all([messages.tell(), messages.tell()]);
  server.clock.setTo(demoInstant);
  const told = await mails();
  expect(told.map(({ to }) => to).toSorted()).toEqual(['Harun Nance', 'Morwenna Oake']);
  const { body, subject } = told.find(({ to }) => to === 'Harun Nance')!;
  expect(subject).toMatch(/^\d+ grades posted on Wednesday 21 January 2026$/);
  expect(body).toContain('Tidal Ecology 1, Quarter grade, Quarter 2: 10:4');
  expect(body).toContain(`${first!.student} `);
  expect(body).toContain('Morwenna Oake on behalf of Harun Nance');
  expect(body).toMatch(/ -> {2}84\.50? % B/);
});

describe('the standards of a section', () => {
  const primary = 13; // Trimester 2 of the Primary School, whose window is not open yet
  const standardsOf = async () => {
    const { body: lists } = await registrar.get<SheetListReply[]>(`/grade-sheets?period=${primary}`);
    const { sectionId } = lists.find(({ itemName }) => itemName === 'Knowing')!.sheets[0]!;
    const path = `/standards-sheets/${sectionId}/${primary}`;
    return { path, sheets: (await registrar.get<StandardsReply>(path)).body.sheets };
  };

  it('are asked for at once, where posting is over, or none of them is', async () => {
    const { path, sheets } = await standardsOf();
    const changesOn = (sheet: SheetReply) => [changeOf(present(sheet)[0]!, { percent: '3', label: null })];
    const asked = sheets.slice(2, 4).map((sheet) => ({ itemId: sheet.itemId, changes: changesOn(sheet) }));
    const requests = async () =>
      (await standardsOf()).sheets.flatMap(({ itemId, requests: own }) => own.map((each) => ({ itemId, ...each })));
    const ask = (second: number) =>
      registrar.send('POST', `${path}/requests`, {
        sheets: [asked[0]!, { ...asked[1]!, itemId: second }],
        note: ' The bell rang. ',
      });
    expect((await ask(99_999)).status).toBe(404);
    expect(await requests()).toEqual([]);
    expect((await ask(asked[1]!.itemId)).status).toBe(204);
    const open = await requests();
    expect(open.map(({ itemId, changes }) => ({ itemId, changes }))).toEqual(asked);
    expect(open).toEqual(
      open.map((each) => ({ ...each, note: 'The bell rang.', state: 'open', askedAt: open[0]!.askedAt })),
    );
    for (const { id } of open)
      await registrar.send('PUT', `/posting-requests/${id}`, { state: 'withdrawn', answer: '' });
    expect((await requests()).map(({ state }) => state)).toEqual(['withdrawn', 'withdrawn']);
  });

  it('are read and saved as one: one change, a receipt for each, undone in one step', async () => {
    const { path, sheets } = await standardsOf();
    expect(sheets.map(({ itemName }) => itemName)).toEqual([
      'Trimester step',
      'Works with care',
      'Knowing',
      'Doing',
      'Explaining',
    ]);
    expect(new Set(sheets.map(({ itemKind }) => itemKind))).toEqual(new Set(['standard']));
    const wanted = sheets.slice(2, 4).map((sheet) => ({
      itemId: sheet.itemId,
      changes: present(sheet)
        .slice(0, 2)
        .map((row) => changeOf(row, { percent: '3', label: sheet.scales[0]!.bands[1]!.label })),
    }));
    const saved = await registrar.send<SaveStandardsReply>('PUT', path, { sheets: wanted, outsideWindow: true });
    expect(saved.body.sheets.map(({ receipt, rows }) => [receipt!.changes.length, rows.length])).toEqual([
      [2, 2],
      [2, 2],
    ]);
    const { enrollmentId } = wanted[0]!.changes[0]!;
    const { body: log } = await registrar.get<ChangeReply[]>(
      `/changes?thing=${encodeURIComponent(`grade ${wanted[0]!.itemId}/${primary}/${enrollmentId}`)}`,
    );
    expect(log[0]).toMatchObject({ id: saved.change, action: expect.stringMatching(/^post 2 standards of /) });
    expect((await registrar.send('POST', `/changes/${saved.change}/undo`)).status).toBe(200);
    const after = await standardsOf();
    for (const sheet of after.sheets.slice(2, 4))
      expect(
        present(sheet)
          .slice(0, 2)
          .map(({ mark }) => mark.percent),
      ).toEqual([null, null]);
  });

  it('one bad value saves nothing of any, and a standard twice is refused', async () => {
    const { path, sheets } = await standardsOf();
    const [one, other] = sheets.slice(2);
    const change = (sheet: SheetReply, percent: string) => ({
      itemId: sheet.itemId,
      changes: [changeOf(present(sheet)[0]!, { percent })],
    });
    const bad = await registrar.send<Problem>('PUT', path, {
      sheets: [change(one!, '3'), change(other!, '9')],
      outsideWindow: true,
    });
    expect([bad.status, bad.body.errors[0]!.field]).toEqual([422, 'sheets.1.changes.0.percent']);
    const twice = await registrar.send('PUT', path, {
      sheets: [change(one!, '3'), change(one!, '2')],
      outsideWindow: true,
    });
    expect(twice.status).toBe(422);
    expect(present((await standardsOf()).sheets[2]!)[0]!.mark.percent).toBeNull();
  });

  it('are signed off together, or none of them', async () => {
    const { path, sheets } = await standardsOf();
    const itemIds = sheets.map(({ itemId }) => itemId);
    const sign = (ids: readonly number[]) =>
      registrar.send<Problem>('PUT', `${path}/sign-off`, { itemIds: ids, note: 'All in.', outsideWindow: true });
    expect((await sign(itemIds.slice(0, 1))).status).toBe(204);
    expect((await sign(itemIds)).body.code).toBe('changed-meanwhile');
    expect((await standardsOf()).sheets.map(({ signedOff }) => signedOff !== null)).toEqual([
      true,
      false,
      false,
      false,
      false,
    ]);
    const signed = await sign(itemIds.slice(1));
    expect((await standardsOf()).sheets.every(({ signedOff }) => signedOff?.note === 'All in.')).toBe(true);
    expect((await registrar.send('POST', `/changes/${signed.change}/undo`)).status).toBe(200);
    expect((await standardsOf()).sheets.filter(({ signedOff }) => signedOff !== null)).toHaveLength(1);
  });
});
