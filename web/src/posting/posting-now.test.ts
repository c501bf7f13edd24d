import { expect, it } from 'vitest';
import type { SheetReply } from '#contract/posting';
import { postingNow } from './posting-now';

type Window = NonNullable<SheetReply['window']>;
const [registrar, teacher] = [true, false];
const on = (state: Window['state'], latePosters: Window['latePosters'] = 'registrars'): Window => ({
  opensAt: '2026-01-19T08:00:00Z',
  closesAt: '2026-01-23T17:00:00Z',
  graceUntil: null,
  latePosters,
  state,
});

it.each<[string, Window | null, boolean, readonly [outside: boolean, post: boolean, ask: boolean]]>([
  ['a teacher while it is open', on('open'), teacher, [false, true, false]],
  ['a teacher in grace', on('grace'), teacher, [false, true, false]],
  ['a teacher once it is closed', on('closed'), teacher, [true, false, true]],
  ['a teacher who may post late', on('closed', 'teachers'), teacher, [false, true, false]],
  ['a teacher where nobody may post late', on('closed', 'nobody'), teacher, [true, false, false]],
  ['a teacher before it opens', on('not yet open'), teacher, [true, false, false]],
  ['a teacher where there is no window', null, teacher, [true, false, true]],
  ['a registrar once it is closed', on('closed'), registrar, [true, true, false]],
  ['a registrar before it opens', on('not yet open'), registrar, [true, true, false]],
  ['a registrar where nobody may post late', on('closed', 'nobody'), registrar, [true, false, false]],
  ['a registrar where there is no window', null, registrar, [true, true, false]],
])('%s', (_who, window, mayOutside, [isOutside, mayPost, mayAsk]) => {
  expect(postingNow({ window }, mayOutside)).toEqual({ isOutside, mayPost, mayAsk });
});
