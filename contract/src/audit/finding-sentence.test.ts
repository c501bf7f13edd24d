import { expect, it } from 'vitest';
import { auditRules } from '#core/audit';
import { formatMessage } from '#contract/messages';
import { findingSentence } from './finding-sentence.js';

const rule = auditRules.find(({ id }) => id === 'percent-and-label-disagree')!;

it('says what a rule found, with the values', () => {
  const data = { percent: '86.40', expected: 'B', scale: 'Letter scale', label: 'B+' };
  expect(findingSentence(rule, { message: 'differs', data })).toBe('86.40 % is B on Letter scale, but B+ is posted.');
  expect(() => findingSentence(rule, { message: 'gone', data })).toThrow('has no message "gone"');
});

it.each(
  auditRules.flatMap(({ id, messages }) => Object.entries(messages).map(([key, text]) => [id, key, text] as const)),
)('the message of %s, %s, is a whole sentence', (_id, _key, text) => {
  const words = [...text.matchAll(/\{(\w+)\}/g)].map(([, word]) => [word!, 'X'] as const);
  expect(formatMessage(text, Object.fromEntries(words))).toMatch(/^[A-Z].*[.?]$/);
});
