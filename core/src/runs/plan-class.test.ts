import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ScoreFlag } from '#core/calculation';
import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow, roundHalfUp } from '#core/numbers';
import { noMark, type Mark } from '#core/posting';
import { planClass } from './plan-class.js';
import {
  bookKey,
  type AssignmentFacts,
  type Joined,
  type LedgerRow,
  type MarkFacts,
  type OurAssignment,
  type OurClass,
  type OurItem,
  type OurScore,
  type OurSectionBook,
  type RunChoices,
  type ScoreFacts,
  type TheirAssignment,
  type TheirClass,
} from './run-plan.js';

const day = dayOrThrow;
const everything: RunChoices = { mode: 'keep', carriesWork: true, carriesTotals: true };
const band = (label: string, lowest: string) => ({
  label,
  lowest: decimalOrThrow(lowest),
  statedHighest: null,
  points: null,
  addedPoints: null,
  passes: true,
  isOff: false,
});

const essay: TheirAssignment = {
  key: 'a1',
  name: 'Tides essay',
  possible: '20',
  groupKey: 'g1',
  dueOn: day('2026-01-09'),
  isMarked: true,
  isPublished: true,
  isGraded: true,
  givenTo: null,
  results: [
    { personKey: 'p1', points: '18.5', possible: '20', letter: null },
    { personKey: 'p2', points: null, possible: null, letter: null },
  ],
};
const oneClass: TheirClass = { title: 'Knots (1)', assignments: [essay], totals: [], weightSum: '100' };

const item: OurItem = {
  id: 5,
  name: 'Quarter grade',
  takesMarks: true,
  isSignedOff: false,
  scale: {
    bands: [band('A', '90'), band('B', '80'), band('F', '0')] as never,
    precision: { digits: 0, rounding: roundHalfUp },
    codes: [],
    highestLevel: null,
    highestPercent: decimalOrThrow('200'),
  },
  marks: new Map(),
};
const book: OurSectionBook = {
  students: new Map([
    [101, { enrollmentId: 1, name: 'Fathom, Wren', withdrawnOn: null }],
    [102, { enrollmentId: 2, name: 'Kelp, Iolo', withdrawnOn: null }],
    [103, { enrollmentId: 3, name: 'Shore, Sana', withdrawnOn: day('2025-12-01') }],
  ]),
  assignments: [],
  removedKeys: new Set(),
  scores: new Map(),
  items: new Map([[5, item]]),
};
const joined = <Target>(target: Target) => ({ decision: 'joined' as const, target });
const ours: OurClass = {
  decision: 'joined',
  section: book,
  sectionName: 'Knots 1',
  period: { name: 'Quarter 2', startsOn: day('2025-11-17'), endsOn: day('2026-01-30'), isSealed: false },
  groups: new Map<string, Joined<number>>([
    ['g1', joined(7)],
    ['g2', { decision: 'open', target: null }],
    ['g3', { decision: 'ignored', target: null }],
  ]),
  people: new Map([
    ['p1', { ...joined(101), name: 'Wren Fathom' }],
    ['p2', { ...joined(102), name: 'Iolo Kelp' }],
    ['p3', { ...joined(103), name: 'Sana Shore' }],
    ['p4', { decision: 'open', target: null, name: 'Una Known' }],
    ['p5', { ...joined(999), name: 'Els Where' }],
  ]),
  letters: new Map<string, Joined<string>>([
    ['A', joined('A')],
    ['E', joined('F')],
    ['Z', { decision: 'open', target: null }],
  ]),
  totals: new Map([['t1', joined(5)]]),
  defaultCategoryId: null,
};

const withEssay = (change: Partial<TheirAssignment>): TheirClass => ({
  ...oneClass,
  assignments: [{ ...essay, ...change }],
});
const inBook = (change: Partial<OurSectionBook>): OurClass => ({ ...ours, section: { ...book, ...change } });
const brief = (rows: readonly LedgerRow[]) =>
  rows.map(({ kind, outcome, reasons, name }) =>
    `${kind} ${name}: ${outcome} ${reasons.map(({ code }) => code).join(' ')}`.trim(),
  );
