import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow as number } from '#core/numbers';
import { noMark } from '#core/posting';
import { grade } from '../../test/grade-fact.fixture.js';
import { assignment, letters, periodOf, seat, section, sheet, weighed } from '../../test/section-fact.fixture.js';
import { auditRules, findingKey, gradeRules, outcomesOf, runRules, type GradeFact, type Snapshot } from './index.js';

const day = dayOrThrow;
const posted = (percent: string, label: string, more: Partial<GradeFact['mark']> = {}) => ({
  ...noMark,
  percent: number(percent),
  label,
  ...more,
});
/** As many grades as there are percentages, in a section. */
const gradesOf = (percents: readonly string[], more: Partial<GradeFact> = {}, first = 1): GradeFact[] =>
  percents.map((percent, at) => ({ ...grade({ mark: posted(percent, 'B') }), enrollmentId: first + at, ...more }));
const times = (count: number, percent: string) => Array.from({ length: count }, () => percent);
/** Percentages a point apart, none of them near another cut-off than its own. */
const spread = ['61', '62.5', '64.2', '68', '71', '74', '78', '81', '84.7', '88', '91', '95.5'];
const labelled = (sectionId: number, labels: string, first: number): GradeFact[] =>
  [...labels].map((label, at) => ({ ...grade({ mark: { ...noMark, label } }), enrollmentId: first + at, sectionId }));
const two = { ...section({ id: 32, name: 'Weaving 2' }), students: [seat({ enrollmentId: 2, studentId: 502 })] };
const three = { ...section({ id: 33, name: 'Weaving 3' }), students: [seat({ enrollmentId: 3, studentId: 503 })] };
const unopened = sheet({ item: { window: null } });
const withBands = (bands: (typeof letters)['bands']) => section({ sheets: [sheet({ scale: { ...letters, bands } })] });
const withLevels = weighed(
  { 1: '100' },
  { method: 'highest', levels: { most: number('4'), meets: number('3'), exceeds: number('4'), evidence: 1 } },
);

type Case = readonly [what: string, of: Snapshot, found: readonly (readonly [message: string, data?: object])[]];
const none: Case[2] = [];

