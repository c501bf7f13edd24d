import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow } from '#core/numbers';
import { noMark } from '#core/posting';
import { grade, snapshot } from '../../test/grade-fact.fixture.js';
import { auditRules, compareRuns, findingKey, runRules, type GradeFact } from './index.js';

const percent = decimalOrThrow;
const found = (fact: GradeFact) =>
  runRules(auditRules, snapshot(fact)).map(({ ruleId, message }) => `${ruleId}: ${message}`);

describe('what the rules find', () => {
  it.each<[string, GradeFact, string[]]>([
    ['nothing in a sound grade', grade({}), []],
    ['nothing in an exempt student', grade({ mark: { ...noMark, code: 'EXM' } }), []],
    ['nothing in a blank of a withdrawn student', grade({ mark: noMark, withdrawnOn: dayOrThrow('2025-12-01') }), []],
    ['a missing grade', grade({ mark: noMark }), ['grade-missing: missing']],
    ['a comment without a grade', grade({ mark: { ...noMark, comment: 'Well begun.' } }), ['grade-missing: missing']],
    [
      'another label than the percent gives',
      grade({ mark: { ...noMark, percent: percent('86.4'), label: 'B+' } }),
      ['percent-and-label-disagree: differs'],
    ],
    ['agreement after rounding', grade({ mark: { ...noMark, percent: percent('89.95'), label: 'A-' } }), []],
    [
      'a percent without label',
      grade({ mark: { ...noMark, percent: percent('86.4') } }),
      ['percent-and-label-disagree: no-label'],
    ],
    [
      'a label of another scale, once',
      grade({ mark: { ...noMark, percent: percent('86.4'), label: 'S' } }),
      ['label-not-on-scale: unknown'],
    ],
    ['a label alone', grade({ mark: { ...noMark, label: 'B' } }), []],
    [
      'a code beside a percent',
      grade({ mark: { ...noMark, percent: percent('86.4'), code: 'EXM' } }),
      ['code-with-percent: both'],
    ],
    ['a code that allows a percent', grade({ mark: { ...noMark, percent: percent('86.4'), code: 'P' } }), []],
    ['a code nobody knows', grade({ mark: { ...noMark, code: 'ZZ' } }), ['code-with-percent: unknown']],
    ['a code that needs a date', grade({ mark: { ...noMark, code: 'INC' } }), ['last-date-needed: missing']],
    [
      'a placeholder for a date',
      grade({ mark: { ...noMark, code: 'INC', lastDate: dayOrThrow('1899-12-30') } }),
      ['last-date-needed: placeholder'],
    ],
    [
      'a date outside the period',
      grade({ mark: { ...noMark, code: 'INC', lastDate: dayOrThrow('2026-02-01') } }),
      ['last-date-needed: outside'],
    ],
    [
      'never attended, with a date outside the period, once',
      grade({ mark: { ...noMark, code: 'NVA', lastDate: dayOrThrow('2025-10-02') } }),
      ['last-date-needed: outside'],
    ],
    ['a date on the last day', grade({ mark: { ...noMark, code: 'INC', lastDate: dayOrThrow('2026-01-30') } }), []],
    [
      'a failing label where aid depends on it',
      grade({ mark: { ...noMark, label: 'F' }, item: { failingNeedsLastDate: true } }),
      ['last-date-needed: missing'],
    ],
    ['a failing label elsewhere', grade({ mark: { ...noMark, label: 'F' } }), []],
    [
      'a grade on a withdrawn student',
      grade({ withdrawnOn: dayOrThrow('2025-12-01') }),
      ['grade-on-withdrawn-student: graded'],
    ],
    [
      'a code on a withdrawn student',
      grade({ withdrawnOn: dayOrThrow('2025-12-01'), mark: { ...noMark, code: 'EXM' } }),
      [],
    ],
  ])('%s', (_what, fact, expected) => expect(found(fact)).toEqual(expected));
});

describe('the folder of rules', () => {
  it('holds one file for each rule, named after its id, and every one is run', () => {
    const files = readdirSync(new URL('rules/', import.meta.url)).map((file) => file.replace('.ts', ''));
    expect(auditRules.map(({ id }) => id).toSorted()).toEqual(files.toSorted());
  });

  it('has a page in the documentation for each rule', () => {
    const pages = readdirSync(new URL('../../../docs/rules/', import.meta.url)).map((file) => file.replace('.md', ''));
    expect(auditRules.map(({ id }) => id).filter((id) => !pages.includes(id))).toEqual([]);
  });

  it.each(auditRules)('the page of $id begins as the rule is, and says what to do', (rule) => {
    const { threshold } = rule;
    const page = readFileSync(new URL(`../../../docs/rules/${rule.id}.md`, import.meta.url), 'utf8');
    const effect = { blocks: 'blocks sealing', warns: 'warns', informs: 'for information' }[rule.severity];
    const facts = `\`${rule.id}\`, version ${rule.version} · ${rule.family} · ${effect}`;
    expect(page.split('\n').slice(0, 3)).toEqual([`# ${rule.summary}`, '', facts]);
    const text = page.replaceAll(/\s+/g, ' ');
    for (const part of [
      '**Finds**',
      `**Why it matters.** ${rule.why}`,
      '**For example.**',
      '**Usually.**',
      '**What to do.**',
      ...(threshold
        ? [`**Threshold.** ${threshold.says}: ${threshold.usual}, or from ${threshold.least} to ${threshold.most}`]
        : []),
    ])
      expect(text).toContain(part);
  });

  it.each(auditRules)('$id says what it finds and why in whole sentences', (rule) => {
    expect(rule.why).toMatch(/^[A-Z].*\.$/);
    expect(rule.version).toBeGreaterThanOrEqual(1);
    for (const message of Object.values(rule.messages)) expect(message).toMatch(/[.?]$/);
  });
});

it('two runs are compared by rule and grade, not by the values quoted', () => {
  const key = (ruleId: string, enrollmentId: number) =>
    findingKey({ ruleId, enrollmentId, sectionId: null, courseId: null, itemId: 7 });
  const compared = compareRuns([key('a', 1), key('a', 2)], [key('a', 2), key('b', 1)]);
  expect([...compared.added, ...compared.still, ...compared.gone]).toEqual([key('b', 1), key('a', 2), key('a', 1)]);
});
