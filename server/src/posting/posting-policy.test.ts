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
  ['teacher', 'grace', false, true],
  ['teacher', 'closed', true, false],
  ['teacher', 'not yet open', true, false],
  ['registrar', 'open', false, true],
  ['registrar', 'closed', false, false],
  ['registrar', 'closed', true, true],
  ['registrar', 'not yet open', true, true],
] as const)('a %s posts while the window is %s, saying so %s: %s', (role, state, saysOutside, expected) => {
  expect(canPost({ role }, { state, latePosters: 'registrars' }, saysOutside)).toBe(expected);
});

it.each([
  ['teacher', 'teachers', 'closed', false, true],
  ['teacher', 'teachers', 'not yet open', false, false],
  ['registrar', 'nobody', 'closed', true, false],
  ['registrar', 'teachers', 'closed', false, true],
] as const)(
  'a %s, where %s post late and the window is %s, saying so %s: %s',
  (role, latePosters, state, saysOutside, expected) => {
    expect(canPost({ role }, { state, latePosters }, saysOutside)).toBe(expected);
  },
);

it('where no window was ever set, only a registrar who says so posts', () => {
  expect([canPost({ role: 'teacher' }, null, true), canPost({ role: 'registrar' }, null, true)]).toEqual([false, true]);
});
