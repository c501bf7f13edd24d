import { expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { waiverState } from './index.js';

const finding = { message: 'differs', data: { percent: '86.4', label: 'B+' } };
const day = dayOrThrow;
const today = day('2026-01-21');

it.each([
  ['for good', { ...finding, until: null }, 'holds'],
  ['until tomorrow', { ...finding, until: day('2026-01-22') }, 'holds'],
  ['until today', { ...finding, until: today }, 'holds'],
  ['until yesterday', { ...finding, until: day('2026-01-20') }, 'over'],
  ['of the same in another order', { ...finding, data: { label: 'B+', percent: '86.4' }, until: null }, 'holds'],
  ['of another percentage', { ...finding, data: { ...finding.data, percent: '86.5' }, until: null }, 'changed'],
  ['of another message', { ...finding, message: 'no-label', until: null }, 'changed'],
  ['of something else, and over', { ...finding, message: 'no-label', until: day('2026-01-20') }, 'changed'],
])('a waiver %s', (_says, waiver, state) => expect(waiverState(waiver, finding, today)).toBe(state));
