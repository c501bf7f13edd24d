import { describe, expect, it } from 'vitest';
import { dayOrThrow, type Period } from '#core/calendar';
import type { Course } from '#core/courses';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { ReportItem } from '#core/report-items';
import { bandsTogether, placementsInForce, type DatedPlacement } from '#core/scales';
import { isRunning, periodView, versionsInForce, type SchoolFacts, type SectionFact } from './index.js';

const day = dayOrThrow;
const days = (startsOn: string, endsOn: string) => ({ startsOn: day(startsOn), endsOn: day(endsOn) });
const period = (
  id: number,
  kind: Period['kind'],
  parentId: number | null,
  startsOn: string,
  endsOn: string,
): Period => ({
  id,
  kind,
  parentId,
  name: `${kind} ${id}`,
  ...days(startsOn, endsOn),
});
const year = period(1, 'year', null, '2025-09-01', '2026-06-12');
const quarters = [
  period(3, 'quarter', 1, '2025-09-01', '2025-11-07'),
  period(4, 'quarter', 1, '2025-11-10', '2026-01-23'),
  period(6, 'quarter', 1, '2026-01-26', '2026-04-03'),
];
const [first, second, third] = quarters as [Period, Period, Period];

const course = (id: number, more: Partial<Course> = {}): Course => ({
  id,
  schoolId: 1,
  code: `C${id}`,
  title: `Course ${id}`,
  department: 'Letters',
  level: 'regular',
  length: 'year',
  kind: 'academic',
  credits: decimalOrThrow('1'),
  mostCredits: null,
  onTranscript: true,
  countsInGpa: true,
  allowsExempt: true,
  ...more,
});
const section = (id: number, courseId: number, runs = days('2025-09-01', '2026-06-12')): SectionFact => ({
  id,
  courseId,
  number: 1,
  teacherId: 9,
  coTeacherIds: [],
  teacher: 'Nance, Harun',
  term: year,
  runs,
});
const item = { id: 1, periodKind: 'quarter', ordinals: null, scaleId: null } as ReportItem;
const version = (scaleId: number, number: number, fromDay: string) => ({ scaleId, number, fromDay: day(fromDay) });
const place = (id: number, scaleId: number | null, fromDay: string | null, more: Partial<DatedPlacement> = {}) => ({
  id,
  kind: 'school' as const,
  schoolId: 1,
  department: null,
  level: null,
  courseId: null,
  sectionId: null,
  scaleId,
  isLocked: false,
  fromPeriodId: null,
  fromDay: fromDay === null ? null : day(fromDay),
  ...more,
});

const facts: SchoolFacts<
  ReportItem,
  ReturnType<typeof version>,
  { department: string | null; sectionId: null; periodId: null }
> = {
  periods: [year, ...quarters],
  items: [item],
  assignment: {
    rules: [
      {
        id: 1,
        schoolId: 1,
        itemId: 1,
        effect: 'reports',
        department: null,
        level: null,
        kind: null,
        length: null,
        position: 1,
      },
    ],
    exceptions: [{ id: 1, itemId: 1, courseId: 12, effect: 'omits', reason: 'none' }],
  },
  courses: [course(10), course(11, { department: 'Numbers' }), course(12)],
  sections: [section(100, 10), section(110, 11, days('2025-12-01', '2026-06-12')), section(120, 12)],
  placements: [place(1, 5, null), place(2, 6, '2026-01-26')],
  versions: [version(5, 1, '2025-09-01'), version(5, 2, '2025-11-10'), version(6, 1, '2025-09-01')],
  policies: [
    { department: null, sectionId: null, periodId: null },
    { department: 'Numbers', sectionId: null, periodId: null },
  ],
  windows: [],
  codes: new Map(),
};

describe('what counts in a period', () => {
  it('is asked once: who runs, reports what, under which scale and policy, for which credits', () => {
    const { sections, reported } = periodView(facts, second);
    expect(
      sections.map(({ id, credits, policy }) => [id, formatDecimal(credits), policy?.department ?? 'the school']),
    ).toEqual([
      [100, '0.3334', 'the school'],
      [110, '0.5000', 'Numbers'],
      [120, '0.3334', 'the school'],
    ]);
    expect(reported.map(({ sections: own }) => own.map(({ id }) => id))).toEqual([[100, 110]]);
    expect([...reported[0]!.scales].map(([id, { version: own }]) => [id, own.scaleId, own.number])).toEqual([
      [100, 5, 2],
      [110, 5, 2],
    ]);
  });

  it('knows a section only in the periods that it meets in', () => {
    expect(periodView(facts, first).sections.map(({ id }) => id)).toEqual([100, 120]);
    expect(isRunning(section(1, 1, days('2026-01-23', '2026-01-23')), second)).toBe(true);
    expect(isRunning(section(1, 1, days('2026-01-24', '2026-01-25')), second)).toBe(false);
  });

  it('uses a scale from its period on and touches no earlier one', () => {
    const scaleIn = (each: Period) => periodView(facts, each).reported[0]!.scales.get(100)?.version.scaleId;
    expect([first, second, third].map(scaleIn)).toEqual([5, 5, 6]);
  });
});

describe('placements in force', () => {
  const inForce = (placements: readonly DatedPlacement[], of: Period) =>
    placementsInForce(placements, of).map(({ scaleId }) => scaleId);
  it('a place that inherits from a period on has none from then on, and its own before', () => {
    const own = [place(1, 5, null), place(2, null, '2025-11-10')];
    expect([first, second, third].map((of) => inForce(own, of))).toEqual([[5], [], []]);
  });
  it('of several that began together the newest counts', () =>
    expect(inForce([place(1, 5, '2025-09-01'), place(2, 6, '2025-09-01')], first)).toEqual([6]));
  it('other places are left alone', () =>
    expect(inForce([place(1, 5, null), place(2, 6, null, { kind: 'course', courseId: 10 })], first)).toEqual([5, 6]));
});

it('the version in force began last, no later than the period; a scale that begins later has none', () => {
  const all = [
    version(5, 1, '2025-09-01'),
    version(5, 2, '2026-01-26'),
    version(5, 3, '2025-09-01'),
    version(7, 1, '2026-01-26'),
  ];
  const numbers = (of: Period) => [...versionsInForce(all, of)].map(([id, { number }]) => `${id}: ${number}`);
  expect([numbers(second), numbers(third)]).toEqual([['5: 3'], ['5: 2', '7: 1']]);
});

describe('bands of several scales', () => {
  const band = (label: string, lowest: string | null) => ({
    label,
    lowest: lowest === null ? null : decimalOrThrow(lowest),
    points: null,
    passes: true,
    earnsCredit: true,
    descriptor: '',
    isOff: false,
  });

  it('stand as one list by their cut-offs, each label once, in the meaning given last', () => {
    const all = [band('A', '93'), band('F', '0'), band('S', null), band('A', '90'), band('A+', '97')];
    expect(bandsTogether(all).map(({ label, lowest }) => [label, lowest && formatDecimal(lowest)])).toEqual([
      ['A+', '97'],
      ['A', '90'],
      ['F', '0'],
      ['S', null],
    ]);
  });
});
