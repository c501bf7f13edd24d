import { expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { moveObstacle } from './index.js';

const day = dayOrThrow;
const seat = { sectionId: 1, studentId: 7, enteredOn: day('2025-09-01'), withdrawnOn: null };
const target = { id: 2, startsOn: day('2025-09-01'), endsOn: day('2026-01-23'), studentIds: [8] };

it.each([
  ['on a day in between', {}, {}, '2025-10-06', null],
  ['on the last day of the new section', {}, {}, '2026-01-23', null],
  ['to the same section', {}, { id: 1 }, '2025-10-06', 'same-section'],
  ['to one where they had a seat', {}, { studentIds: [7] }, '2025-10-06', 'seated-there'],
  ['after the new section ended', {}, {}, '2026-01-24', 'section-not-running'],
  ['on the day they came', {}, {}, '2025-09-01', 'before-entered'],
  ['on the day after', {}, {}, '2025-09-02', null],
  ['after they left', { withdrawnOn: day('2025-10-03') }, {}, '2025-10-06', 'withdrawn-before'],
  ['on the day that they leave anyway', { withdrawnOn: day('2025-10-06') }, {}, '2025-10-06', null],
] as const)('a student moves %s', (_what, over, there, enteredOn, code) => {
  expect(moveObstacle({ ...seat, ...over }, { ...target, ...there }, day(enteredOn))?.code ?? null).toBe(code);
});
