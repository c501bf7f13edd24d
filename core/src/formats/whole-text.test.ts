import { expect, it } from 'vitest';
import { wholeText } from './whole-text.js';

it.each([
  ['what is short enough', 'Quarter 1 🌊.csv', 40, 'Quarter 1 🌊.csv'],
  ['what is too long, cut', 'Quarter 1', 7, 'Quarter'],
  ['a character that the cut would halve, left out', 'Ada 🌊', 5, 'Ada '],
  ['halves that came as such, left out', 'A\ud83cda\udf0a', 40, 'Ada'],
  ['NUL, left out', 'A\0da', 40, 'Ada'],
])('takes %s', (_what, text, most, taken) => {
  expect(wholeText(text, most)).toBe(taken);
});
