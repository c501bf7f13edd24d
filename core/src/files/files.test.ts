import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatDecimal } from '#core/numbers';
import {
  checkChoice,
  findHeaderRow,
  findPlace,
  foldKey,
  planFileRow,
  proposeIdColumn,
  proposeSectionColumn,
  readingOf,
  RowsByPlace,
  sectionsByName,
  tellsSectionsApart,
  type Directory,
  type FileReading,
  type PlannedValue,
  type Roster,
} from './index.js';
import { readExportedPercent } from './read-exported-percent.js';
import { placeOf, stepsOf } from './roster.js';

const sections = { ecology: 11, history: 12 };
const total = { column: 1, itemId: 1 };

/** Carrow and Dace in ecology, Fenn in both, Orr has left; of Dace 88 and of Fenn 71.5 were taken in before. */
const roster: Roster = {
  studentIds: Int32Array.of(1, 2, 3, 3, 4),
  sectionIds: Int32Array.of(11, 11, 11, 12, 11),
  enrollmentIds: Int32Array.of(101, 102, 103, 104, 105),
  hasLeft: Int32Array.of(0, 0, 0, 0, 1),
  computed: new Map([[1, Float64Array.of(-1, 880_000_000_000, 715_000_000_000, -1, -1)]]),
};
const directory: Directory = {
  roster,
  students: new Map([
    ['s100', 1],
    ['hale.carrow@port-elowen.example', 1],
    ['s101', 2],
    ['s102', 3],
    ['s103', 4],
    ['s900', 9],
  ]),
  sections: new Map([
    ['tidal ecology 1', sections.ecology],
    ['harbour history 2', sections.history],
  ]),
  highestLevels: new Map(),
  reportedIn: new Map([
    [1, new Set([sections.ecology, sections.history])],
    [2, new Set([sections.ecology])],
  ]),
  labels: new Set(['b+', 'ex']),
};

/** Plans the rows as they follow the header. */
function plan(reading: FileReading, ...rows: readonly string[][]): PlannedValue[] {
  const byPlace = new RowsByPlace(roster.studentIds.length);
  rows.forEach((cells, at) => {
    const place = findPlace(cells, reading, directory);
    if (typeof place === 'number') byPlace.note(place, at + 2);
  });
  return rows.flatMap((cells, at) => planFileRow(at + 2, cells, reading, directory, byPlace));
}
const ofSection: FileReading = { idColumn: 0, section: { id: sections.ecology }, grades: [total] };

describe('what happens to a row of a file for one section', () => {
  it.each([
    ['new', 'S100', '86.4', 101, '86.4'],
    ['changed', 'S101', '88.25', 102, '88.25'],
    ['same', 's102', '71.50 %', 103, '71.5'],
    ['same', 's102', '71,5000', 103, '71.5'],
    ['blank', 'S100', '', 101, null],
    ['unknown', 'S555', '80', null, null],
    ['unknown', '', '80', null, null],
    ['not in section', 'S900', '80', null, null],
    ['withdrawn', 'S103', '80', 105, null],
    ['out of range', 'S100', '-4', 101, null],
    ['out of range', 'S100', '1000000000', 101, null],
    ['label', 'S100', ' b+ ', 101, null],
    ['label', 'S100', 'EX', 101, null],
    ['unreadable', 'S100', 'abc', 101, null],
    ['unreadable', 'S100', '1e9', 101, null],
  ])('%s', (outcome, id, value, enrollmentId, after) => {
    const [line] = plan(ofSection, [id, value]);
    expect([line!.outcome, enrollmentAt(line!), line!.after && formatDecimal(line!.after)]).toEqual([
      outcome,
      enrollmentId,
      after,
    ]);
  });

  it('a person who is there twice, once by e-mail, is written from neither row', () => {
    const lines = plan(ofSection, ['S100', '80'], ['Hale.Carrow@port-elowen.example', '81'], ['S101', '88']);
    expect(lines.map(({ outcome, sameAs }) => [outcome, sameAs])).toEqual([
      ['twice', [3]],
      ['twice', [2]],
      ['same', []],
    ]);
  });

  it('three rows of one person name each other', () => {
    const lines = plan(ofSection, ['S100', '80'], ['S100', '81'], ['S100', '']);
    expect(lines.map(({ sameAs }) => sameAs)).toEqual([
      [3, 4],
      [2, 4],
      [2, 3],
    ]);
  });

  it('unknown ids that are there twice stay unknown', () => {
    expect(plan(ofSection, ['X1', '80'], ['X1', '81']).map(({ outcome }) => outcome)).toEqual(['unknown', 'unknown']);
  });
});

