import { expect, it } from 'vitest';
import { readCopyLines } from '#core/formats';
import { decimalOrThrow } from '#core/numbers';
import { noMark } from '#core/posting';
import type { BookItem } from '#core/report-items';
import { gradeRowsOf, type Fields, type GradeFields } from './grade-fields.js';

const quarter = { kind: 'quarter' } as const;
const whole: BookItem = { id: 1, source: 'gradeBook', kind: 'period', categoryId: null, periodKind: 'quarter' };
const byHand: BookItem = { ...whole, id: 2, source: 'hand' };
const standard: BookItem = { ...whole, id: 3, kind: 'standard', categoryId: 7 };

const seat = (enrollmentId: number, ...book: Fields): Fields => [
  enrollmentId,
  5,
  900 + enrollmentId,
  'Carrow, Hale',
  '1042',
  '2025-09-01',
  null,
  'she',
  ...(book.length > 0 ? book : [null, null, null]),
];
const mark: Fields = ['86.40', 'B', null, '2026-01-09', '12.5', 'Well begun.', 1, 'Agreed'];
const saved: Fields = ['86.35', 1, 3, 2, 11, 'Wenna Tregear', '2026-01-21T10:42:00.000Z'];
const posted = (itemId: number, enrollmentId: number): Fields => [itemId, enrollmentId, ...mark, ...saved];
const nothing: GradeFields = { seats: [], posted: [], computed: [] };
const rowsOf = (items: readonly BookItem[], fields: Partial<GradeFields>) =>
  gradeRowsOf(items, quarter, { ...nothing, ...fields });
const computedIn = (items: readonly BookItem[], fields: Partial<GradeFields>) =>
  [...rowsOf(items, fields)].map(([id, [row]]) => [id, row!.computed, row!.blockedBy]);

it('puts what is posted for an item to the student it is of, and nothing to the others', () => {
  const rows = rowsOf([whole, byHand], { seats: [seat(1), seat(2)], posted: [posted(2, 2)] });
  expect([...rows.keys()]).toEqual([1, 2]);
  expect(rows.get(1)!.map(({ enrollmentId, mark, version }) => [enrollmentId, mark, version])).toEqual([
    [1, noMark, 0],
    [2, noMark, 0],
  ]);
  expect(rows.get(2)!.map(({ version }) => version)).toEqual([0, 3]);
  expect(rows.get(2)![1]).toEqual({
    enrollmentId: 2,
    sectionId: 5,
    studentId: 902,
    student: 'Carrow, Hale',
    studentNumber: '1042',
    enteredOn: '2025-09-01',
    withdrawnOn: null,
    pronoun: 'she',
    mark: {
      percent: decimalOrThrow('86.40'),
      label: 'B',
      code: null,
      lastDate: '2026-01-09',
      hours: decimalOrThrow('12.5'),
      comment: 'Well begun.',
      isInternal: true,
      overrideReason: 'Agreed',
    },
    computedThen: decimalOrThrow('86.35'),
    isOverride: true,
    version: 3,
    carriedVersion: 2,
    scaleVersionId: 11,
    postedBy: 'Wenna Tregear',
    postedAt: new Date('2026-01-21T10:42:00.000Z'),
    computed: null,
    blockedBy: [],
  });
});

it('has no row where there is no seat', () => {
  expect(rowsOf([whole], { posted: [posted(1, 1)] })).toEqual(new Map());
});

it('takes what the whole book comes to for items of the whole book alone', () => {
  const seats = [seat(1, '86.4', '3.2', null)];
  expect(computedIn([whole, byHand, standard], { seats })).toEqual([
    [1, { percent: decimalOrThrow('86.4'), level: decimalOrThrow('3.2'), file: null }, []],
    [2, null, []],
    [3, null, []],
  ]);
});

it('says which assignments keep the book from coming to anything, of its items only', () => {
  expect(computedIn([whole, byHand], { seats: [seat(1, null, null, '[41, 42]')] })).toEqual([
    [1, null, [41, 42]],
    [2, null, []],
  ]);
});

it('takes what its own category comes to for an item of a category', () => {
  const seats = [seat(1, '86.4', null, null)];
  expect(computedIn([standard], { seats, computed: [[3, 1, '71', '2', null, null, null]] })).toEqual([
    [3, { percent: decimalOrThrow('71'), level: decimalOrThrow('2'), file: null }, []],
  ]);
  expect(computedIn([standard], { seats, computed: [[3, 1, null, null, '[41]', null, null]] })).toEqual([
    [3, null, [41]],
  ]);
});

const ofFile: Fields = [3, 1, '64', '64', null, 8, 120];
const ofCategory: Fields = [3, 1, '71', '2', null, null, null];
it.each([
  ['before', [ofFile, ofCategory]],
  ['after', [ofCategory, ofFile]],
])('what a file says goes before the grade book, told %s it', (_when, computed) => {
  expect(computedIn([standard], { seats: [seat(1)], computed })).toEqual([
    [3, { percent: decimalOrThrow('64'), level: decimalOrThrow('64'), file: { importId: 8, importRow: 120 } }, []],
  ]);
});

it('reads copied lines, all of them texts, as it reads rows', () => {
  const fields = {
    seats: [seat(1, '86.4', null, null), seat(2)],
    posted: [posted(1, 2)],
    computed: [ofFile, ofCategory],
  };
  const copied = (lines: readonly Fields[]) =>
    readCopyLines(lines.map((line) => `${line.map((field) => field ?? '\\N').join('\t')}\n`).join(''));
  const texts = {
    seats: copied(fields.seats),
    posted: copied(fields.posted),
    computed: copied(fields.computed),
  };
  expect(rowsOf([whole, standard], texts)).toEqual(rowsOf([whole, standard], fields));
});