const plan = (theirs: TheirClass, here = ours, choices = everything) => planClass(theirs, here, choices);

describe('planClass', () => {
  it('makes an assignment with the scores there are, and counts the blank ones', () => {
    const [assignment, score] = plan(oneClass);
    expect(assignment).toMatchObject({
      kind: 'assignment',
      outcome: 'create',
      after: { name: 'Tides essay', possible: '20', dueOn: '2026-01-09', categoryId: 7, givenTo: null },
      blank: 1,
    });
    expect(score).toMatchObject({
      kind: 'score',
      outcome: 'create',
      enrollmentId: 1,
      after: { points: '18.5', flag: null },
    });
  });

  // Facts of the trade (common practice): what keeps an assignment of a learning platform from the information system.
  it.each<[string, Partial<TheirAssignment>, string]>([
    ['not marked for sending', { isMarked: false }, 'skip not-marked'],
    ['unpublished', { isPublished: false }, 'skip unpublished'],
    ['of an ungraded kind', { isGraded: false }, 'skip ungraded'],
    ['without a due date', { dueOn: null }, 'refuse no-date'],
    ['due in another period', { dueOn: day('2025-10-01') }, 'skip other-period'],
    ['due on the last day', { dueOn: day('2026-01-30') }, 'create'],
    ['without points', { possible: null, results: [] }, 'refuse no-points no-scores-yet'],
    ['with zero points', { possible: '0' }, 'refuse no-points'],
    ['with more points than a column holds', { possible: '10000' }, 'refuse too-many-points'],
    ['with a name of 81 characters', { name: 'x'.repeat(81) }, 'refuse name-too-long'],
    ['with a name of spaces', { name: '  ' }, 'refuse name-missing'],
    ['of a group nobody joined', { groupKey: 'g2' }, 'refuse group-open'],
    ['of no group', { groupKey: null }, 'refuse group-open'],
    ['of a group that is ignored', { groupKey: 'g3' }, 'skip group-ignored'],
    ['given to one student', { givenTo: ['p1'] }, 'create given-to-some'],
    ['given to strangers only', { givenTo: ['p9'] }, 'refuse given-to-nobody'],
    ['nobody is scored on', { results: [] }, 'create no-scores-yet'],
    ['with two faults, of which the worse decides', { isMarked: false, dueOn: null }, 'refuse not-marked no-date'],
  ])('an assignment %s', (_case, change, expected) => {
    const [row] = plan(withEssay(change));
    expect([row!.outcome, ...row!.reasons.map(({ code }) => code)].join(' ')).toBe(expected);
  });

  it('holds back the scores of an assignment that is not carried over, and says how many', () => {
    expect(plan(withEssay({ dueOn: null }))).toMatchObject([{ outcome: 'refuse', heldBack: 1 }]);
  });

  it('puts what has no group of ours into the default category, and says so', () => {
    const [row] = plan(withEssay({ groupKey: 'g2' }), { ...ours, defaultCategoryId: 9 });
    expect(row).toMatchObject({ outcome: 'create', reasons: [{ code: 'default-category' }], after: { categoryId: 9 } });
  });

  it.each<[string, OurClass, string]>([
    ['is not joined', { ...ours, decision: 'open', section: null }, 'refuse class-open'],
    ['is left out', { ...ours, decision: 'ignored', section: null }, 'skip class-ignored'],
    ['belongs to a section of another term', { ...ours, section: null }, 'refuse other-term'],
    ['lies in a sealed period', { ...ours, period: { ...ours.period, isSealed: true } }, 'refuse period-sealed'],
  ])('a class that %s is held back whole', (_case, here, expected) => {
    const rows = plan(oneClass, here);
    expect(rows.map(({ outcome, reasons }) => `${outcome} ${reasons[0]!.code}`)).toEqual([expected]);
    expect(rows[0]!.heldBack).toBe(3);
  });

  it('notes weights that do not come to 100', () => {
    expect(brief(plan({ ...oneClass, weightSum: '90' }))[0]).toBe('class Knots (1): same weights-not-100');
  });

  it.each<[string, string, string | null, string]>([
    ['somebody nobody joined', 'p4', '10', 'refuse person-open'],
    ['a student of another section', 'p5', '10', 'refuse not-in-section'],
    ['a student who left', 'p3', '10', 'skip withdrawn'],
    ['more points than there are', 'p1', '21', 'refuse score-above'],
    ['points below nothing', 'p1', '-1', 'refuse score-negative'],
    ['points to a thousandth', 'p1', '9.125', 'refuse score-digits'],
  ])('a score of %s', (_case, personKey, points, expected) => {
    const rows = plan(withEssay({ results: [{ personKey, points, possible: '20', letter: null }] }));
    expect(`${rows[1]!.outcome} ${rows[1]!.reasons[0]!.code}`).toBe(expected);
  });

  it('brings a score that is out of something else to the points of its assignment', () => {
    const rows = plan(withEssay({ results: [{ personKey: 'p1', points: '37', possible: '40', letter: null }] }));
    expect(rows[1]!.after).toEqual({ points: '18.5', flag: null });
  });

  const facts: AssignmentFacts = {
    name: 'Tides essay',
    possible: '20',
    dueOn: day('2026-01-09'),
    categoryId: 7,
    givenTo: null,
  };
  const carried: OurAssignment = { id: 40, key: 'a1', isOfClass: true, facts, isExtra: false, isOurs: false };

  it.each<[string, Partial<AssignmentFacts>]>([
    ['name', { name: 'Tides' }],
    ['date', { dueOn: day('2026-01-08') }],
    ['points', { possible: '25' }],
    ['category', { categoryId: 8 }],
  ])('notices that only the %s changed there', (_fact, change) => {
    const here = inBook({
      assignments: [{ ...carried, facts: { ...facts, ...change } }],
      scores: new Map([[bookKey(40, 1), { facts: { points: '18.50', flag: null }, isOurs: false }]]),
    });
    expect(plan(oneClass, here)).toMatchObject([
      { kind: 'assignment', outcome: 'change', after: facts, same: 1, blank: 1 },
    ]);
  });

  it('says of what the platform no longer has that it stays and counts, and nothing of another class’s', () => {
    const gone = { ...carried, id: 41, key: 'a9', facts: { ...facts, name: 'Old log' } };
    const ofOther = { ...gone, id: 42, key: 'b1', isOfClass: false };
    const rows = plan(oneClass, inBook({ assignments: [carried, gone, ofOther] }));
    expect(rows.filter(({ reasons }) => reasons.some(({ code }) => code === 'gone-there'))).toEqual([
      expect.objectContaining({ kind: 'assignment', outcome: 'skip', name: 'Old log', assignmentId: 41, after: null }),
    ]);
  });

  it('keeps what was entered here, or replaces it where the run says so', () => {
    const scores = new Map<string, OurScore>([
      [bookKey(40, 1), { facts: { points: '12', flag: 'late' }, isOurs: true }],
    ]);
    const here = inBook({ assignments: [{ ...carried, isOurs: true, facts: { ...facts, name: 'Our name' } }], scores });
    expect(brief(plan(oneClass, here))).toEqual(['assignment Tides essay: skip kept', 'score Fathom, Wren: skip kept']);
    const replaced = plan(oneClass, here, { ...everything, mode: 'replace' });
    expect(replaced.map(({ outcome }) => outcome)).toEqual(['change', 'change']);
    expect(replaced[1]!.after).toEqual({ points: '18.5', flag: 'late' });
  });

  it('takes up an assignment of the same name that was made here, if it is the only one', () => {
    const made = { ...carried, key: null, isOurs: true };
    expect(brief(plan(oneClass, inBook({ assignments: [made] })))[0]).toBe('assignment Tides essay: same taken-up');
    const two = inBook({ assignments: [made, { ...made, id: 41 }] });
    expect(plan(oneClass, two)[0]).toMatchObject({ outcome: 'create' });
  });

  it('does not bring back what was removed here', () => {
    expect(brief(plan(oneClass, inBook({ removedKeys: new Set(['a1']) })))).toEqual([
      'assignment Tides essay: skip removed-here',
    ]);
  });

  it('clears the flags that a score answers, and leaves what says more than that', () => {
    const flagged = (flag: ScoreFlag) =>
      new Map<string, OurScore>([[bookKey(40, 1), { facts: { points: null, flag }, isOurs: true }]]);
    const after = (flag: ScoreFlag) =>
      plan(oneClass, inBook({ assignments: [carried], scores: flagged(flag) }), { ...everything, mode: 'replace' }).at(
        -1,
      )!.after;
    for (const flag of ['missing', 'incomplete', 'absent', 'collected'] as const)
      expect(after(flag)).toEqual({ points: '18.5', flag: null });
    for (const flag of ['late', 'exempt'] as const) expect(after(flag)).toEqual({ points: '18.5', flag });
  });

  it('refuses fewer points where a score that comes with them is refused too, and then touches nothing of it', () => {
    const scores = new Map<string, OurScore>([
      [bookKey(40, 1), { facts: { points: '19', flag: null }, isOurs: false }],
    ]);
    const rows = plan(
      withEssay({ possible: '15', results: [{ personKey: 'p1', points: '19', possible: '15', letter: null }] }),
      inBook({ assignments: [carried], scores }),
      { ...everything, mode: 'replace' },
    );
    expect(rows.map(({ kind, outcome, heldBack }) => [kind, outcome, heldBack])).toEqual([['assignment', 'refuse', 1]]);
    expect(rows[0]!.reasons.at(-1)).toEqual({ code: 'points-below-scores', about: '1|15|Fathom, Wren 19' });
  });

  it('refuses fewer points where scores would be left above them', () => {
    const scores = new Map<string, OurScore>([[bookKey(40, 2), { facts: { points: '19', flag: null }, isOurs: true }]]);
    const [row] = plan(withEssay({ possible: '15', results: [] }), inBook({ assignments: [carried], scores }));
    expect(row).toMatchObject({
      outcome: 'refuse',
      reasons: [{ code: 'no-scores-yet' }, { code: 'points-below-scores', about: '1|15|Kelp, Iolo 19' }],
    });
  });

  it.each([
    ['0.30000000000000004', 'score-digits'],
    ['1e-7', 'score-unreadable'],
    ['9,5', 'score-unreadable'],
    ['NaN', 'score-unreadable'],
    ['7 late', 'score-unreadable'],
    ['-1', 'score-negative'],
    ['7.125', 'score-digits'],
    ['20.5', 'score-above'],
  ])('refuses the score %s in its own row, also over one that is here, and no other', (points, code) => {
    const results = [
      { personKey: 'p1', points, possible: '20', letter: null },
      { personKey: 'p2', points: '18.500', possible: '20', letter: null },
    ];
    const facts = { name: 'Tides essay', possible: '20', dueOn: day('2026-01-09'), categoryId: 7, givenTo: null };
    const known = { id: 40, isExtra: false, version: 1, isOurs: false, columnKeys: ['a1'], facts };
    const score = { facts: { points: '12', flag: null }, version: 1, isOurs: false };
    const here = inBook({ assignments: [known as never], scores: new Map([[bookKey(40, 1), score as never]]) });
    for (const at of [ours, here]) {
      const scores = plan(withEssay({ results }), at).filter(({ kind }) => kind === 'score');
      expect(scores.map(({ outcome, reasons, after }) => [outcome, reasons.map((each) => each.code), after])).toEqual([
        ['refuse', [code], { points, flag: null }],
        ['create', [], { points: '18.5', flag: null }],
      ]);
    }
  });

  it.each(['10000', '99999999'])('refuses %s points, which no book can hold, though they only add', (points) => {
    const facts = { name: 'Tides essay', possible: '20', dueOn: day('2026-01-09'), categoryId: 7, givenTo: null };
    const extra: OurAssignment = { id: 40, key: 'a1', isOfClass: true, facts, isExtra: true, isOurs: false };
    const results = [{ personKey: 'p1', points, possible: '20', letter: null }];
    const [score] = plan(withEssay({ results }), inBook({ assignments: [extra] })).filter(
      ({ kind }) => kind === 'score',
    );
    expect(score).toMatchObject({ outcome: 'refuse', reasons: [{ code: 'score-too-high' }] });
  });

  describe('of a total', () => {
    const total = (points: string | null, letter: string | null = null): TheirClass => ({
      ...oneClass,
      assignments: [],
      totals: [{ key: 't1', name: 'Overall', results: [{ personKey: 'p1', points, possible: '200', letter }] }],
    });
    const withItem = (change: Partial<OurItem>) => inBook({ items: new Map([[5, { ...item, ...change }]]) });

    it.each<[string, string | null, string | null, object]>([
      ['179 of 200 is 89.5 %, which the item rounds to 90', '179', null, { percent: '90', label: 'A', code: null }],
      ['178.9 of 200 is 89.45 % and stays below', '178.9', null, { percent: '89', label: 'B', code: null }],
      ['a letter by its join', null, 'E', { percent: null, label: 'F', code: null }],
    ])('%s', (_case, points, letter, after) => {
      expect(plan(total(points, letter))[1]).toMatchObject({ kind: 'mark', outcome: 'create', after });
    });

    it.each<[string, TheirClass, OurClass, string]>([
      ['that is not joined', total('150'), { ...ours, totals: new Map() }, 'refuse total-open'],
      ['signed off', total('150'), withItem({ isSignedOff: true }), 'refuse signed-off'],
      ['outside its window', total('150'), withItem({ takesMarks: false }), 'refuse window-closed'],
      ['without a scale', total('150'), withItem({ scale: null }), 'refuse no-scale'],
      ['with a letter nobody joined', total(null, 'Z'), ours, 'refuse letter-open'],
      ['of 201 percent', total('402'), ours, 'refuse percent-too-high'],
    ])('a mark %s', (_case, theirs, here, expected) => {
      const row = plan(theirs, here).at(-1)!;
      expect(`${row.outcome} ${row.reasons[0]!.code}`).toBe(expected);
    });

    it('keeps a code that somebody posted', () => {
      const mark: Mark = { ...noMark, code: 'INC' };
      const here = withItem({ marks: new Map([[1, { mark, isOurs: true }]]) });
      expect(plan(total('150'), here)[1]).toMatchObject({ outcome: 'skip', reasons: [{ code: 'kept' }] });
      expect(plan(total('150'), here, { ...everything, mode: 'replace' })[1]).toMatchObject({
        outcome: 'change',
        after: { percent: '75', label: 'F', code: null },
      });
    });
  });
});