describe('a file of a whole school', () => {
  const reading: FileReading = {
    idColumn: 0,
    section: { column: 2 },
    grades: [total, { column: 3, itemId: 2 }],
  };

  it('says for each row and each column of it what happens, in the section that the row names', () => {
    const lines = plan(
      reading,
      ['S102', '71.5', 'Tidal Ecology 1', '64'],
      ['S102', '90', 'HARBOUR HISTORY 2 ', '70'],
      ['S100', '80', 'Harbour History 2', ''],
      ['S100', '80', 'Sail Making 1', '55'],
    );
    expect(lines.map((line) => [line.row, line.grade.itemId, line.outcome, enrollmentAt(line)])).toEqual([
      [2, 1, 'same', 103],
      [2, 2, 'new', 103],
      [3, 1, 'new', 104],
      [3, 2, 'not reported', 104],
      [4, 1, 'not in section', null],
      [4, 2, 'not in section', null],
      [5, 1, 'unknown section', null],
      [5, 2, 'unknown section', null],
    ]);
  });

  it('a student in two sections is there once in each, not twice', () => {
    const lines = plan(reading, ['S102', '71', 'Tidal Ecology 1', ''], ['S102', '90', 'Harbour History 2', '']);
    expect(lines.map(({ outcome }) => outcome)).toEqual(['changed', 'blank', 'new', 'blank']);
  });
});

function enrollmentAt({ place }: PlannedValue): number | null {
  return place === -1 ? null : roster.enrollmentIds[place]!;
}

describe('the roster', () => {
  it('finds every place it has, and no other', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.tuple(fc.nat(40), fc.nat(40)), { selector: (pair) => pair.join('/') }), (pairs) => {
        const sorted = pairs.toSorted(([a, x], [b, y]) => a - b || x - y);
        const columns: Roster = {
          studentIds: Int32Array.from(sorted, ([student]) => student),
          sectionIds: Int32Array.from(sorted, ([, section]) => section),
          enrollmentIds: new Int32Array(sorted.length),
          hasLeft: new Int32Array(sorted.length),
          computed: new Map(),
        };
        for (let student = 0; student <= 40; student += 5)
          for (let section = 0; section <= 40; section++)
            expect(placeOf(columns, student, section)).toBe(
              sorted.findIndex(([s, t]) => s === student && t === section),
            );
      }),
      { numRuns: 60, seed: 20_260_121 },
    );
  });
});

describe('carrying a file out and planning it again', () => {
  it('gives only what is the same, or was left out before; nobody is written twice', () => {
    const value = fc.oneof(
      fc.integer({ min: 0, max: 20_000_000 }).map((steps) => String(steps / 100_000)),
      fc.constantFrom('', 'EX', '-3', '86,4 %', '89.44999999999999', 'soon'),
    );
    const row = fc.tuple(fc.constantFrom('S100', 's101', 'S102', 'S103', 'S555'), value);
    fc.assert(
      fc.property(fc.array(row, { maxLength: 8 }), (rows) => {
        const first = plan(ofSection, ...rows);
        const written = first.filter(({ outcome }) => outcome === 'new' || outcome === 'changed');
        expect(new Set(written.map(({ place }) => place)).size).toBe(written.length);
        const kept = roster.computed.get(1)!;
        const before = kept.slice();
        for (const { place, after } of written) kept[place] = stepsOf(after!);
        const again = plan(ofSection, ...rows);
        kept.set(before);
        expect(again.map(({ outcome }) => outcome)).toEqual(
          first.map(({ outcome }) => (outcome === 'new' || outcome === 'changed' ? 'same' : outcome)),
        );
      }),
      { numRuns: 300, seed: 20_260_121 },
    );
  });
});

describe('names of sections', () => {
  const named = (
    id: number,
    courseCode: string,
    courseTitle: string,
    number: number,
    sourcedId: string | null = null,
  ) => ({
    id,
    courseCode,
    courseTitle,
    number,
    sourcedId,
    rosterNames: id === 1 ? ['Ecology with Holm', 'ECO-H'] : [],
  });

  it.each([
    'Tidal Ecology 3',
    'tec101 3',
    'TEC101-3',
    'TEC101.3',
    'TEC101/3',
    'TEC1013',
    'class-77',
    'ecology with holm',
    'ECO-H',
  ])('%s', (name) => {
    const byName = sectionsByName([named(1, 'TEC101', 'Tidal Ecology', 3, 'class-77'), named(2, 'HIS1', 'History', 3)]);
    expect(byName.get(foldKey(name))).toBe(1);
  });

  it('that fit two sections fit neither', () => {
    const byName = sectionsByName([
      named(1, 'A1', 'Voice', 12),
      named(2, 'A', 'Voice', 112),
      named(3, 'A11', 'Bells', 2),
    ]);
    expect([byName.get('a112'), byName.get('a1-12'), byName.get('a-112'), byName.get('bells 2')]).toEqual([
      undefined,
      1,
      2,
      3,
    ]);
  });
});

