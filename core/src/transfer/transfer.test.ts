import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import {
  findHeaderRow,
  planImport,
  proposeGradeColumn,
  proposeIdColumn,
  type Directory,
  type RosterEntry,
} from './index.js';
import { readExportedPercent } from './read-exported-percent.js';

const student = (enrollmentId: number, name: string, more: Partial<RosterEntry> = {}): RosterEntry => ({
  enrollmentId,
  name,
  withdrawnOn: null,
  computed: null,
  ...more,
});
const carrow = student(1, 'Carrow, Hale');
const directory: Directory = {
  roster: new Map([
    ['s100', carrow],
    ['hale.carrow@port-elowen.example', carrow],
    ['s101', student(2, 'Dace, Lowenna', { computed: decimalOrThrow('88') })],
    ['s102', student(3, 'Fenn, Idris', { computed: decimalOrThrow('71.5') })],
    ['s103', student(4, 'Orr, Sefton', { withdrawnOn: dayOrThrow('2025-12-01') })],
  ]),
  others: new Map([['s900', 'Vale, Mirren']]),
};
const plan = (...rows: [string, string][]) =>
  planImport(
    rows.map(([id, value], at) => ({ row: at + 2, id, value })),
    directory,
  );

describe('what happens to a row of a file', () => {
  it.each([
    ['new', 'S100', '86.4', 'Carrow, Hale', '86.4'],
    ['changed', 'S101', '88.25', 'Dace, Lowenna', '88.25'],
    ['same', 's102', '71.50 %', 'Fenn, Idris', '71.5'],
    ['blank', 'S100', '', 'Carrow, Hale', null],
    ['unknown', 'S555', '80', '', null],
    ['unknown', '', '80', '', null],
    ['not in section', 'S900', '80', 'Vale, Mirren', null],
    ['withdrawn', 'S103', '80', 'Orr, Sefton', null],
    ['out of range', 'S100', '-4', 'Carrow, Hale', null],
    ['out of range', 'S100', '1000000000', 'Carrow, Hale', null],
    ['unreadable', 'S100', 'abc', 'Carrow, Hale', null],
    ['unreadable', 'S100', '1e9', 'Carrow, Hale', null],
  ])('%s', (outcome, id, value, name, after) => {
    const [row] = plan([id, value]);
    expect([row!.outcome, row!.name, row!.after && formatDecimal(row!.after)]).toEqual([outcome, name, after]);
  });

  it('a person who is there twice, once by e-mail, is written from neither row', () => {
    const rows = plan(['S100', '80'], ['Hale.Carrow@port-elowen.example', '81'], ['S101', '88']);
    expect(rows.map(({ outcome, sameAs }) => [outcome, sameAs])).toEqual([
      ['twice', [3]],
      ['twice', [2]],
      ['same', []],
    ]);
  });

  it('unknown ids that are there twice stay unknown', () => {
    expect(plan(['X1', '80'], ['X1', '81']).map(({ outcome }) => outcome)).toEqual(['unknown', 'unknown']);
  });
});

describe('percents of exports', () => {
  it.each([
    ['86.40000000000001', '86.4'],
    ['86,4333333333 %', '86.4333333333'],
    ['89.44999999999999', '89.45'],
    ['90', '90'],
    ['0.00', '0'],
    ['71.123456789012345678901', '71.123456789'],
  ])('%s is %s', (text, expected) => {
    const read = readExportedPercent(text);
    expect(read.kind === 'percent' && formatDecimal(read.percent)).toBe(expected);
  });
});

describe('the header row', () => {
  it.each([
    [
      'is the first of a plain table',
      [
        ['Id', 'Total'],
        ['S1', '80'],
        ['S2', '90'],
      ],
      0,
    ],
    [
      'comes after title lines',
      [
        ['Tidal Ecology 3', '', ''],
        ['', '', ''],
        ['Name', 'Number', 'Total'],
        ['A', 'S1', '80'],
      ],
      2,
    ],
    [
      'is missing where figures start at once',
      [
        ['S1', '80'],
        ['S2', '90'],
      ],
      undefined,
    ],
    ['is missing from a table of one column', [['Total'], ['80']], undefined],
  ])('%s', (_what, rows, expected) => expect(findHeaderRow(rows)).toBe(expected));
});

describe('proposed columns', () => {
  const header = ['Name', 'Number', 'Field work 1', 'Tests total', 'Final score (%)'];
  const rows = [
    ['Carrow, Hale', 'S100', '8', '70', '86.4'],
    ['Dace, Lowenna', 'S101', '9', '', '88'],
    ['Someone', 'S555', '9', '60', '91,5'],
  ];
  const isKnown = (id: string) => directory.roster.has(id);

  it('the id column is where most values are known ids', () => {
    expect(proposeIdColumn(header, rows, isKnown)).toEqual({
      column: 1,
      confidence: 66,
      reason: { code: 'ids-known', known: 2, rows: 3 },
    });
    expect(proposeIdColumn(header, rows, () => false)).toBeUndefined();
  });

  it('the grade column holds percents and is called a total, the better word before the better place', () => {
    expect(proposeGradeColumn(header, rows, 1)).toMatchObject({ column: 4, reason: { word: 'final', percents: 3 } });
    expect(proposeGradeColumn(['Number', 'Remark'], [['S100', 'good']], 0)).toBeUndefined();
  });
});