/** What the book looks like after a plan was carried out. */
function carryOut(rows: readonly LedgerRow[], here: OurClass): OurClass {
  const section = here.section!;
  const assignments = new Map(section.assignments.map((each) => [each.id, each]));
  const scores = new Map(section.scores);
  const marks = new Map(section.items.get(5)!.marks);
  const made = new Map<string, number>();
  for (const row of rows) {
    const writes = row.outcome === 'create' || row.outcome === 'change';
    if (row.kind === 'assignment' && (writes || row.reasons.some(({ code }) => code === 'taken-up'))) {
      const id = row.assignmentId ?? 1000 + assignments.size;
      made.set(row.columnKey, id);
      const known = assignments.get(id);
      const facts = writes ? (row.after as AssignmentFacts) : known!.facts;
      assignments.set(id, {
        id,
        key: row.columnKey,
        isOfClass: true,
        facts,
        isExtra: false,
        isOurs: !writes && known!.isOurs,
      });
    }
    if (row.kind === 'score' && writes) {
      const id = row.assignmentId ?? made.get(row.columnKey)!;
      scores.set(bookKey(id, row.enrollmentId!), { facts: row.after as ScoreFacts, isOurs: false });
    }
    if (row.kind === 'mark' && writes) {
      const { percent, label, code } = row.after as MarkFacts;
      const mark = { ...noMark, percent: percent === null ? null : decimalOrThrow(percent), label, code };
      marks.set(row.enrollmentId!, { mark, isOurs: false });
    }
  }
  const items = new Map([[5, { ...section.items.get(5)!, marks }]]);
  return { ...here, section: { ...section, assignments: [...assignments.values()], scores, items } };
}

