import { expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { isReseated, moveObstacle } from './index.js';

const day = dayOrThrow;
const seat = { sectionId: 1, studentId: 7, enteredOn: day('2025-09-01'), withdrawnOn: null, isUsed: true };
const target = { id: 2, startsOn: day('2025-09-01'), endsOn: day('2026-01-23'), studentIds: [8] };

it.each([
  ['on a day in between', {}, {}, '2025-10-06', null],
  ['on the last day of the new section', {}, {}, '2026-01-23', null],
  ['to the same section', {}, { id: 1 }, '2025-10-06', 'same-section'],
  ['to one where they had a seat', {}, { studentIds: [7] }, '2025-10-06', 'seated-there'],
  ['after the new section ended', {}, {}, '2026-01-24', 'section-not-running'],
  ['on the day they came', {}, {}, '2025-09-01', 'before-entered'],
  ['on the day they came, and nothing is scored yet', { isUsed: false }, {}, '2025-09-01', null],
  ['before the new section begins', { isUsed: false }, {}, '2025-08-31', 'section-not-running'],
  ['on the day after', {}, {}, '2025-09-02', null],
  ['after they left', { withdrawnOn: day('2025-10-03') }, {}, '2025-10-06', 'withdrawn-before'],
  ['on the day that they leave anyway', { withdrawnOn: day('2025-10-06') }, {}, '2025-10-06', null],
] as const)('a student moves %s', (_what, over, there, enteredOn, code) => {
  expect(moveObstacle({ ...seat, ...over }, { ...target, ...there }, day(enteredOn))?.code ?? null).toBe(code);
});

it.each([
  ['on the first day', '2025-09-01', false, true],
  ['before it', '2025-08-25', false, true],
  ['a day later', '2025-09-02', false, false],
  ['on the first day, with a score', '2025-09-01', true, false],
] as const)('a seat that is left %s goes along itself: %s, used: %s', (_what, enteredOn, isUsed, expected) => {
  expect(isReseated({ ...seat, isUsed }, day(enteredOn))).toBe(expected);
});
