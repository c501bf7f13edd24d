import { newCode, type SpecialCode } from '#core/codes';
import { decimalOrThrow } from '#core/numbers';
import type { District } from './district.js';

/* What the schools set up beside their main item: a table, in words where it can be. */

type ItemRow = District['reportItems'][number];
type Window = readonly [periodId: number, opensAt: string, closesAt: string, earlyReason?: string];

export interface MoreItem {
  readonly row: Partial<ItemRow> & Pick<ItemRow, 'name' | 'heading' | 'kind' | 'periodKind'> & { id: number };
  /** Item, place of the period inside the composite's own, weight. */
  readonly parts?: readonly (readonly [itemId: number, ordinal: number, weight: string])[];
  /** Kind of course and length that the rule asks for; null for any. */
  readonly rule: { readonly kind: string | null; readonly length: 'year' | 'semester' | 'term' | null };
  readonly windows: readonly Window[];
}

/** Label, lowest percent, descriptor, passes. */
type ChoicePlan = readonly (readonly [label: string, lowest: string | null, descriptor: string, passes: boolean])[];

export interface ChoiceScale {
  readonly id: number;
  readonly name: string;
  readonly bands: ChoicePlan;
}

export interface SetUpPlan {
  readonly breaks: readonly (readonly [name: string, startsOn: string, endsOn: string])[];
  readonly choiceScales: readonly ChoiceScale[];
  readonly items: readonly MoreItem[];
  /** Item, title of the course, effect, reason. */
  readonly exceptions: readonly (readonly [
    itemId: number,
    title: string,
    effect: 'reports' | 'omits',
    reason: string,
  ])[];
}

const winter = ['Winter break', '2025-12-22', '2026-01-02'] as const;

export const upperSetUp: SetUpPlan = {
  breaks: [['Lantern days', '2025-10-23', '2025-10-24'], winter, ['Spring break', '2026-04-03', '2026-04-10']],
  choiceScales: [
    {
      id: 12,
      name: 'Conduct',
      bands: [
        ['O', null, 'Outstanding', true],
        ['S', null, 'Satisfactory', true],
        ['N', null, 'Needs attention', true],
        ['U', null, 'Unsatisfactory', false],
      ],
    },
  ],
  items: [
    {
      row: {
        id: 101,
        name: 'Exam',
        heading: 'Exam',
        kind: 'exam',
        highestPercent: '100',
        periodKind: 'quarter',
        ordinals: [2, 4],
        source: 'hand',
      },
      rule: { kind: 'academic', length: 'year' },
      windows: [
        [4, '2026-01-14T08:00:00Z', '2026-01-23T17:00:00Z'],
        [7, '2026-06-04T08:00:00Z', '2026-06-16T17:00:00Z'],
      ],
    },
    {
      row: {
        id: 102,
        name: 'Semester grade',
        heading: 'Semester',
        kind: 'final',
        periodKind: 'semester',
        source: 'composite',
      },
      parts: [
        [1, 1, '40'],
        [1, 2, '40'],
        [101, 2, '20'],
      ],
      rule: { kind: 'academic', length: 'year' },
      windows: [
        [2, '2026-01-23T08:00:00Z', '2026-01-30T17:00:00Z'],
        [5, '2026-06-12T08:00:00Z', '2026-06-19T17:00:00Z'],
      ],
    },
    {
      row: {
        id: 103,
        name: 'Conduct',
        heading: 'Conduct',
        kind: 'conduct',
        periodKind: 'quarter',
        ordinals: [3, 4],
        scaleId: 12,
        source: 'hand',
        commentRule: 'requiredBelow',
        commentBelow: 'S',
        familyView: 'descriptor',
        countsInGpa: false,
      },
      rule: { kind: null, length: null },
      windows: [
        [6, '2026-03-26T08:00:00Z', '2026-04-07T17:00:00Z'],
        [7, '2026-06-04T08:00:00Z', '2026-06-16T17:00:00Z'],
      ],
    },
  ],
  exceptions: [
    [101, 'Argument and Assembly', 'omits', 'examined by its assembly'],
    [101, 'Rescue Swimming', 'reports', 'the rescue test counts as one'],
  ],
};