/** Cases of each rule that looks at more than single grades; those about pairs and groups have three or more. */
const cases: Readonly<Record<string, readonly Case[]>> = {
  'sheet-not-signed-off': [
    ['a sheet signed off', periodOf([section()], gradesOf(['80'])), none],
    ['one that is not', periodOf([section({ sheets: [sheet({ isSignedOff: false })] })], gradesOf(['80'])), [['open']]],
    [
      'in the grace',
      periodOf([section({ sheets: [sheet({ isSignedOff: false })] })], gradesOf(['80']), {
        now: '2026-01-25T08:00:00Z',
      }),
      none,
    ],
    ['without students', periodOf([section({ sheets: [sheet({ isSignedOff: false })] })]), none],
  ],
  'signed-off-with-blanks': [
    ['without blanks', periodOf([section()], gradesOf(['80'])), none],
    [
      'with one',
      periodOf([section()], [...gradesOf(['80']), grade({ enrollmentId: 9, mark: noMark })]),
      [['blanks', { section: 'Weaving 1', blanks: '1', students: '2' }]],
    ],
    [
      'of a student who left',
      periodOf(
        [section()],
        [...gradesOf(['80']), grade({ enrollmentId: 9, mark: noMark, withdrawnOn: day('2025-12-01') })],
      ),
      none,
    ],
  ],
  'item-without-window': [
    ['with a window', periodOf([section(), two]), none],
    [
      'in two of three sections',
      periodOf([section({ sheets: [unopened] }), { ...two, sheets: [unopened] }, { ...three, sheets: [] }]),
      [['closed', { item: 'Quarter grade', sections: '2' }]],
    ],
  ],
  'grade-not-expected': [
    ['none', periodOf([section()]), none],
    [
      'two',
      periodOf([section()], [], {
        strays: [
          { enrollmentId: 1, itemId: 9, item: 'Exam', by: 'course', shown: '84 B' },
          { enrollmentId: 1, itemId: 10, item: 'Semester', by: 'period', shown: 'INC' },
        ],
      }),
      [
        ['course', { item: 'Exam', shown: '84 B' }],
        ['period', { item: 'Semester', shown: 'INC' }],
      ],
    ],
  ],
  'enrolled-twice': [
    ['three students in three sections', periodOf([section(), two, three]), none],
    [
      'one student in all three',
      periodOf([
        section(),
        { ...two, students: [seat({ enrollmentId: 2 })] },
        { ...three, students: [seat({ enrollmentId: 3 })] },
      ]),
      [
        ['twice', { section: 'Weaving 1' }],
        ['twice', { section: 'Weaving 1' }],
      ],
    ],
    [
      'who left one',
      periodOf([section(), { ...two, students: [seat({ enrollmentId: 2, withdrawnOn: day('2025-12-01') })] }]),
      none,
    ],
    [
      'in another course',
      periodOf([section(), { ...two, course: { ...two.course, id: 6 }, students: [seat({ enrollmentId: 2 })] }]),
      none,
    ],
  ],
  'left-before-coming': [
    ['on one day', periodOf([section({ students: [seat({ withdrawnOn: day('2025-11-10') })] })]), none],
    ['a day before', periodOf([section({ students: [seat({ withdrawnOn: day('2025-11-09') })] })]), [['order']]],
    [
      'not known when',
      periodOf([section({ students: [seat({ enteredOn: null, withdrawnOn: day('2025-01-01') })] })]),
      none,
    ],
  ],
  'comments-all-alike': [
    [
      'ten the same',
      periodOf([section()], gradesOf(times(10, '80'), { mark: posted('80', 'B-', { comment: 'Well done.' }) })),
      [['same', { section: 'Weaving 1', students: '10' }]],
    ],
    [
      'nine the same',
      periodOf([section()], gradesOf(times(9, '80'), { mark: posted('80', 'B-', { comment: 'Well done.' }) })),
      none,
    ],
    [
      'one of eleven another',
      periodOf(
        [section()],
        [
          ...gradesOf(times(10, '80'), { mark: posted('80', 'B-', { comment: 'Well done.' }) }),
          grade({ enrollmentId: 99, mark: posted('80', 'B-', { comment: 'Well begun.' }) }),
        ],
      ),
      none,
    ],
  ],
  'section-without-scale': [
    ['with one', periodOf([section()]), none],
    ['without', periodOf([section({ sheets: [sheet({ scale: null })] })]), [['none']]],
  ],
  'scale-with-gap': [
    ['down to 0', periodOf([section(), two]), none],
    [
      'not down to 0, told once of three sections',
      periodOf([three, two, section()].map((each) => ({ ...withBands(letters.bands.slice(0, -1)), id: each.id }))),
      [['bottom', { scale: 'Letter scale', lowest: '65' }]],
    ],
    [
      'the lowest switched off',
      periodOf([withBands(letters.bands.map((band) => (band.label === 'F' ? { ...band, isOff: true } : band)))]),
      [['bottom']],
    ],
    [
      'two at one cut-off',
      periodOf([
        withBands(letters.bands.map((band) => (band.label === 'B+' ? { ...band, lowest: number('83') } : band))),
      ]),
      [['twice', { scale: 'Letter scale', lowest: '83' }]],
    ],
    [
      'a label without a cut-off',
      periodOf([
        section({
          sheets: [
            sheet({
              scale: { ...letters, bands: [...letters.bands, { ...letters.bands[0]!, label: 'X', lowest: null }] },
            }),
          ],
        }),
      ]),
      [['open', { scale: 'Letter scale', label: 'X' }]],
    ],
    [
      'levels, which may go without',
      periodOf([
        section({ sheets: [sheet({ scale: { ...letters, kind: 'level', bands: letters.bands.slice(0, 3) } })] }),
      ]),
      none,
    ],
  ],
  'calculation-not-set': [
    ['set', periodOf([section()]), none],
    ['not set', periodOf([section({ policy: null })]), [['none']]],
    ['not set and an empty book', periodOf([section({ policy: null, assignments: [] })]), none],
    [
      'not set, graded by hand',
      periodOf([section({ policy: null, sheets: [sheet({ item: { isOfBook: false } })] })]),
      none,
    ],
  ],
  'weights-not-hundred': [
    ['100', periodOf([section()]), none],
    [
      '95',
      periodOf([section({ policy: weighed({ 1: '60', 2: '35' }) })]),
      [['sum', { section: 'Weaving 1', total: '95' }]],
    ],
    ['33.33 three times', periodOf([section({ policy: weighed({ 1: '33.33', 2: '33.33', 3: '33.33' }) })]), [['sum']]],
    ['in one pot', periodOf([section({ policy: weighed({ 1: '5' }, { method: 'totalPoints' }) })]), none],
  ],
  'unmatched-group': [
    ['everything joined', periodOf([section()]), none],
    [
      'a group without scores yet',
      periodOf([section({ unmatched: [{ platform: 'Tern', group: 'Labs', scores: 0 }] })]),
      none,
    ],
    [
      'groups with scores',
      periodOf([
        section({
          unmatched: [
            { platform: 'Tern', group: 'Logs', scores: 12 },
            { platform: 'Tern', group: 'Labs', scores: 20 },
          ],
        }),
      ]),
      [['group', { platforms: 'Tern', groups: 'Labs, Logs', scores: '32' }]],
    ],
    [
      'scores in no group',
      periodOf([section({ unmatched: [{ platform: 'Tern', group: null, scores: 3 }] })]),
      [['none', { platforms: 'Tern', scores: '3' }]],
    ],
    [
      'both, on two platforms',
      periodOf([
        section({
          unmatched: [
            { platform: 'Tern', group: null, scores: 3 },
            { platform: 'Eider', group: 'Labs', scores: 4 },
          ],
        }),
      ]),
      [['both', { platforms: 'Eider, Tern', groups: 'Labs', scores: '7' }]],
    ],
  ],
  'scores-without-weight': [
    ['all weighed', periodOf([section()]), none],
    [
      'a category left out',
      periodOf([section({ policy: weighed({ 2: '100' }) })]),
      [['category', { category: 'Work', section: 'Weaving 1' }]],
    ],
    ['a weight of 0', periodOf([section({ policy: weighed({ 1: '0', 2: '100' }) })]), [['category']]],
    [
      'without scores yet',
      periodOf([section({ policy: weighed({ 2: '100' }), assignments: [assignment({ scored: 0 })] })]),
      none,
    ],
    [
      'not meant to count',
      periodOf([section({ policy: weighed({ 2: '100' }), assignments: [assignment({ isCounted: false })] })]),
      none,
    ],
  ],
  'due-outside-period': [
    [
      'on its first and last day',
      periodOf([
        section({ assignments: [assignment({ dueOn: day('2025-11-10') }), assignment({ dueOn: day('2026-01-30') })] }),
      ]),
      none,
    ],
    [
      'a day before and a day after',
      periodOf([
        section({
          assignments: [
            assignment({ dueOn: day('2026-01-31') }),
            assignment({ name: 'Early', dueOn: day('2025-11-09') }),
            assignment(),
          ],
        }),
      ]),
      [['outside', { count: '2', all: '3', section: 'Weaving 1', name: 'Early', day: '2025-11-09' }]],
    ],
    [
      'of one that does not count',
      periodOf([section({ assignments: [assignment({ dueOn: day('2026-03-01'), isCounted: false })] })]),
      none,
    ],
  ],
  'assignment-over-half': [
    [
      'exactly half',
      periodOf([
        section({
          policy: weighed({ 1: '50', 2: '50' }),
          assignments: [assignment(), assignment({ name: 'Test', categoryId: 2 })],
        }),
      ]),
      none,
    ],
    [
      'the only one of a category of 60',
      periodOf([
        section({
          assignments: [assignment({ name: 'Final' }), assignment({ categoryId: 2 }), assignment({ categoryId: 2 })],
        }),
      ]),
      [['share', { section: 'Weaving 1', name: 'Final', share: '60' }]],
    ],
    [
      'by points in one pot',
      periodOf([
        section({
          policy: weighed({}, { method: 'totalPoints' }),
          assignments: [assignment({ name: 'Final', possible: number('31') }), ...[1, 2, 3].map(() => assignment())],
        }),
      ]),
      [['share', { section: 'Weaving 1', name: 'Final', share: '51' }]],
    ],
    [
      'all equal in a category',
      periodOf([
        section({
          policy: weighed({ 1: '100' }, { method: 'categoryEqual' }),
          assignments: [assignment({ possible: number('90') }), assignment()],
        }),
      ]),
      none,
    ],
    ['the only one there is', periodOf([section({ assignments: [assignment()] })]), none],
    [
      'beside one that nobody has yet',
      periodOf([section({ assignments: [assignment(), assignment({ scored: 0 })] })]),
      none,
    ],
  ],
  'scored-not-published': [
    ['published', periodOf([section()]), none],
    [
      'not',
      periodOf([section({ assignments: [assignment({ isPublished: false })] })]),
      [['hidden', { section: 'Weaving 1', count: '1', name: 'Knots' }]],
    ],
    [
      'not, and without scores',
      periodOf([section({ assignments: [assignment({ isPublished: false, scored: 0 })] })]),
      none,
    ],
  ],
  'score-above-scale': [
    ['a little above', periodOf([section({ assignments: [assignment({ highest: number('12') })] })]), none],
    [
      'twice as many points',
      periodOf([section({ assignments: [assignment({ highest: number('20') })] })]),
      [['points', { section: 'Weaving 1', name: 'Knots', highest: '20', possible: '10' }]],
    ],
    [
      'twice as many, extra',
      periodOf([section({ assignments: [assignment({ highest: number('20'), isExtra: true })] })]),
      none,
    ],
    [
      'a level above the highest',
      periodOf([
        section({ policy: withLevels, assignments: [assignment({ possible: number('4'), highest: number('5') })] }),
      ]),
      [['level', { section: 'Weaving 1', name: 'Knots', highest: '5', most: '4' }]],
    ],
    [
      'the highest level',
      periodOf([
        section({ policy: withLevels, assignments: [assignment({ possible: number('4'), highest: number('4') })] }),
      ]),
      none,
    ],
  ],
  'book-not-calculated': [
    ['calculated', periodOf([section()]), none],
    [
      'not',
      periodOf([section({ bookProblem: 'all weights are 0' })]),
      [['problem', { section: 'Weaving 1', problem: 'all weights are 0' }]],
    ],
  ],
  'sections-weighted-differently': [
    [
      'three alike, in another order',
      periodOf([section(), { ...two, policy: weighed({ 2: '40.0', 1: '60' }) }, three]),
      none,
    ],
    [
      'one of three otherwise',
      periodOf([section(), two, { ...three, policy: weighed({ 1: '50', 2: '50' }) }]),
      [['differ', { course: 'Weaving', sections: '3', ways: '2' }]],
    ],
    [
      'all three otherwise',
      periodOf([section(), { ...two, policy: null }, { ...three, policy: weighed({ 1: '50', 2: '50' }) }]),
      [['differ', { course: 'Weaving', sections: '3', ways: '3' }]],
    ],
    ['of two courses', periodOf([section(), { ...two, course: { ...two.course, id: 6 }, policy: null }]), none],
    [
      'graded by hand',
      periodOf([section(), { ...two, policy: null, sheets: [sheet({ item: { isOfBook: false } })] }]),
      none,
    ],
  ],
  'course-without-credits': [
    ['with credits', periodOf([section()]), none],
    [
      'without, told once of three sections',
      periodOf([section(), two, three].map((each) => ({ ...each, credits: number('0') }))),
      [['none', { course: 'Weaving' }]],
    ],
    [
      'on no transcript',
      periodOf([{ ...section({ credits: number('0') }), course: { ...two.course, onTranscript: false } }]),
      none,
    ],
    [
      'its item on no transcript',
      periodOf([section({ credits: number('0'), sheets: [sheet({ item: { onTranscript: false } })] })]),
      none,
    ],
  ],
  'repeated-past-credits': [
    ['no limit', periodOf([section({ students: [seat({ creditsBefore: number('9') })] })]), none],
    ...(
      [
        ['up to the limit', '0.75', none],
        ['past it', '0.7501', [['more', { before: '0.7501', credits: '0.25', most: '1', course: 'Weaving' }]]],
        ['for the first time', '0', none],
      ] as const
    ).map(([what, before, found]): Case => {
      const course = { ...two.course, mostCredits: number('1') };
      return [what, periodOf([section({ course, students: [seat({ creditsBefore: number(before) })] })]), found];
    }),
  ],
  'sealed-copy-differs': [
    [
      'the same',
      periodOf([section()], gradesOf(['86.40']), {
        sealed: [{ enrollmentId: 1, itemId: 7, percent: number('86.4'), mark: 'B' }],
      }),
      none,
    ],
    [
      'another label',
      periodOf([section()], gradesOf(['86.40']), {
        sealed: [{ enrollmentId: 1, itemId: 7, percent: number('86.4'), mark: 'A-' }],
      }),
      [['differs', { sealed: '86.4 A-', posted: '86.40 B' }]],
    ],
    [
      'gone',
      periodOf([section()], [grade({ mark: noMark })], {
        sealed: [{ enrollmentId: 1, itemId: 7, percent: null, mark: 'P' }],
      }),
      [['differs', { sealed: 'P', posted: 'nothing' }]],
    ],
    ['not sealed', periodOf([section()], gradesOf(['86.4'])), none],
  ],
  'one-value-for-all': [
    [
      'ten the same',
      periodOf([section()], gradesOf(times(10, '85'))),
      [['same', { section: 'Weaving 1', students: '10', mark: '85 B' }]],
    ],
    ['nine the same', periodOf([section()], gradesOf(times(9, '85'))), none],
    ['one of eleven another', periodOf([section()], gradesOf([...times(10, '85'), '86'])), none],
    ['ten codes', periodOf([section()], gradesOf(times(10, '85'), { mark: { ...noMark, code: 'P' } })), none],
  ],
  'many-overrides': [
    [
      'four of ten',
      periodOf(
        [section()],
        [
          ...gradesOf(times(4, '90'), { proposal: posted('80', 'B-') }),
          ...gradesOf(times(6, '80'), { mark: posted('80', 'B-'), proposal: posted('80', 'B-') }, 20),
        ],
      ),
      [['many', { section: 'Weaving 1', overrides: '4', students: '10' }]],
    ],
    [
      'three of ten',
      periodOf(
        [section()],
        [
          ...gradesOf(times(3, '90'), { proposal: posted('80', 'B-') }),
          ...gradesOf(times(7, '80'), { mark: posted('80', 'B-'), proposal: posted('80', 'B-') }, 20),
        ],
      ),
      none,
    ],
    ['nothing computed', periodOf([section()], gradesOf(times(12, '90'))), none],
  ],
  'crowding-above-cut-off': [
    // 2⁻¹⁰ by chance, one sheet looked at
    [
      'ten just above and none below',
      periodOf([section()], gradesOf(times(10, '90.2'))),
      [['crowded', { section: 'Weaving 1', above: '10', below: '0', chance: '1.0' }]],
    ],
    ['five on either side', periodOf([section()], gradesOf([...times(5, '90.2'), ...times(5, '89.6')])), none],
    ['nine just above', periodOf([section()], gradesOf(times(9, '90.2'))), none],
    ['at 0, below which there is nothing', periodOf([section()], gradesOf(times(12, '0.5'))), none],
  ],
  'round-numbers': [
    [
      'twelve of twelve',
      periodOf([section()], gradesOf(times(12, '85'))),
      [['round', { section: 'Weaving 1', round: '12', students: '12', chance: '0.0' }]],
    ],
    ['as they come', periodOf([section()], gradesOf(spread)), none],
    [
      'levels',
      periodOf([section({ sheets: [sheet({ scale: { ...letters, kind: 'level' } })] })], gradesOf(times(12, '5'))),
      none,
    ],
  ],
  'unlike-sister-sections': [
    [
      'one of three otherwise',
      periodOf(
        [section(), two, three],
        [
          ...labelled(31, 'A'.repeat(20), 1),
          ...labelled(32, 'BBBBBCCCCCBBBBBCCCCC', 40),
          ...labelled(33, 'BBBBBCCCCCBBBBBCCCCC', 80),
        ],
      ),
      [['unlike', { section: 'Weaving 1', students: '20', others: '40' }], ['unlike'], ['unlike']],
    ],
    [
      'all alike',
      periodOf(
        [section(), two, three],
        [31, 32, 33].flatMap((id, at) => labelled(id, 'AAAABBBBBBCCCCCFFFFF', 40 * at)),
      ),
      none,
    ],
    [
      'nine students',
      periodOf([section(), two], [...labelled(31, 'A'.repeat(9), 1), ...labelled(32, 'C'.repeat(20), 40)]),
      none,
    ],
    ['one section alone', periodOf([section()], labelled(31, 'A'.repeat(20), 1)), none],
  ],
};

