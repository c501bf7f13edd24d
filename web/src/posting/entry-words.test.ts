import { expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { entryFaultWords } from './entry-words';

const period = { startsOn: dayOrThrow('2025-11-10'), endsOn: dayOrThrow('2026-01-23') };
const percents = { known: ['A', 'B', 'INC'], highestLevel: null, highestPercent: '105', period };
const levels = { known: ['4', '3', 'INC'], highestLevel: '4', highestPercent: '100', period };

it.each([
  ['percent-unreadable', percents, 'A percentage is a number such as 86.4.'],
  ['percent-unreadable', levels, 'A level is a number such as 2.5.'],
  ['percent-negative', percents, 'A percentage is not below 0.'],
  ['percent-negative', levels, 'A level is not below 0.'],
  ['percent-too-high', percents, 'A percentage is at most 105 here.'],
  ['level-too-high', levels, 'A level is from 0 to 4; percentages are not accepted here.'],
  ['percent-too-exact', percents, 'At most two decimals, such as 86.45.'],
  ['percent-too-exact', levels, 'At most two decimals, such as 2.45.'],
  ['label-unknown', levels, 'One of 4, 3, INC.'],
] as const)('%s says what would be right on its sheet', (code, taken, says) =>
  expect(entryFaultWords(code, taken)).toBe(says),
);
