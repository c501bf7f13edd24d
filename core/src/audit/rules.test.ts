import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow as percent } from '#core/numbers';
import { noMark } from '#core/posting';
import { grade, snapshot } from '../../test/grade-fact.fixture.js';
import { letterBands } from '../../test/letter-scale.fixture.js';
import { classmates, finn, randomGrades, registers } from '../../test/random-grades.fixture.js';
import { auditRules, findingKey, runRules, type GradeFact } from './index.js';

const day = dayOrThrow;
const posted = (more: Partial<GradeFact['mark']>) => ({ ...noMark, percent: percent('86.4'), label: 'B', ...more });
const alone = (more: Partial<GradeFact['mark']>) => ({ ...noMark, ...more });
const proposal = posted({ percent: percent('91'), label: 'A-' });

/** What each rule finds, and what looks alike and is right. */
const cases: Readonly<Record<string, readonly [what: string, fact: GradeFact, message: string | null][]>> = {
  'percent-out-of-range': [
    ['above the highest', grade({ mark: posted({ percent: percent('100.01'), label: 'A+' }) }), 'percent'],
    ['the highest itself', grade({ mark: posted({ percent: percent('100'), label: 'A+' }) }), null],
    ['below 0', grade({ mark: posted({ percent: percent('-0.5'), label: 'F' }) }), 'negative'],
    ['a percentage among levels', grade({ scale: { highestLevel: percent('4') } }), 'level'],
    ['the top level', grade({ mark: posted({ percent: percent('4') }), scale: { highestLevel: percent('4') } }), null],
  ],
  'override-without-reason': [
    ['another percentage', grade({ proposal }), 'unexplained'],
    ['another label alone', grade({ mark: alone({ label: 'B' }), proposal }), 'unexplained'],
    ['with a reason', grade({ mark: posted({ overrideReason: 'Re-sat.' }), proposal }), null],
    ['with a reason of blanks', grade({ mark: posted({ overrideReason: '  ' }), proposal }), 'unexplained'],
    ['a code', grade({ mark: alone({ code: 'EXM' }), proposal }), null],
    ['what is computed', grade({ mark: proposal, proposal }), null],
    ['nothing computed', grade({}), null],
    ['of a student who left', grade({ withdrawnOn: day('2026-01-05'), proposal }), null],
  ],
  'composite-differs-from-parts': [
    ['a composite', grade({ proposal, item: { isComposite: true } }), 'differs'],
    [
      'a composite with a reason',
      grade({ mark: posted({ overrideReason: 'Board.' }), proposal, item: { isComposite: true } }),
      null,
    ],
    ['no composite', grade({ proposal: posted({}) }), null],
  ],
  'computed-changed-since-posted': [
    [
      'another value',
      grade({ computed: percent('87.4'), computedThen: percent('86.4'), proposal: posted({}) }),
      'changed',
    ],
    ['the same once rounded', grade({ computed: percent('86.42'), computedThen: percent('86.38') }), null],
    ['posted as it is now', grade({ computed: percent('86.4'), computedThen: percent('80') }), null],
    ['nothing computed then', grade({ computed: percent('87.4') }), null],
  ],
  'exempt-not-allowed': [
    ['exempt', grade({ mark: alone({ code: 'EXM' }), allowsExempt: false }), 'exempt'],
    ['exempt where the course allows it', grade({ mark: alone({ code: 'EXM' }) }), null],
    ['a code that leaves no composite', grade({ mark: alone({ code: 'INC' }), allowsExempt: false }), null],
    [
      'the same of a student who left',
      grade({ mark: alone({ code: 'EXM' }), allowsExempt: false, withdrawnOn: day('2025-12-12') }),
      null,
    ],
    ['a pass, which stands for work', grade({ mark: alone({ code: 'PAS' }), allowsExempt: false }), null],
    ['a code that nobody knows', grade({ mark: alone({ code: 'ZZ' }), allowsExempt: false }), null],
    ['an ordinary grade', grade({ allowsExempt: false }), null],
  ],
  'code-switched-off': [
    ['a code switched off', grade({ mark: alone({ code: 'OLD' }) }), 'off'],
    ['a code in use', grade({ mark: alone({ code: 'EXM' }) }), null],
  ],
  'last-date-outside-enrollment': [
    [
      'before coming',
      grade({ mark: alone({ code: 'INC', lastDate: day('2025-12-01') }), enteredOn: day('2025-12-02') }),
      'before',
    ],
    [
      'on the day of coming',
      grade({ mark: alone({ code: 'INC', lastDate: day('2025-12-02') }), enteredOn: day('2025-12-02') }),
      null,
    ],
    [
      'after leaving',
      grade({ mark: alone({ code: 'INC', lastDate: day('2026-01-16') }), withdrawnOn: day('2026-01-15') }),
      'after',
    ],
    [
      'on the day of leaving',
      grade({ mark: alone({ code: 'INC', lastDate: day('2026-01-15') }), withdrawnOn: day('2026-01-15') }),
      null,
    ],
    [
      'never attended, entered late',
      grade({ mark: alone({ code: 'NVA', lastDate: day('2025-11-10') }), enteredOn: day('2025-12-02') }),
      null,
    ],
  ],
  'never-attended-not-on-first-day': [
    ['another day', grade({ mark: alone({ code: 'NVA', lastDate: day('2025-11-11') }) }), 'date'],
    ['the first day', grade({ mark: alone({ code: 'NVA', lastDate: day('2025-11-10') }) }), null],
    [
      'the first day and hours',
      grade({ mark: alone({ code: 'NVA', lastDate: day('2025-11-10'), hours: percent('3') }) }),
      'hours',
    ],
    [
      'the first day and no hours',
      grade({ mark: alone({ code: 'NVA', lastDate: day('2025-11-10'), hours: percent('0') }) }),
      null,
    ],
  ],
  'placeholder-date': [
    ['beside a passing grade', grade({ mark: posted({ lastDate: day('1970-01-01') }) }), 'placeholder'],
    [
      'where a date is needed another rule speaks',
      grade({ mark: alone({ code: 'INC', lastDate: day('1970-01-01') }) }),
      null,
    ],
  ],
  'last-date-not-needed': [
    ['beside a passing grade', grade({ mark: posted({ lastDate: day('2026-01-16') }) }), 'unneeded'],
    [
      'of a student who left',
      grade({ mark: posted({ lastDate: day('2026-01-16') }), withdrawnOn: day('2026-01-16') }),
      null,
    ],
    ['beside a blank', grade({ mark: alone({ lastDate: day('2026-01-16') }) }), null],
    ['beside a code that needs one', grade({ mark: alone({ code: 'INC', lastDate: day('2026-01-16') }) }), null],
  ],
  'last-date-after-last-present': [
    [
      'after a day missed',
      grade({ mark: alone({ code: 'INC', lastDate: day('2026-01-16') }), attendance: registers }),
      'absent',
    ],
    [
      'before the next register',
      grade({ mark: alone({ code: 'INC', lastDate: day('2026-01-15') }), attendance: registers }),
      null,
    ],
    [
      'the last day present',
      grade({ mark: alone({ code: 'INC', lastDate: day('2026-01-14') }), attendance: registers }),
      null,
    ],
    [
      'present on none',
      grade({
        mark: alone({ code: 'INC', lastDate: day('2026-01-14') }),
        attendance: { ...registers, lastPresent: null },
      }),
      'never',
    ],
    [
      'no register taken',
      grade({ mark: alone({ code: 'INC', lastDate: day('2026-01-16') }), attendance: { ...registers, daysTaken: 0 } }),
      null,
    ],
  ],
  'hours-missing': [
    [
      'asked for and missing',
      grade({ mark: alone({ code: 'INC', lastDate: day('2026-01-16') }), item: { asksHours: true } }),
      'missing',
    ],
    ['not asked for', grade({ mark: alone({ code: 'INC', lastDate: day('2026-01-16') }) }), null],
    [
      'none attended',
      grade({
        mark: alone({ code: 'NVA', lastDate: day('2025-11-10'), hours: percent('0') }),
        item: { asksHours: true },
      }),
      null,
    ],
    ['a passing grade', grade({ item: { asksHours: true } }), null],
  ],
  'posted-outside-window': [
    ['before it opens', grade({ postedAt: '2026-01-19T07:59:59.999Z' }), 'before'],
    ['as it opens', grade({ postedAt: '2026-01-19T08:00:00.000Z' }), null],
    ['in the grace', grade({ postedAt: '2026-01-26T17:00:00.000Z' }), null],
    ['after the grace', grade({ postedAt: '2026-01-26T17:00:00.001Z' }), 'after'],
    ['without a window', grade({ postedAt: '2026-01-01T00:00:00.000Z', item: { window: null } }), null],
  ],
  'incomplete-past-deadline': [
    ['past it', grade({ mark: alone({ code: 'LAP' }) }), 'lapsed'],
    ['on the day', grade({ mark: alone({ code: 'DUE' }) }), null],
    ['a code that does not lapse', grade({ mark: alone({ code: 'EXM' }) }), null],
  ],
  'comment-missing': [
    ['below the label', grade({ item: { commentRule: 'requiredBelow', commentBelow: 'B+' } }), 'missing'],
    ['at the label', grade({ item: { commentRule: 'requiredBelow', commentBelow: 'B' } }), null],
    [
      'there',
      grade({ mark: posted({ comment: 'Steady.' }), item: { commentRule: 'requiredBelow', commentBelow: 'A' } }),
      null,
    ],
  ],
  'comment-too-long': [
    ['one character more', grade({ mark: posted({ comment: 'x'.repeat(31) }) }), 'long'],
    ['as long as may be', grade({ mark: posted({ comment: 'x'.repeat(30) }) }), null],
  ],
  'comment-not-taken': [
    ['a comment', grade({ mark: posted({ comment: 'Steady.' }), item: { commentRule: 'none' } }), 'unread'],
    ['none', grade({ item: { commentRule: 'none' } }), null],
  ],
  'comment-names-another-student': [
    ['another', grade({ mark: posted({ comment: 'Tamsin works well.' }), named: finn, classmates }), 'names'],
    ['the student', grade({ mark: posted({ comment: 'Finn works well.' }), named: finn, classmates }), null],
  ],
  'internal-note-public': [
    ['like a note', grade({ mark: posted({ comment: 'Internal: ask the office.' }) }), 'begins'],
    ['in capitals, after a bracket', grade({ mark: posted({ comment: '(NOT FOR FAMILIES) Moved.' }) }), 'begins'],
    ['an internal one', grade({ mark: posted({ comment: 'Internal: ask the office.', isInternal: true }) }), null],
    ['the word further on', grade({ mark: posted({ comment: 'Shows internal strength.' }) }), null],
    ['a word that goes on', grade({ mark: posted({ comment: 'Internalises rhythm.' }) }), null],
  ],
  'comment-unfinished': [
    ['a gap', grade({ mark: posted({ comment: 'Reads ____.' }) }), 'gap'],
    ['a name to come', grade({ mark: posted({ comment: '[Name] reads.' }) }), 'gap'],
    ['left for later', grade({ mark: posted({ comment: 'Reads. TODO' }) }), 'gap'],
    ['a Spanish word', grade({ mark: posted({ comment: 'Lo sabe todo.' }) }), null],
    ['a pronoun of a stock comment', grade({ mark: posted({ comment: 'As {pronoun} reads.' }) }), 'gap'],
    ['a question', grade({ mark: posted({ comment: 'Why not read more?' }) }), null],
    ['brackets around a thought', grade({ mark: posted({ comment: 'Reads [aloud] well.' }) }), null],
  ],
  'label-without-points': [
    [
      'a label without',
      grade({ scale: { bands: letterBands.map((band) => ({ ...band, points: null })) } }),
      'pointless',
    ],
    [
      'of an item beside the GPA',
      grade({ scale: { bands: letterBands.map((band) => ({ ...band, points: null })) }, item: { countsInGpa: false } }),
      null,
    ],
    [
      'of an item that is on no transcript',
      grade({
        scale: { bands: letterBands.map((band) => ({ ...band, points: null })) },
        item: { onTranscript: false },
      }),
      null,
    ],
    ['with points', grade({}), null],
  ],
  'zero-posted': [
    ['0 %', grade({ mark: posted({ percent: percent('0.00'), label: 'F' }) }), 'zero'],
    [
      'level 0',
      grade({ mark: posted({ percent: percent('0'), label: 'F' }), scale: { highestLevel: percent('4') } }),
      null,
    ],
    [
      '0 % where nothing is computed either',
      grade({ mark: posted({ percent: percent('0'), label: 'F' }), computed: percent('0.00') }),
      null,
    ],
    ['0.01 %', grade({ mark: posted({ percent: percent('0.01'), label: 'F' }) }), null],
  ],
};