describe.each(Object.entries(cases))('%s', (id, rows) => {
  const rule = auditRules.find((each) => each.id === id)!;
  it.each(rows)('%s', (_what, of, expected) => {
    const found = runRules([rule], of).map(({ message, data }) => [message, data]);
    expect(found).toMatchObject(expected.map(([message, data = {}]) => [message, data]));
    expect(found).toHaveLength(expected.length);
  });

  it('has a case for each of its messages and one that is right; no order of sections and grades changes its findings', () => {
    const told = new Set(rows.flatMap(([, , found]) => found.map(([message]) => message)));
    expect([...told].toSorted()).toEqual(Object.keys(rule.messages).toSorted());
    expect(rows.some(([, , found]) => found.length === 0)).toBe(true);
    for (const [, of] of rows) {
      const told = (period: Snapshot) =>
        runRules([rule], period).map((each) => `${findingKey(each)} ${JSON.stringify(each.data)}`);
      const reversed = { ...of, sections: of.sections.toReversed(), grades: of.grades.toReversed() };
      expect(told(reversed).toSorted()).toEqual(told(of).toSorted());
      expect(new Set(runRules([rule], of).map(findingKey)).size).toBe(told(of).length);
    }
  });
});

it('every rule that looks at more than a grade has cases, and each of its findings is about what its scope says', () => {
  const wider = auditRules.filter(({ scope }) => scope !== 'grade').map(({ id }) => id);
  expect(wider.filter((id) => !(id in cases))).toEqual([]);
  const ids = {
    grade: 'enrollmentId itemId',
    student: 'enrollmentId',
    sheet: 'itemId sectionId',
    section: 'sectionId',
    course: 'courseId',
    item: 'itemId',
  };
  for (const [id, rows] of Object.entries(cases)) {
    const rule = auditRules.find((each) => each.id === id)!;
    for (const { enrollmentId, sectionId, courseId, itemId } of rows.flatMap(([, of]) => runRules([rule], of))) {
      const about = Object.entries({ enrollmentId, sectionId, courseId, itemId }).filter(([, value]) => value !== null);
      expect(
        about
          .map(([name]) => name)
          .toSorted()
          .join(' '),
      ).toBe(ids[rule.scope]);
    }
  }
});

