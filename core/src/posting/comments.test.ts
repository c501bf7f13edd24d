import { describe, expect, it } from 'vitest';
import { decimalOrThrow, roundHalfUp } from '#core/numbers';
import type { Band } from '#core/scales';
import {
  fillStockComment,
  isOverride,
  mostPercent,
  noMark,
  otherNamesIn,
  takeComputed,
  unknownCommentWords,
  type Mark,
} from './index.js';

describe('stock comments', () => {
  const text = '{Name} knows {their} work. {They} {are} careful and {have} done well; ask {them} to show it.';
  it.each([
    ['she', 'Yara knows her work. She is careful and has done well; ask her to show it.'],
    ['he', 'Yara knows his work. He is careful and has done well; ask him to show it.'],
    ['they', 'Yara knows their work. They are careful and have done well; ask them to show it.'],
  ] as const)('speak of %s', (pronoun, filled) => {
    expect(fillStockComment(text, { name: 'Yara', pronoun })).toBe(filled);
  });

  it('leave alone what they do not know, and say what that is', () => {
    const odd = 'In {subject}, {they} {Shine}; {subject} {} {toString} {constructor}';
    expect(fillStockComment(odd, { name: 'Yara', pronoun: 'she' })).toBe(
      'In {subject}, she {Shine}; {subject} {} {toString} {constructor}',
    );
    expect(unknownCommentWords(odd)).toEqual(['subject', 'Shine', '', 'toString', 'constructor']);
    expect(unknownCommentWords(text)).toEqual([]);
  });

  it('put in a name as it is written, braces, dollars and all', () => {
    expect(fillStockComment('{name}!', { name: '$& {they}', pronoun: 'he' })).toBe('$& {they}!');
  });
});

describe('another student’s name in a comment', () => {
  const own = { givenNames: ['Yara'] };
  const others = [
    { givenNames: ['Hale', 'Hal'] },
    { givenNames: ['Jean-Luc'] },
    { givenNames: ['Yara'] },
    { givenNames: ['Bo'] },
    { givenNames: ['Åsa Grace'] },
  ];
  it.each([
    ['Hale works well.', ['Hale']],
    ['Ask Hal and Jean-Luc; Hal knows.', ['Hal', 'Jean-Luc']],
    ['Yara works well.', []], // two are called so
    ['She is hale and full of grace.', []], // words, not names
    ['Grace under pressure.', ['Grace']],
    ['Åsa’s work', ['Åsa']],
    ['Bo', []], // too short to tell from a word
    ['Whale watching, Halesworth', []],
    ['', []],
  ])('%s', (comment, names) => {
    expect(otherNamesIn(comment, own, others)).toEqual(names);
  });
});

describe('an override', () => {
  const band = (label: string, lowest: string): Band => ({
    label,
    lowest: decimalOrThrow(lowest),
    points: null,
    passes: true,
    earnsCredit: true,
    descriptor: '',
    isOff: false,
  });
  const rules = {
    bands: [band('A', '90'), band('B', '0')],
    precision: { digits: 1, rounding: roundHalfUp },
    codes: [],
    highestLevel: null,
    highestPercent: mostPercent,
  };
  const proposal = takeComputed(noMark, decimalOrThrow('89.445'), rules);
  it.each<[string, Partial<Mark>, boolean]>([
    ['nothing posted', {}, false],
    ['what is computed, rounded once', { percent: decimalOrThrow('89.4'), label: 'B' }, false],
    ['the same with another count of digits', { percent: decimalOrThrow('89.40'), label: 'B' }, false],
    ['the label alone', { label: 'B' }, false],
    ['another percentage', { percent: decimalOrThrow('89.5'), label: 'B' }, true],
    ['another label', { percent: decimalOrThrow('89.4'), label: 'A' }, true],
    ['another label alone', { label: 'A' }, true],
    ['a code', { code: 'INC' }, false],
    ['a comment alone', { comment: 'A word' }, false],
  ])('%s', (_name, mark, expected) => {
    expect(isOverride({ ...noMark, ...mark }, proposal)).toBe(expected);
    expect(isOverride({ ...noMark, ...mark }, null)).toBe(false);
  });

  it('stands beside a code too, as where a part of a composite is incomplete', () => {
    const incomplete = { ...noMark, code: 'INC' };
    expect(isOverride({ ...noMark, label: 'B' }, incomplete)).toBe(true);
    expect(isOverride(incomplete, incomplete)).toBe(false);
  });
});
