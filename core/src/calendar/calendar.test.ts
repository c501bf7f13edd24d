import { expect, it, test } from 'vitest';
import {
  addDays,
  dayOrThrow,
  daysBetween,
  isPlaceholderDay,
  isWithin,
  minutesUntil,
  parseDay,
  windowState,
} from './index.js';

// Leap years as the Gregorian calendar has them (Inter gravissimas, 1582): every fourth, of the centuries every fourth.
test.each(['2000-02-29', '2024-02-29', '2026-12-31', '2026-01-01'])('%s is a day', (text) => {
  expect(parseDay(text)).toBe(text);
});

const noDays =
  '2026-02-30 2026-13-01 2026-00-10 2026-04-31 2026-01-00 2026-01-32 1900-02-29 2025-02-29 26-01-01 2026-1-1 2026-01-01T00 today';
test.each(noDays.split(' '))('%s is no day', (text) => {
  expect(parseDay(text)).toBeUndefined();
  expect(() => dayOrThrow(text)).toThrow(RangeError);
});

it('counts days across the end of February', () => {
  expect(daysBetween(dayOrThrow('2026-02-27'), dayOrThrow('2026-03-02'))).toBe(3);
  expect(addDays(dayOrThrow('2024-02-28'), 1)).toBe('2024-02-29');
});

// Spreadsheet serial 0 and 1 and their neighbours, and the zero of POSIX time: ECMA-376 part 1, 18.17.4.1.
test.each(['1899-12-30', '1899-12-31', '1900-01-01', '1970-01-01'])('%s is a placeholder', (text) => {
  expect(isPlaceholderDay(dayOrThrow(text))).toBe(true);
  expect(isPlaceholderDay(dayOrThrow('2026-01-16'))).toBe(false);
});

it('both ends of a period belong to it', () => {
  const quarter = { startsOn: dayOrThrow('2025-11-10'), endsOn: dayOrThrow('2026-01-30') };
  const within = ['2025-11-09', '2025-11-10', '2026-01-30', '2026-01-31'].map((day) =>
    isWithin(dayOrThrow(day), quarter),
  );
  expect(within).toEqual([false, true, true, false]);
});

it('a window is open from its first instant up to, not including, its last', () => {
  const window = { opensAt: '2026-01-19T08:00:00Z', closesAt: '2026-01-23T17:00:00Z' };
  expect(
    ['2026-01-19T07:59:59Z', '2026-01-19T08:00:00Z', '2026-01-23T17:00:00Z'].map((now) => windowState(window, now)),
  ).toEqual(['not yet open', 'open', 'closed']);
});

it.each([
  ['2026-01-23T16:00:00Z', 60],
  ['2026-01-23T16:58:30Z', 2],
  ['2026-01-23T16:59:59.999Z', 1],
  ['2026-01-23T17:00:00Z', 0],
  ['2026-01-24T08:00:00Z', 0],
])('at %s a window that closes at five has %i minutes left', (now, left) =>
  expect(minutesUntil('2026-01-23T17:00:00Z', now)).toBe(left),
);
