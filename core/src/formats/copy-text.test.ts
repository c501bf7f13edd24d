import fc from 'fast-check';
import { expect, it } from 'vitest';
import { copyLine, readCopyLines } from './index.js';

// PostgreSQL 15 documentation, COPY, Text Format: tabs between, \N for null, a backslash before what would be misread.
it.each([
  { row: [1, 'cockle', null], line: '1\tcockle\t\\N\n' },
  { row: ['a\tb', 'c\nd', 'e\rf'], line: 'a\\tb\tc\\nd\te\\rf\n' },
  { row: ['\\N', '\\'], line: '\\\\N\t\\\\\n' },
  { row: [''], line: '\n' },
])('writes $row as one line', ({ row, line }) => {
  expect(copyLine(row)).toBe(line);
  expect(readCopyLines(line)).toEqual([row.map((value) => (value === null ? null : String(value)))]);
});

it('reads the letters that stand for signs, and what has no meaning as itself', () => {
  expect(readCopyLines('\\b\\f\\v\t\\q\n')).toEqual([['\b\f\v', 'q']]);
});

it('reads what it wrote, whatever the rows hold', () => {
  const rows = fc.array(fc.array(fc.option(fc.string({ unit: 'binary' })), { minLength: 1, maxLength: 4 }));
  const isReadBack = (given: (string | null)[][]) => {
    expect(readCopyLines(given.map(copyLine).join(''))).toEqual(given);
  };
  fc.assert(fc.property(rows, isReadBack), { seed: 15 });
});
