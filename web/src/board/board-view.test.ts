import { describe, expect, it } from 'vitest';
import { board, boardItem, boardSection, boardSheet, now, signedOff } from '../../test/board.fixture';
import { boardFilters, found, rowsOf, sheetsOf, type BoardFilter } from './board-view';
import { nextSheet } from './next-sheet';

const afterwards = '2026-01-25T17:00:00.000Z';
const names = (sheets: ReturnType<typeof sheetsOf>) =>
  sheets.map(({ section, item }) => `${section.section} ${item.name}`);

describe('sheets of a board', () => {
  it('are all of its sections, or those of one item', () => {
    expect(names(sheetsOf(board(), now, 2))).toEqual(['Knots 2 Exam']);
    expect(sheetsOf(board(), now, null)).toHaveLength(5);
    expect(sheetsOf(board(), now, 99)).toEqual([]);
  });

  it('are late from the minute that their window closes until they are signed off', () => {
    const late = (at: string) => names(sheetsOf(board(), at, null).filter((sheet) => sheet.late > 0));
    expect(late('2026-01-23T17:00:00.000Z')).toEqual([]);
    expect(late(afterwards)).toEqual([
      'Knots 2 Quarter grade',
      'Shore Life 1 Quarter grade',
      'Letters 1 Quarter grade',
    ]);
  });

  it.each([
    ['before their window opens', board(), '2026-01-18T10:00:00.000Z'],
    ['where there is no window', board({ items: [boardItem(1, 'Quarter grade', { window: null })] }), now],
    ['once the period is sealed', board({ sealedAt: now }), afterwards],
    [
      'where nobody is graded',
      board({ sections: [boardSection(1, 'Knots 1', [boardSheet(1, { expected: 0 })])] }),
      now,
    ],
  ])('are no work %s', (_when, given, at) => {
    const sheets = sheetsOf(given, at, null);
    expect([sheets.some(({ isDue }) => isDue), found(sheets, 'open'), found(sheets, 'blanks')]).toEqual([
      false,
      [],
      [],
    ]);
  });

  it.each<[BoardFilter, string[]]>([
    ['open', ['Knots 2 Quarter grade', 'Shore Life 1 Quarter grade', 'Letters 1 Quarter grade']],
    ['blanks', ['Shore Life 1 Quarter grade', 'Letters 1 Quarter grade']],
    ['dates', ['Shore Life 1 Quarter grade']],
    ['codes', ['Shore Life 1 Quarter grade']],
    ['overrides', []],
    ['comments', []],
    ['late', []],
    ['requests', []],
  ])('are found by what they lack: %s', (filter, expected) => {
    expect(names(found(sheetsOf(board(), now, null), filter))).toEqual(expected);
    expect(boardFilters).toContain(filter);
  });
});

describe('lines of a board', () => {
  it('put first what is late or asked for, then what is open, by what is left to do', () => {
    const asked = board();
    const sections = asked.sections.map((section) =>
      section.sectionId === 1 ? { ...section, sheets: [boardSheet(1, {}, { signedOff, requests: 1 })] } : section,
    );
    const rows = rowsOf(sheetsOf({ ...asked, sections }, now, null), 'section');
    expect(rows.map(({ section }) => section.section)).toEqual(['Knots 1', 'Letters 1', 'Shore Life 1', 'Knots 2']);
  });

  it('gather sheets by teacher and by department, counting only what is due', () => {
    const shown = (by: 'teacher' | 'department') =>
      rowsOf(sheetsOf(board(), now, null), by).map(({ key, due, signedOff: done, blanks, expected }) => [
        key,
        due,
        done,
        blanks,
        expected,
      ]);
    expect(shown('teacher')).toEqual([
      ['8', 1, 0, 20, 20],
      ['7', 4, 2, 3, 80],
    ]);
    expect(shown('department')[0]).toEqual(['Letters', 1, 0, 20, 20]);
    expect(
      rowsOf(sheetsOf(board(), '2026-01-18T10:00:00.000Z', null), 'teacher').map(({ due, blanks }) => [due, blanks]),
    ).toEqual([
      [0, 0],
      [0, 0],
    ]);
  });
});

describe('the next sheet', () => {
  const after = (sectionId: number, isOnBehalf: boolean) => nextSheet(board(), { sectionId, itemId: 1 }, isOnBehalf);
  it('comes after the one that was signed off, then from the beginning', () => {
    expect(after(2, false)).toEqual({ sectionId: 3, itemId: 1 });
    expect(after(4, false)).toEqual({ sectionId: 2, itemId: 1 });
  });

  it('is of the same teacher for who acts on their behalf, and none where none waits', () => {
    expect(after(3, true)).toEqual({ sectionId: 2, itemId: 1 });
    expect(after(4, true)).toBeUndefined();
    expect(nextSheet(board({ sealedAt: now }), { sectionId: 1, itemId: 1 }, false)).toBeUndefined();
  });
});
