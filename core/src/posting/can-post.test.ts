import { expect, it } from 'vitest';
import { canPost } from './can-post.js';

const [registrar, teacher] = [true, false];

it.each([
  ['teacher', teacher, 'open', false, true],
  ['teacher', teacher, 'open', true, true],
  ['teacher', teacher, 'grace', false, true],
  ['teacher', teacher, 'closed', true, false],
  ['teacher', teacher, 'not yet open', true, false],
  ['registrar', registrar, 'open', false, true],
  ['registrar', registrar, 'closed', false, false],
  ['registrar', registrar, 'closed', true, true],
  ['registrar', registrar, 'not yet open', true, true],
] as const)('a %s (%s) posts while the window is %s, saying so %s: %s', (_who, outside, state, says, expected) => {
  expect(canPost({ state, latePosters: 'registrars' }, outside, says)).toBe(expected);
});

it.each([
  ['teacher', teacher, 'teachers', 'closed', false, true],
  ['teacher', teacher, 'teachers', 'not yet open', false, false],
  ['registrar', registrar, 'nobody', 'closed', true, false],
  ['registrar', registrar, 'teachers', 'closed', false, true],
] as const)(
  'a %s (%s), where %s post late and the window is %s, saying so %s: %s',
  (_who, outside, latePosters, state, says, expected) => {
    expect(canPost({ state, latePosters }, outside, says)).toBe(expected);
  },
);

it('where no window was ever set, only who may post outside one and says so posts', () => {
  expect([canPost(null, teacher, true), canPost(null, registrar, true)]).toEqual([false, true]);
});
