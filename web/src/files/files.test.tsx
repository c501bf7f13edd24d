import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { ChooseColumnsRequest, FileImportReply, FileImportSummaryReply } from '#contract/files';
import { showRoutes, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { FilePage } from './file-page';
import { fileOf, fileRowOf, planOf } from '../../test/files.fixture';
import { FilesPage } from './files-page';

const routes = [
  { path: 'files', element: <FilesPage /> },
  { path: 'files/:fileId', element: <FilePage /> },
];
const sheet = (sectionId: number, section: string) => ({ sectionId, section, teacher: 'Tamsin Reed' });
const sheets = [
  { itemId: 1, itemName: 'Quarter grade', window: null, sheets: [sheet(31, 'Knots 1'), sheet(32, 'Shore 1')] },
];
const rows = [
  fileRowOf(),
  fileRowOf({ row: 3, outcome: 'changed', name: 'Harrow, Col', before: '70', after: '71', value: '71' }),
  fileRowOf({ row: 4, outcome: 'unreadable', name: 'Larkin, Bea', value: 'abc', after: null }),
];
const show = async (file: FileImportReply, answers: Answers = {}, address = 'files/9') => {
  const view = showRoutes(routes, {
    address,
    answers: {
      'GET /schools/1/term-line': termLineOf(),
      'GET /file-imports': [],
      'GET /file-imports/9': file,
      'GET /file-imports/9/rows': { rows, total: rows.length },
      'GET /grade-sheets': sheets,
      ...answers,
    },
  });
  await screen.findByRole('heading', { level: 1 });
  return view;
};
const headline = () => screen.getByRole('heading', { level: 1 }).textContent;
const chosen = (sent: readonly { request: string; body: unknown }[]) =>
  sent.findLast(({ request }) => request === 'PUT /file-imports/9/columns')?.body as ChooseColumnsRequest;

describe('a file', () => {
  it.each<[string, Partial<FileImportReply>, string]>([
    ['planned', {}, 'For Knots 1 this file brings percentages of Quarter grade: 10 new and 0 changed.'],
    [
      'with a value that is skipped',
      { plan: planOf({ new: 1, changed: 2, unreadable: 1 }) },
      'For Knots 1 this file brings percentages of Quarter grade: 1 new and 2 changed; 1 value is skipped, each with its reason.',
    ],
    [
      'of several sections',
      { sectionId: null, sectionColumn: 1 },
      'For Quarter 2 this file brings percentages of Quarter grade: 10 new and 0 changed.',
    ],
    [
      'accepted',
      { status: 'accepted', plan: planOf({ new: 1 }) },
      'Imported for Knots 1: 1 percentage is as in the file.',
    ],
    [
      'whose columns are open',
      { status: 'read', plan: null },
      'Say what the columns mean, and for which section of Quarter 2 the file is.',
    ],
    ['being planned', { status: 'planning', plan: null, stepsDone: 5, stepCount: 10 }, 'Planning winter.csv: 50 %.'],
    ['refused', { status: 'refused', plan: null }, 'This file cannot be imported; nothing of it was.'],
    ['undone', { status: 'undone' }, 'This file was undone; none of its values count any more.'],
  ])('says in one sentence how it stands: %s', async (_what, over, says) => {
    await show(fileOf(over));
    expect(headline()).toBe(says);
  });

  it('says of each row what it does, or why nothing; its counts filter', async () => {
    const { person, search } = await show(fileOf({ plan: planOf({ new: 1, changed: 1, unreadable: 1 }) }));
    expect((await screen.findByText('“abc” is not a percentage such as 86.4.')).tagName).toBe('SPAN');
    expect(screen.getByText('70.0 →').parentElement?.textContent).toBe('70.0 → 71.0');
    await person.click(screen.getByRole('button', { name: 'not a percentage 1' }));
    expect(search()).toBe('?show=unreadable');
    expect(screen.getByRole('button', { name: 'not a percentage 1' }).getAttribute('aria-pressed')).toBe('true');
    await person.click(screen.getByRole('button', { name: 'all 3' }));
    expect(search()).toBe('');
  });

  it('names who of the section is not in it, and the others on asking', async () => {
    const names = ['Adair, Una', 'Bright, Tom', 'Crowe, Ida', 'Dunn, Ash'];
    await show(fileOf({ plan: planOf({ new: 1 }, { notInFile: { count: 5, names } }) }));
    const told = screen.getByText(/^not in the file:/);
    expect(told.textContent).toBe('not in the file: Adair, Una; Bright, Tom; Crowe, Ida and 2 more');
    expect(told.title).toBe(names.join('; '));
  });

  it('is given other columns in the sentence that says what they mean; the rest of the choice stays', async () => {
    const { person, sent } = await show(fileOf(), { 'PUT /file-imports/9/columns': fileOf() });
    await person.selectOptions(screen.getByLabelText('Id column'), 'Name');
    expect(chosen(sent)).toEqual({
      idColumn: 1,
      sectionId: 31,
      sectionColumn: null,
      grades: [{ column: 2, itemId: 1 }],
      namedSections: {},
    });
    await person.selectOptions(screen.getByLabelText('Section'), 'the section in Name');
    expect(chosen(sent)).toMatchObject({ sectionId: null, sectionColumn: 1 });
    await person.selectOptions(screen.getByLabelText('Column of Quarter grade'), 'choose a column');
    expect(chosen(sent).grades).toEqual([]);
  });

  it('says why it proposes a column, and where it proposes none', async () => {
    const { unmount } = await show(fileOf());
    expect(screen.getByText(/^Id column:/).textContent).toMatch(
      /Quarter grade: headed “total”, percentages in 2 of 2 rows \(90 %\)\.$/,
    );
    unmount();
    await show(fileOf({ proposals: { id: null, sectionColumn: null, section: null, grades: [], doubts: [] } }));
    expect(screen.getByText(/^No column contains ids that we know\./).textContent).toMatch(
      /No column contains percentages\.$/,
    );
  });

  it('says of each column that is left why, and asks for nothing it may not know', async () => {
    const doubts = [
      { column: 2, code: 'otherPeriod' },
      { column: 1, code: 'values' },
    ] as const;
    await show(fileOf({ grades: [], proposals: { ...fileOf().proposals, grades: [], doubts } }));
    expect(screen.getByText('“Total” was not chosen: it is named after another period.')).toBeTruthy();
    expect(screen.getByText('“Name” was not chosen: its values are not grades out of 100.')).toBeTruthy();
  });

  it('lets the row with the column names be chosen by hand, and the sheet of a workbook', async () => {
    const sheets = [
      { name: 'Notes', isHidden: false },
      { name: 'Grades', isHidden: false },
      { name: 'Old', isHidden: true },
    ];
    const { person, sent } = await show(fileOf({ sheets, sheet: 'Notes', asksSheet: true }));
    const asked = () => sent.findLast(({ request }) => request === 'POST /file-imports/9/read-again')?.body;
    expect(headline()).toBe('Choose the sheet of winter.csv that holds the grades.');
    expect(screen.queryByLabelText('Id column')).toBeNull();
    expect(screen.getByText('(1 sheet hidden)')).toBeTruthy();
    await person.selectOptions(screen.getByLabelText('Sheet'), 'Grades');
    expect(asked()).toEqual({ sheet: 'Grades', headerRow: null });
    await person.selectOptions(screen.getByLabelText('Row with the column names'), 'no row');
    expect(asked()).toEqual({ sheet: null, headerRow: 0 });
  });

  it('shows what was chosen last while it is sent, and is not accepted before the answer is there', async () => {
    const leadingRows = [['a title'], ['Number', 'Overall'], ['S10001', '70']];
    const file = fileOf({ leadingRows, headerRow: 1 });
    const waiting: (() => void)[] = [];
    const { person, sent } = await show(file, {
      'POST /file-imports/9/read-again': (request) =>
        new Promise<object>((answer) => waiting.push(() => answer({ ...file, ...(request as object) }))),
    });
    const field = screen.getByLabelText<HTMLSelectElement>('Row with the column names');
    const accept = screen.getByRole<HTMLButtonElement>('button', { name: /^Accept 10/ });
    await person.selectOptions(field, '2');
    await person.selectOptions(field, '3');
    expect([field.value, accept.disabled]).toEqual(['3', true]);
    waiting[0]!();
    await waitFor(() => expect(waiting).toHaveLength(2));
    expect([field.value, accept.disabled]).toEqual(['3', true]);
    await person.keyboard('{Control>}{Enter}{/Control}');
    waiting[1]!();
    await waitFor(() => expect(accept.disabled).toBe(false));
    expect(field.value).toBe('3');
    expect(sent.filter(({ request }) => request.endsWith('/accept'))).toEqual([]);
  });

  it('asks once for a section it does not know', async () => {
    const unknownSections = ['BB/1', 'BB/2', 'BB/3', 'BB/4'].map((name) => ({ name, rows: 1 }));
    const file = fileOf({
      sectionColumn: 1,
      sectionId: null,
      plan: planOf({ 'unknown section': 4 }, { unknownSections }),
    });
    const { person, sent } = await show(file, { 'PUT /file-imports/9/columns': file });
    expect(screen.getByText('4 sections of the file are not known').tagName).toBe('H2');
    expect(screen.queryByLabelText('Section for BB/4')).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Show all 4' }));
    await person.selectOptions(screen.getByLabelText('Section for BB/4'), 'Shore 1 · Tamsin Reed');
    expect(chosen(sent).namedSections).toEqual({ 'BB/4': 32 });
  });

  it('is accepted by key on the plan that was looked at, and undone from the notice', async () => {
    const accepted = fileOf({ status: 'accepted' });
    const { person, sent } = await show(fileOf(), {
      'POST /file-imports/9/accept': accepted,
      'POST /file-imports/9/undo': fileOf({ status: 'undone' }),
    });
    await person.keyboard('{Control>}{Enter}{/Control}');
    expect(await screen.findByText('10 computed percentages written.')).not.toBeNull();
    expect(sent.find(({ request }) => request === 'POST /file-imports/9/accept')?.body).toEqual({ planNumber: 3 });
    await person.click(screen.getByRole('button', { name: 'Undo' }));
    expect(await screen.findByText('The file is undone; what was computed before counts again.')).not.toBeNull();
    expect(headline()).toBe('This file was undone; none of its values count any more.');
  });

  it('with nothing to write cannot be accepted, by key neither', async () => {
    const { person, sent } = await show(fileOf({ plan: planOf({ same: 10 }) }));
    await person.keyboard('{Control>}{Enter}{/Control}');
    expect(screen.getByRole('button', { name: /^Accept/ })).toHaveProperty('disabled', true);
    expect(sent.some(({ request }) => request.startsWith('POST'))).toBe(false);
  });

  it('that changed under the plan says so, and stays to be looked at again', async () => {
    const { person } = await show(fileOf(), {
      'POST /file-imports/9/accept': {
        status: 409,
        title: 'The plan is older',
        detail: 'Look at it again.',
        errors: [],
      },
    });
    await person.click(screen.getByRole('button', { name: /^Accept 10 percentages/ }));
    expect(await screen.findByText('Look at it again.')).not.toBeNull();
    expect(screen.getByRole('button', { name: /^Accept 10 percentages/ })).toHaveProperty('disabled', false);
  });

  it('under way can be stopped and discarded, which leads back to the list', async () => {
    const { person, sent } = await show(fileOf({ status: 'accepting', stepsDone: 1, stepCount: 4 }), {
      'DELETE /file-imports/9': {},
    });
    expect(screen.getByRole('progressbar', { name: 'Rows' }).getAttribute('value')).toBe('1');
    await person.click(screen.getByRole('button', { name: 'Stop and discard' }));
    await expect.poll(headline).toBe('0 files are imported for Quarter 2.');
    expect(sent.some(({ request }) => request === 'DELETE /file-imports/9')).toBe(true);
  });

  it('says beside a row what the audit will say of the grade', async () => {
    const remarks = [
      { severity: 'warns' as const, rule: 'Override', says: '12.0 F is posted, but 86.4 B is computed.' },
    ];
    const remarked = [fileRowOf({ remarks }), fileRowOf({ row: 3, name: 'Harrow, Col' })];
    await show(fileOf(), { 'GET /file-imports/9/rows': { rows: remarked, total: 2 } });
    const grid = await screen.findByLabelText('Rows of the file');
    const [own, other] = [/Fennick/, /Harrow/].map((name) => within(grid).getByRole('row', { name }));
    expect(within(own!).getByRole('img', { name: 'warns' })).toBeTruthy();
    expect(own!.textContent).toContain('86.4 Override: 12.0 F is posted, but 86.4 B is computed.');
    expect(within(other!).queryByRole('img')).toBeNull();
  });

  it('whose last work came to nothing says why', async () => {
    await show(
      fileOf({ status: 'read', plan: null, problem: { title: 'It could not be planned', detail: 'Row 7: …' } }),
    );
    expect(screen.getByRole('alert').textContent).toBe('It could not be plannedRow 7: …');
  });
});

describe('the files of a period', () => {
  const summary = (over: Partial<FileImportSummaryReply>): FileImportSummaryReply => ({
    id: 9,
    fileName: 'winter.csv',
    section: 'Knots 1',
    status: 'planned',
    stepsDone: 0,
    stepCount: 0,
    readBy: 'Morwenna Lark',
    readAt: '2026-01-21T09:00:00Z',
    written: 0,
    ...over,
  });

  it('are counted, those that wait apart; one opens by a click', async () => {
    const files = [
      summary({}),
      summary({ id: 8, fileName: 'autumn.csv', status: 'accepted', section: null, written: 40 }),
    ];
    const { person } = await show(fileOf(), { 'GET /file-imports': files }, 'files');
    expect(headline()).toBe('1 file is imported for Quarter 2; 1 file waits for you.');
    expect(screen.getByText('several').tagName).toBe('SPAN');
    await person.click(screen.getByText('winter.csv'));
    await expect.poll(headline).toMatch(/^For Knots 1 this file brings/);
  });

  it('begin with one that is dropped, which is then shown', async () => {
    const { sent } = await show(fileOf(), { 'POST /file-imports': fileOf() }, 'files');
    const area = screen.getByText('Drop an export of a learning platform here.').closest('div')!;
    fireEvent.drop(area, { dataTransfer: { files: [new File(['a,b'], 'winter.csv')] } });
    await expect.poll(headline).toMatch(/^For Knots 1 this file brings/);
    expect(sent.some(({ request }) => request === 'POST /file-imports')).toBe(true);
  });

  it('refuse one that is too large before it travels, and say why one could not be read', async () => {
    const { sent, person } = await show(
      fileOf(),
      { 'POST /file-imports': { status: 422, title: 'Not a table', detail: 'winter.pdf is no table.', errors: [] } },
      'files',
    );
    const field = screen.getByLabelText('Export file');
    const huge = new File(['x'], 'huge.csv');
    Object.defineProperty(huge, 'size', { value: 200 * 1024 * 1024 });
    await person.upload(field, huge);
    expect(screen.getByText(/huge\.csv/).textContent).toMatch(/128 MB/);
    expect(sent.some(({ request }) => request.startsWith('POST'))).toBe(false);
    await person.upload(field, new File(['x'], 'winter.csv'));
    expect(within(await screen.findByRole('alert')).getByText('winter.pdf is no table.')).not.toBeNull();
  });
});
