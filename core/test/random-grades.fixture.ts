import * as fc from 'fast-check';
import type { AttendanceSummary } from '#core/attendance';
import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow } from '#core/numbers';
import { grade } from './grade-fact.fixture.js';

const some = <T>(...values: T[]) => fc.constantFrom(...values);
const days = some(
  null,
  ...['1970-01-01', '2025-10-02', '2025-11-10', '2026-01-16', '2026-02-01'].map((day) => dayOrThrow(day)),
);
const numbers = some(null, ...['-1', '0', '4', '59.95', '86.4', '100.01', '250'].map((text) => decimalOrThrow(text)));

export const finn = { givenNames: ['Finn'] };
export const classmates = [finn, { givenNames: ['Tamsin'] }];
/** What the registers of a student tell who came until January. */
export const registers: AttendanceSummary = {
  lastPresent: dayOrThrow('2026-01-14'),
  lastMissed: dayOrThrow('2026-01-16'),
  daysTaken: 5,
  daysMissed: 1,
};

/** Marks that are right, and marks that are wrong in all ways. */
export const randomMarks = fc.record({
  percent: numbers,
  label: some(null, 'A', 'B', 'F', 'S', ''),
  code: some(null, 'INC', 'EXM', 'P', 'NVA', 'OLD', 'LAP', 'ZZ'),
  lastDate: days,
  hours: numbers,
  comment: some('', 'Finn', 'x'.repeat(31), '😀 שלום', '{braces}'),
  isInternal: fc.boolean(),
  overrideReason: some('', 'Why not'),
});

/** Grades with such marks, and all that stands around them. */
export const randomGrades = fc
  .record({
    mark: randomMarks,
    proposal: fc.option(randomMarks),
    computed: numbers,
    computedThen: numbers,
    enteredOn: days,
    withdrawnOn: days,
    postedAt: some(null, '2026-01-09T15:20:00.000Z', '2026-01-20T15:20:00.000Z'),
    attendance: some(null, registers, { ...registers, lastPresent: null }),
    isLevel: fc.boolean(),
    allowsExempt: fc.boolean(),
    item: fc.record({ isComposite: fc.boolean(), asksHours: fc.boolean(), failingNeedsLastDate: fc.boolean() }),
  })
  .map(({ isLevel, ...fact }) =>
    grade({ ...fact, named: finn, classmates, scale: isLevel ? { highestLevel: decimalOrThrow('4') } : {} }),
  );
