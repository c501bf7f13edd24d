import { describe, expect, it } from 'vitest';
import { newCode } from '#core/codes';
import { decimalOrThrow } from '#core/numbers';
import { noMark, type Mark } from '#core/posting';
import type { Band } from '#core/scales';
import { familyValue, type FamilyTime, type FamilyView } from './index.js';

const bands: Band[] = [
  {
    label: 'B',
    lowest: decimalOrThrow('80'),
    points: null,
    passes: true,
    earnsCredit: true,
    descriptor: 'Good',
    isOff: false,
  },
];
const codes = new Map([['INC', newCode('INC', 'Incomplete', {})]]);
const percent = decimalOrThrow('84.5');
const graded: Mark = { ...noMark, percent, label: 'B', comment: 'Works well.' };
const see = (view: FamilyView, mark: Mark, moment: FamilyTime = 'sealed', time: FamilyTime = 'closed') =>
  familyValue({ familyView: view, familyTime: time }, mark, moment, bands, codes);
const shown = { kind: 'shown', label: null, percent: null, descriptor: null, comment: 'Works well.' };

describe('what families see of a grade', () => {
  it.each<[FamilyView, object]>([
    ['label', { ...shown, label: 'B' }],
    ['percent', { ...shown, percent }],
    ['both', { ...shown, label: 'B', percent }],
    ['descriptor', { ...shown, label: 'B', descriptor: 'Good' }],
    ['hidden', { kind: 'never' }],
  ])('by its item: %s', (view, expected) => expect(see(view, graded)).toEqual(expected));

  it.each<[FamilyView, object]>([
    ['label', { ...shown, label: 'INC', descriptor: 'Incomplete', comment: '' }],
    ['percent', { ...shown, label: 'INC', descriptor: 'Incomplete', comment: '' }],
    ['hidden', { kind: 'never' }],
  ])('a code stands in its place: %s', (view, expected) =>
    expect(see(view, { ...noMark, code: 'INC' })).toEqual(expected),
  );

  it('a comment for the school alone is never seen, and of itself shows nothing', () => {
    expect(see('label', { ...graded, isInternal: true })).toEqual({ ...shown, label: 'B', comment: '' });
    expect(see('label', { ...noMark, comment: 'Ask the nurse.', isInternal: true })).toEqual({
      kind: 'nothing posted',
    });
    expect(see('label', noMark)).toEqual({ kind: 'nothing posted' });
  });

  it.each<[FamilyTime, FamilyTime, string]>([
    ['posted', 'posted', 'shown'],
    ['posted', 'closed', 'later'],
    ['posted', 'sealed', 'later'],
    ['closed', 'posted', 'shown'],
    ['closed', 'closed', 'shown'],
    ['closed', 'sealed', 'later'],
    ['sealed', 'sealed', 'shown'],
  ])('at the moment “%s”, where it is seen from “%s” on: %s', (moment, time, kind) =>
    expect(see('label', graded, moment, time).kind).toBe(kind),
  );
});