const trimesterWindows = [
  [13, '2026-03-05T08:00:00Z', '2026-03-17T17:00:00Z'],
  [14, '2026-06-04T08:00:00Z', '2026-06-16T17:00:00Z'],
] as const;

/** Each standard of the report card computes itself from its own category of the grade book. */
const standards = [
  [202, 'Knowing', 'Knowing', 20],
  [203, 'Doing', 'Doing', 21],
  [204, 'Explaining', 'Explaining', 22],
] as const;

export const primarySetUp: SetUpPlan = {
  breaks: [['Lantern days', '2025-10-23', '2025-10-24'], winter, ['Spring break', '2026-04-03', '2026-04-10']],
  choiceScales: [
    {
      id: 22,
      name: 'How often',
      bands: [
        ['A', null, 'Always', true],
        ['M', null, 'Most of the time', true],
        ['B', null, 'Beginning to', true],
      ],
    },
  ],
  items: [
    {
      row: {
        id: 201,
        name: 'Works with care',
        heading: 'Care',
        kind: 'standard',
        periodKind: 'trimester',
        ordinals: [2, 3],
        scaleId: 22,
        source: 'hand',
        digits: 0,
        familyView: 'descriptor',
        countsInGpa: false,
      },
      rule: { kind: null, length: null },
      windows: trimesterWindows,
    },
    ...standards.map(([id, name, heading, categoryId]): MoreItem => ({
      row: {
        id,
        name,
        heading,
        kind: 'standard',
        periodKind: 'trimester',
        ordinals: [2, 3],
        categoryId,
        digits: 2,
        familyView: 'descriptor',
        countsInGpa: false,
      },
      rule: { kind: null, length: null },
      windows: trimesterWindows,
    })),
  ],
  exceptions: [],
};

export const collegeSetUp: SetUpPlan = {
  breaks: [winter, ['Spring break', '2026-03-30', '2026-04-06']],
  choiceScales: [
    {
      id: 32,
      name: 'Midterm',
      bands: [
        ['S', '60', 'Satisfactory', true],
        ['U', '0', 'Unsatisfactory', false],
      ],
    },
  ],
  items: [
    {
      row: {
        id: 301,
        name: 'Midterm',
        heading: 'Midterm',
        kind: 'progress',
        periodKind: 'term',
        ordinals: [2, 3],
        scaleId: 32,
        source: 'hand',
        digits: 0,
        familyTime: 'posted',
        failingNeedsLastDate: true,
        countsInGpa: false,
      },
      rule: { kind: null, length: null },
      windows: [
        [23, '2026-02-09T08:00:00Z', '2026-02-16T17:00:00Z', 'midterm: aid and advice need it early'],
        [24, '2026-05-11T08:00:00Z', '2026-05-18T17:00:00Z', 'midterm: aid and advice need it early'],
      ],
    },
  ],
  exceptions: [],
};

/** The district's codes. */
export const codes: readonly SpecialCode[] = [
  newCode('INC', 'Incomplete', {
    asPart: 'blocks',
    needsLastDate: true,
    triesCredit: true,
    lapsesInto: 'F',
    lapsesAfterDays: 30,
  }),
  newCode('EXM', 'Exempt', { asPart: 'leaves', onTranscript: false }),
  newCode('WDR', 'Withdrawn', { asPart: 'leaves', needsLastDate: true }),
  newCode('NVA', 'Never attended', {
    asPart: 'counts',
    countsAs: decimalOrThrow('0'),
    isFailing: true,
    needsLastDate: true,
    needsFirstDay: true,
    triesCredit: true,
  }),
  newCode('NAM', 'Not attending at midterm', { needsLastDate: true, onTranscript: false }),
  newCode('FAM', 'Failing at midterm', { forbidsPercent: false, isFailing: true, onTranscript: false }),
  newCode('NCR', 'No credit', { triesCredit: true, isFailing: true, needsLastDate: true }),
  newCode('PAS', 'Pass', { asPart: 'leaves', triesCredit: true, earnsCredit: true }),
  newCode('IPR', 'In progress', { triesCredit: true }),
];
