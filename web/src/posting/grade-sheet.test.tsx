import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { SaveSheetRequest, SheetReply } from '#contract/posting';
import { dayOrThrow } from '#core/calendar';
import { made, showAt } from '../../test/show-at.fixture';
import { GradeSheet } from './grade-sheet';
import { markDrafts } from './mark-drafts';
import { discardDrafts } from '../shell/kept-drafts';
import { blankMark, sheetOf, sheetRow } from '../../test/sheet.fixture';

const sheetKey = { sectionId: 1, itemId: 1, periodId: 4 };
const address = 'PUT /grade-sheets/1/1/4';
const openWindow = { state: 'open', opensAt: '', closesAt: '', graceMinutes: 0 } as unknown as SheetReply['window'];
const sheet = sheetOf(
  [
    sheetRow(1),
    sheetRow(2, { withdrawnOn: dayOrThrow('2025-12-01') }),
    sheetRow(3),
    sheetRow(4, { mark: { ...blankMark, percent: '91', label: 'A' }, version: 2 }),
  ],
  { window: openWindow },
);

function open(more: Partial<SheetReply> = {}, answers: Parameters<typeof showAt>[1] = {}) {
  const view = showAt(<GradeSheet sheet={{ ...sheet, ...more }} sheetKey={sheetKey} />, {
    address: 'sheet',
    ...answers,
  });
  const grid = screen.getByRole('grid', { name: 'Grade sheet' });
  grid.focus();
  return { ...view, grid };
}
const row = (student: number) => screen.getByRole('row', { name: new RegExp(`^Student ${student}`) });
/** The columns: student, computed, its label, percent, label or code, last date, comment, notes. */
const textsOf = (student: number) =>
  within(row(student))
    .getAllByRole('gridcell')
    .slice(2, 6)
    .map(({ textContent }) => textContent);
const atCursor = (grid: HTMLElement) => document.getElementById(grid.getAttribute('aria-activedescendant')!)!;
const paste = (grid: HTMLElement, text: string) => fireEvent.paste(grid, { clipboardData: { getData: () => text } });

beforeEach(() => discardDrafts());

describe('a sheet by keyboard', () => {
  it('types over a cell, goes down, passes over who has left, and names the cell with the cursor', async () => {
    const { person, grid } = open();
    await person.keyboard('95{Enter}');
    expect(textsOf(1)).toEqual(['95.0', 'A', '', '']);
    expect(row(3).contains(atCursor(grid))).toBe(true);
    expect(atCursor(grid).getAttribute('aria-colindex')).toBe('4');
    await person.keyboard('{ArrowRight}b{Tab}16 jan{Enter}');
    expect(textsOf(3)).toEqual(['', 'B', 'Jan 16, 2026', '']);
  });

  it('Esc keeps what was there, Delete empties, Ctrl+Z brings it back, Ctrl+D fills down', async () => {
    const { person } = open();
    await person.keyboard('7{Escape}{ArrowDown}{ArrowDown}{ArrowDown}{Delete}');
    expect([textsOf(1)[0], textsOf(4)[0]]).toEqual(['blank', 'blank']);
    await person.keyboard('{Control>}z{/Control}');
    expect(textsOf(4)[0]).toBe('91.0');
    await person.keyboard('{ArrowUp}80{Enter}{ArrowUp}{Shift>}{ArrowDown}{/Shift}{Control>}d{/Control}');
    expect([textsOf(3)[0], textsOf(4)[0]]).toEqual(['80.0', '80.0']);
  });

  it('keys that begin no number are keys of the screen, and type where there is text', async () => {
    const { person, grid } = open();
    await person.keyboard('j');
    expect(row(2).contains(atCursor(grid))).toBe(true);
    await person.keyboard('jj{ArrowRight}{ArrowRight}{ArrowRight}jolly{Enter}');
    expect(textsOf(4)[3]).toBe('jolly');
  });

  it('what cannot be read stays where it was typed, with the reason, and nothing of it is saved', async () => {
    const { person } = open();
    await person.keyboard('9x{Enter}');
    expect(textsOf(1)[0]).toBe('9x');
    expect(screen.getByRole('alert').textContent).toBe('“9x”: A percentage is a number such as 86.4.');
    expect(screen.getByRole('button', { name: /^Save/ })).toHaveProperty('disabled', true);
  });
});

describe('a block from a spreadsheet', () => {
  it('keeps a cell with a line break together, so that nobody gets the grade of the next', () => {
    const { grid } = open();
    paste(grid, '91\tA\t\t"Good work\nkeep going"\n50\tB\t\tgone\n82\t\t\tfine\n1\n2\n');
    expect(textsOf(1)).toEqual(['91.0', 'A', '', 'Good work\nkeep going']);
    expect(textsOf(3)).toEqual(['82.0', 'B', '', 'fine']);
    expect(within(row(2)).queryByText('gone')).toBeNull();
  });

  it('says how many rows and columns found no place', async () => {
    const { grid, person } = open();
    await person.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}{End}');
    paste(grid, 'a\tb\nc\td\ne\tf');
    expect(await screen.findByText('2 pasted rows below the last row were skipped.')).toBeTruthy();
    expect(await screen.findByText('1 pasted column beyond the last column was skipped.')).toBeTruthy();
  });

  it('lands on no sealed sheet', async () => {
    const { grid, person } = open({ sealedAt: '2026-02-01T10:00:00Z' });
    paste(grid, '50\n60');
    await person.keyboard('7');
    expect([textsOf(1)[0], textsOf(3)[0]]).toEqual(['blank', 'blank']);
    expect(await screen.findByText('This is read only: nothing was pasted.')).toBeTruthy();
  });
});

it('what is typed while a save is under way is still there when it is done', async () => {
  let answer: (reply: object) => void = () => undefined;
  const later = new Promise<object>((done) => {
    answer = done;
  });
  const { person, sent } = open({}, { answers: { [address]: () => later } });
  await person.keyboard('95{Enter}{Control>}s{/Control}66{Enter}');
  const saves = sent.filter(({ request }) => request === address);
  expect(saves.map(({ body }) => (body as SaveSheetRequest).changes.map(({ percent }) => percent))).toEqual([['95']]);
  answer(
    made(9, {
      receipt: null,
      rows: [{ ...sheetRow(1), mark: { ...blankMark, percent: '95', label: 'A' }, version: 1 }],
    }),
  );
  await waitFor(() => expect(Object.keys(markDrafts.get('1/1/4')?.now ?? {})).toEqual(['3']));
  expect(textsOf(3)[0]).toBe('66.0');
});
