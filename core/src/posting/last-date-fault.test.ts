import { expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { lastDateFault } from './index.js';

const period = { startsOn: dayOrThrow('2025-11-10'), endsOn: dayOrThrow('2026-01-23') };

it.each([
  ['2025-11-10', undefined],
  ['2026-01-23', undefined],
  ['2025-11-09', 'day-outside'],
  ['2026-01-24', 'day-outside'],
  ['1899-12-30', 'day-placeholder'],
  ['1970-01-01', 'day-placeholder'],
])('%s as a last date of 10 November to 23 January: %s', (day, fault) =>
  expect(lastDateFault(dayOrThrow(day), period)).toBe(fault),
);