describe.each(Object.entries(cases))('%s', (id, rows) => {
  const rule = auditRules.find((each) => each.id === id)!;
  it.each(rows)('%s', (_what, fact, message) => {
    expect(runRules([rule], snapshot(fact)).map((finding) => finding.message)).toEqual(
      message === null ? [] : [message],
    );
  });

  it('has a case for each of its messages, and one that is right', () => {
    const found = new Set(rows.map(([, , message]) => message));
    expect([...found].toSorted()).toEqual([...Object.keys(rule.messages), null].toSorted());
  });
});

describe('all rules, on a thousand random sections', () => {
  const sections = fc
    .array(randomGrades, { maxLength: 6 })
    .map((all) => all.map((fact, at) => ({ ...fact, enrollmentId: at })));

  it('none throws, no order of the rows makes another finding, and each finding can be told and is the grade’s alone', () => {
    fc.assert(
      fc.property(sections, (grades) => {
        const keys = (all: readonly GradeFact[]) =>
          runRules(auditRules, snapshot(...all))
            .map((finding) => JSON.stringify([findingKey(finding), finding.message, finding.data]))
            .toSorted();
        const all = keys(grades);
        expect(keys(grades.toReversed())).toEqual(all);
        expect(grades.flatMap((each) => keys([each])).toSorted()).toEqual(all);
        for (const rule of auditRules) {
          const { grades: _all, ...period } = snapshot();
          for (const fact of grades.filter((each) => runRules([rule], snapshot(each)).length > 0)) {
            const mark = rule.fix?.mend(fact, period) ?? null;
            // What is computed is any mark here; posting it is looked at beside.
            if (mark === null || mark === fact.proposal) continue;
            expect(runRules([rule], snapshot({ ...fact, mark }))).toEqual([]);
          }
        }
        // One finding of a rule for a grade: by the two it is known again.
        expect(new Set(all.map((text) => (JSON.parse(text) as string[])[0])).size).toBe(all.length);
        for (const finding of runRules(auditRules, snapshot(...grades))) {
          const { messages } = auditRules.find(({ id }) => id === finding.ruleId)!;
          const words = [...messages[finding.message]!.matchAll(/\{(\w+)/g)].map(([, word]) => word!);
          expect(words.filter((word) => finding.data[word] === undefined)).toEqual([]);
        }
      }),
      { seed: 20_260_121, numRuns: 1000 },
    );
  });
});

describe('what a rule sets right by itself', () => {
  const { grades: _none, ...period } = snapshot();
  const mended = (id: string, fact: GradeFact) => auditRules.find((rule) => rule.id === id)!.fix!.mend(fact, period);
  it.each<[string, string, GradeFact, Partial<GradeFact['mark']> | null]>([
    [
      'percent-and-label-disagree',
      'the label of the percentage',
      grade({ mark: posted({ label: 'A' }) }),
      { label: 'B' },
    ],
    ['label-not-on-scale', 'the label of the percentage', grade({ mark: posted({ label: 'S' }) }), { label: 'B' }],
    ['label-not-on-scale', 'nothing where a label stands alone', grade({ mark: alone({ label: 'S' }) }), null],
    [
      'code-with-percent',
      'no percentage',
      grade({ mark: posted({ code: 'EXM', label: null }) }),
      { percent: null, code: 'EXM' },
    ],
    ['code-with-percent', 'nothing of a code that nobody knows', grade({ mark: alone({ code: 'ZZ' }) }), null],
    ['override-without-reason', 'what is computed', grade({ proposal }), { label: 'A-' }],
    ['grade-missing', 'what is computed', grade({ mark: noMark, proposal }), { label: 'A-' }],
    ['grade-missing', 'nothing where nothing is computed', grade({ mark: noMark }), null],
    [
      'grade-on-withdrawn-student',
      'a blank',
      grade({ withdrawnOn: day('2025-12-12') }),
      { percent: null, label: null },
    ],
    [
      'last-date-needed',
      'the last day present',
      grade({ mark: alone({ code: 'INC' }), attendance: registers }),
      { lastDate: day('2026-01-14') },
    ],
    [
      'last-date-needed',
      'the first day for who never came',
      grade({ mark: alone({ code: 'NVA' }) }),
      { lastDate: day('2025-11-10') },
    ],
    ['last-date-needed', 'nothing without registers', grade({ mark: alone({ code: 'INC' }) }), null],
    [
      'never-attended-not-on-first-day',
      'the first day and no hours',
      grade({ mark: alone({ code: 'NVA', lastDate: day('2025-12-01'), hours: percent('3') }) }),
      { lastDate: day('2025-11-10'), hours: null },
    ],
    [
      'last-date-not-needed',
      'no date',
      grade({ mark: posted({ lastDate: day('2026-01-16') }) }),
      { lastDate: null, label: 'B' },
    ],
  ])('%s: %s', (id, _what, fact, expected) => {
    const mark = mended(id, fact);
    expect(mark && { ...mark, ...expected }).toEqual(expected && mark);
  });

  it('says in a button what it does', () => {
    const says = auditRules.flatMap(({ fix }) => fix?.says ?? []);
    expect(says.filter((each) => !/^(Set|Post|Clear) [a-z ]+$/.test(each))).toEqual([]);
    expect(says).toHaveLength(14);
  });
});
