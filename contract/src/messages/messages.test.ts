import { describe, expect, it } from 'vitest';
import { reasonSentence, reasonWords } from '#contract/runs';
import type { RunReasonCode } from '#core/runs';
import {
  agreeing,
  counted,
  formatMessage,
  usesInWords,
  type CountedThing,
  type CountedVerb,
  type Uses,
} from './index.js';

describe('a message', () => {
  it.each([
    ['{name} is used.', { name: 'Letters' }, 'Letters is used.'],
    [
      '{count, plural, one {# score lies} other {# scores lie}} above {most}.',
      { count: 1, most: '20' },
      '1 score lies above 20.',
    ],
    [
      '{count, plural, one {# score lies} other {# scores lie}} above {most}.',
      { count: 1234, most: '20' },
      '1,234 scores lie above 20.',
    ],
    ['{count} rows', { count: 0 }, '0 rows'],
    [
      "People's <names> stay as they are: {name}",
      { name: '{odd} <b>' },
      "People's <names> stay as they are: {odd} <b>",
    ],
  ])('%s', (message, values, expected) => expect(formatMessage(message, values)).toBe(expected));

  it('that lacks a value is a bug', () => {
    expect(() => formatMessage('{name} is used.', { other: 'x' })).toThrow(/name/);
    expect(() => formatMessage('{name is used.', { name: 'x' })).toThrow(/./);
  });
});

describe('a count in words', () => {
  it.each<[number, CountedThing, string]>([
    [0, 'course', '0 courses'],
    [1, 'course', '1 course'],
    [2, 'class', '2 classes'],
    [1, 'percent', '1 percentage'],
    [12_345, 'entry', '12,345 entries'],
    [2, 'policy', '2 policies'],
    [2, 'version of a scale', '2 versions of a scale'],
  ])('%s of %s', (count, thing, expected) => expect(counted(count, thing)).toBe(expected));

  it.each<[number, CountedVerb, string]>([
    [1, 'is', 'is'],
    [0, 'is', 'are'],
    [2, 'has', 'have'],
  ])('for %s: %s', (count, verb, expected) => expect(agreeing(count, verb)).toBe(expected));

  it.each<[Uses, string]>([
    [{ counts: { section: 0 } }, ''],
    [{ counts: { section: 1 } }, '1 section'],
    [{ counts: { section: 2, file: 1 } }, '2 sections and 1 file'],
    [{ counts: { section: 2, file: 0, run: 1 }, named: ['the item Exam'] }, '2 sections, 1 run and the item Exam'],
    [{ counts: {}, named: ['the item Exam'] }, 'the item Exam'],
  ])('what rests on a thing: %j', (uses, expected) => expect(usesInWords(uses)).toBe(expected));
});

describe('the reason of a row', () => {
  const formats = { day: (day: string) => `<${day}>`, percent: (percent: string) => `${percent} %` };

  it.each<[RunReasonCode, string, string]>([
    ['other-term', 'Knots 1|Winter', 'Knots 1 does not run through Winter.'],
    ['other-term', '|Winter', 'Its section does not run through Winter.'],
    ['other-period', '2026-01-16', 'It is due on <2026-01-16>, outside of this period.'],
    ['points-below-scores', '1|10|Hale Carrow', '1 score here would lie above 10 points: Hale Carrow. Correct them here or on the platform; until then nothing of this assignment is changed.'], // prettier-ignore
    ['given-to-some', '3', 'It was given to 3 students rather than to all.'],
    ['below-scale', '12.5', '12.5 % reaches no band of the scale.'],
    ['score-unreadable', '{x}', '“{x}” is no number of points.'],
  ])('%s of %s', (code, about, expected) => expect(reasonSentence({ code, about }, formats)).toBe(expected));

  it.each(Object.keys(reasonWords) as RunReasonCode[])('%s is a whole sentence', (code) => {
    const about = reasonWords[code].parts.map((part) => (part === 'count' ? '2' : 'x')).join('|');
    expect(reasonSentence({ code, about }, formats)).toMatch(/^[A-Z<“x2].*\.$/s);
  });
});
