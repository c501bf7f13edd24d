import { expect, it } from 'vitest';
import { canOpenSheet, canPost } from './posting-policy.js';

it.each([
  ['registrar', 1, 9, true],
  ['teacher', 9, 9, true],
  ['teacher', 1, 9, false],
] as const)('a %s (%i) opens the sheet of a section taught by %i: %s', (role, personId, teacherId, expected) => {
  expect(canOpenSheet({ role, personId }, { teacherId })).toBe(expected);
});

it.each([
  ['teacher', 'open', false, true],
  ['teacher', 'open', true, true],
  ['teacher', 'closed', true, false],
  ['teacher', 'not yet open', true, false],
  ['registrar', 'open', false, true],
  ['registrar', 'closed', false, false],
  ['registrar', 'closed', true, true],
  ['registrar', 'not yet open', true, true],
] as const)('a %s posts while the window is %s, saying so %s: %s', (role, window, saysOutside, expected) => {
  expect(canPost({ role }, window, saysOutside)).toBe(expected);
});