describe('a plan', () => {
  const points = fc.option(fc.constantFrom('0', '7.5', '12', '20', '20.01', '-3'), { nil: null });
  const person = fc.constantFrom('p1', 'p2', 'p3', 'p4', 'p5');
  const results = fc
    .uniqueArray(person, { maxLength: 5 })
    .chain((keys) =>
      fc.tuple(
        ...keys.map((personKey) => points.map((each) => ({ personKey, points: each, possible: '20', letter: null }))),
      ),
    );
  const assignment = fc.record({
    name: fc.constantFrom('Tides', 'tides', 'Knots', 'Charts'),
    possible: fc.constantFrom('20', '10', '0', null),
    groupKey: fc.constantFrom('g1', 'g2', 'g3', null),
    dueOn: fc.constantFrom(day('2025-12-10'), day('2026-01-09'), day('2026-03-01'), null),
    isMarked: fc.boolean(),
    givenTo: fc.constantFrom(null, ['p1'], ['p1', 'p2'], ['p4']),
    results,
  });
  const theirClass = fc.array(assignment, { maxLength: 4 }).map((all): TheirClass => ({
    ...oneClass,
    assignments: all.map((each, at) => ({ ...essay, ...each, key: `a${at}` })),
    totals: [{ key: 't1', name: 'Overall', results: all[0]?.results ?? [] }],
  }));
  const ourBook = fc.record({
    mode: fc.constantFrom('keep' as const, 'replace' as const),
    names: fc.uniqueArray(fc.constantFrom('Tides', 'Charts'), { maxLength: 2 }),
    scored: fc.option(fc.constantFrom('3', '19'), { nil: null }),
    defaultCategoryId: fc.constantFrom(null, 9),
  });

  it('that was carried out, planned again, has nothing left to write', () => {
    fc.assert(
      fc.property(theirClass, ourBook, (theirs, { mode, names, scored, defaultCategoryId }) => {
        const facts = { possible: '20', dueOn: day('2026-01-09'), categoryId: 7, givenTo: null };
        const assignments = names.map((name, at) => ({
          id: at,
          key: null,
          isOfClass: false,
          facts: { ...facts, name },
          isExtra: false,
          isOurs: true,
        }));
        const scores = new Map<string, OurScore>(
          scored === null
            ? []
            : assignments.map(({ id }) => [bookKey(id, 1), { facts: { points: scored, flag: null }, isOurs: true }]),
        );
        const here = { ...inBook({ assignments, scores }), defaultCategoryId };
        const choices: RunChoices = { ...everything, mode };
        const again = planClass(theirs, carryOut(planClass(theirs, here, choices), here), choices);
        expect(again.filter(({ outcome }) => outcome === 'create' || outcome === 'change')).toEqual([]);
      }),
      { seed: 20260121, numRuns: 500 },
    );
  });

  it('accounts for every score there is, each exactly once', () => {
    fc.assert(
      fc.property(theirClass, ourBook, (theirs, { mode, defaultCategoryId }) => {
        const rows = planClass(theirs, { ...ours, defaultCategoryId }, { ...everything, mode, carriesTotals: false });
        for (const { key, results: all } of theirs.assignments) {
          const own = rows.filter(({ columnKey }) => columnKey === key);
          const [head] = own;
          const listed = own.filter(({ kind }) => kind === 'score').length;
          const counted = head!.same + head!.blank + head!.heldBack + listed;
          expect(counted).toBe(all.length);
        }
      }),
      { seed: 20260122, numRuns: 300 },
    );
  });
});