describe('the choice of columns', () => {
  const choice = { idColumn: 0, sectionId: 5, sectionColumn: null, grades: [{ column: 2, itemId: 1 }] };

  it('is a reading when all of it is chosen; a column of sections goes before a section', () => {
    expect(readingOf(choice)).toEqual({ idColumn: 0, section: { id: 5 }, grades: choice.grades });
    expect(readingOf({ ...choice, sectionColumn: 1 })?.section).toEqual({ column: 1 });
    expect(readingOf({ ...choice, idColumn: null })).toBeNull();
    expect(readingOf({ ...choice, sectionId: null })).toBeNull();
    expect(readingOf({ ...choice, grades: [] })).toBeNull();
  });

  it.each([
    ['is right', {}, []],
    ['a column that is not there', { idColumn: 4 }, ['idColumn']],
    ['ids and sections in one column', { sectionColumn: 0 }, ['sectionColumn']],
    ['ids and grades in one column', { grades: [{ column: 0, itemId: 1 }] }, ['grades']],
    ['an item of another period', { grades: [{ column: 2, itemId: 9 }] }, ['grades']],
    [
      'an item from two columns',
      {
        grades: [
          { column: 2, itemId: 1 },
          { column: 3, itemId: 1 },
        ],
      },
      ['grades'],
    ],
  ])('%s', (_what, change, fields) => {
    expect(checkChoice({ ...choice, ...change }, 4, new Set([1, 2])).map(({ field }) => field)).toEqual(fields);
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
    [
      'is missing where data begin without figures',
      [
        ['Ada', 'S1', 'INC'],
        ['Bo', 'S2', '90'],
        ['Name', 'Number', 'Total'],
      ],
      undefined,
    ],
    ['is missing from a table of one column', [['Total'], ['80']], undefined],
  ])('%s', (_what, rows, expected) => expect(findHeaderRow(rows, (cell) => /^S\d$/.test(cell))).toBe(expected));
});

describe('proposed columns', () => {
  const header = ['Name', 'Number', 'Field work 1', 'Tests total', 'Final score (%)'];
  const rows = [
    ['Carrow, Hale', 'S100', '8', '70', '86.4'],
    ['Dace, Lowenna', 'S101', '9', '', '88'],
    ['Someone', 'S555', '9', '60', '91,5'],
  ];
  const isKnown = (id: string) => directory.students.has(id);

  it('the id column is where most values are known ids', () => {
    expect(proposeIdColumn(header, rows, isKnown)).toEqual({
      column: 1,
      confidence: 66,
      reason: { code: 'ids-known', known: 2, rows: 3 },
    });
    expect(proposeIdColumn(header, rows, () => false)).toBeUndefined();
  });

  it('a file tells sections apart by names that nobody knows, too', () => {
    const named = (...names: string[]) => names.map((name, at) => [`S10${at}`, name, '80']);
    const of = (heading: string, rows: string[][]) => tellsSectionsApart(['Number', heading, 'Total'], rows);
    const two = named('MTH101-01', 'MTH101-01', 'MTH101-02', 'MTH101-02');
    expect([of('Class', two), of('Section code', two), of('Family', two)]).toEqual([true, true, false]);
    expect(of('Class', named('MTH101-01', 'MTH101-01', 'MTH101-01', ''))).toBe(false);
    expect(of('Course', named('one', 'two', 'three', 'four'))).toBe(false); // as many as rows: no sections
  });

  it('the section column names known sections, and more than one', () => {
    const whole = [
      ['S100', 'Tidal Ecology 1', '80'],
      ['S102', 'harbour history 2', '81'],
      ['S103', 'Sail Making 1', '82'],
    ];
    expect(proposeSectionColumn(['Number', 'Class', 'Total'], whole, directory.sections)).toEqual({
      column: 1,
      confidence: 66,
      reason: { code: 'sections-known', known: 2, rows: 3 },
    });
    expect(proposeSectionColumn(['Number', 'Class', 'Total'], whole.slice(0, 1), directory.sections)).toBeUndefined();
  });
});

it.each([
  ['space and letter case', '  S100 ', 's100'],
  ['an apostrophe that makes a text of it', "'000123", '000123'],
  ['a formula that makes a text of it', '="S100"', 's100'],
])('an id is the same in spite of %s', (_what, written, folded) => {
  expect(foldKey(written)).toBe(folded);
});
