import { expect, it } from 'vitest';
import { brokenInWords } from './broken-in-words.js';

it.each([
  [['grades'], 'grades changed'],
  [['findings', 'rules'], 'findings block again and the rules changed'],
  [['grades', 'waivers', 'rules'], 'grades changed, a waiver ended and the rules changed'],
] as const)('%j: %s', (broken, says) => expect(brokenInWords(broken)).toBe(says));
