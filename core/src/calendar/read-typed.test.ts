import { describe, expect, it } from 'vitest';
import { dayOrThrow } from './day.js';
import { readTypedDay, type DayOrder } from './read-typed-day.js';
import { readTypedTime } from './read-typed-time.js';

const near = dayOrThrow('2026-01-16');
const read = (text: string, order: DayOrder) => readTypedDay(text, near, order);

describe('a typed day', () => {
  it.each([
    ['2026-01-23', '2026-01-23'],
    ['16 jan', '2026-01-16'],
    ['Jan 16', '2026-01-16'],
    ['January 12, 2026', '2026-01-12'],
    ['12th January 2026', '2026-01-12'],
    ['Sept. 3rd, 2025', '2025-09-03'],
    ['19 dec', '2025-12-19'],
    ['1 jul', '2026-07-01'],
    ['01/16/2026', '2026-01-16'],
    ['16/1', '2026-01-16'],
  ])('%s means %s in either country', (text, day) => {
    for (const order of ['dayFirst', 'monthFirst'] as const)
      expect(read(text, order)).toEqual({ kind: 'day', day, otherwise: null });
  });

  it.each([
    ['12/1/2026', '2026-01-12', '2026-12-01'],
    ['1.12.2026', '2026-12-01', '2026-01-12'],
    ['3-2', '2026-02-03', '2026-03-02'],
  ])('%s is %s where the day comes first, and %s where the month does', (text, dayFirst, monthFirst) => {
    expect(read(text, 'dayFirst')).toEqual({ kind: 'day', day: dayFirst, otherwise: monthFirst });
    expect(read(text, 'monthFirst')).toEqual({ kind: 'day', day: monthFirst, otherwise: dayFirst });
  });

  it.each([
    ['', 'blank'],
    ['soon', 'unreadable'],
    ['31 feb', 'unreadable'],
    ['13/13', 'unreadable'],
    ['16 foo', 'unreadable'],
    ['1/2/26', 'unreadable'],
    ['1900-01-01', 'placeholder'],
    ['30.12.1899', 'placeholder'],
  ])('%j is %s', (text, kind) => {
    expect(read(text, 'dayFirst').kind).toBe(kind);
  });
});

describe('a typed time', () => {
  it.each([
    ['17:00', '17:00'],
    ['17.30', '17:30'],
    ['1730', '17:30'],
    ['17', '17:00'],
    ['5 pm', '17:00'],
    ['5:30pm', '17:30'],
    ['12 am', '00:00'],
    ['12pm', '12:00'],
    [' 8:05 ', '08:05'],
    ['0:00', '00:00'],
    ['24:00', undefined],
    ['13 pm', undefined],
    ['0 am', undefined],
    ['17:60', undefined],
    ['', undefined],
    ['noon', undefined],
  ])('%j is %s', (text, time) => {
    expect(readTypedTime(text)).toBe(time);
  });
});