it('a sound period has no findings at all', () => {
  const wider = auditRules.filter((rule) => !gradeRules.includes(rule));
  expect(runRules(wider, periodOf([section(), two, three], gradesOf(spread)))).toEqual([]);
});

it('a rule that throws is told of, and the others go on', () => {
  const broken = {
    ...auditRules[0]!,
    id: 'broken',
    check: () => {
      throw new Error('no such thing');
    },
  };
  const { findings, faults } = outcomesOf([broken, auditRules[0]!], periodOf([], [grade({ mark: noMark })]));
  expect(faults).toEqual([{ ruleId: 'broken', problem: 'no such thing' }]);
  expect(findings).toMatchObject([{ ruleId: auditRules[0]!.id }]);
});

it('of a thousand sections in which nobody favours anything, few are asked about', () => {
  // A generator of its own, so that the same numbers come on every machine: Park and Miller's.
  let state = 20_260_121;
  const next = () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
  const patterns = auditRules.filter(({ id }) =>
    ['crowding-above-cut-off', 'round-numbers', 'unlike-sister-sections'].includes(id),
  );
  const labels = ['A', 'B', 'C', 'D', 'F'];
  let asked = 0;
  for (let district = 0; district < 100; district++) {
    const sections = Array.from({ length: 10 }, (_each, at) => section({ id: at, students: [] }));
    const grades = sections.flatMap(({ id }) =>
      Array.from({ length: 25 }, (_each, at): GradeFact => ({
        ...grade({ mark: posted((55 + next() * 45).toFixed(1), labels[Math.floor(next() * 5)]!) }),
        enrollmentId: id * 100 + at,
        sectionId: id,
      })),
    );
    if (runRules(patterns, periodOf(sections, grades)).length > 0) asked++;
  }
  // Three tests at 5 % for each district.
  expect(asked).toBeLessThanOrEqual(15);
});
