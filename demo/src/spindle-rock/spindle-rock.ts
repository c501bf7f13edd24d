import type { BandPlan, CoursePlan, SchoolPlan } from '../school-plan.js';
import type { SetUpPlan } from '../set-up-plans.js';

const letters: readonly BandPlan[] = [
  ['H', '100', null, 'With honour', true],
  ['A', '90', '4.0', 'Excellent', true],
  ['B', '80', '3.0', 'Good', true],
  ['C', '70', '2.0', 'Satisfactory', true],
  ['D', '60', '1.0', 'Just passing', true],
  ['F', '0', '0.0', 'Not passing', false],
];

const course = (title: string, department: string, credits = '0.5'): CoursePlan => ({
  title,
  department,
  level: 'regular',
  length: 'term',
  credits,
  countsInGpa: true,
  yearGroup: null,
});

/** Each with how many students sit in each of its sections of the second term. */
export const taught: readonly (CoursePlan & { readonly sections: readonly number[] })[] = [
  { ...course('Sea Weather', 'Sea'), sections: [16, 16, 16] },
  { ...course('Rock Pools', 'Sea'), sections: [22] },
  { ...course('Cloud Names', 'Sea'), sections: [16] },
  { ...course('Gull Counting', 'Sea'), sections: [12] },
  { ...course('Knot Lore', 'Sea'), sections: [12] },
  { ...course('Tide Arithmetic', 'Numbers'), sections: [14, 14] },
  { ...course('Net Geometry', 'Numbers'), sections: [13, 13] },
  { ...course('Charts of the Rock', 'Numbers'), sections: [12] },
  { ...course('Driftwood Accounts', 'Numbers'), sections: [12] },
  { ...course('Old Charts', 'Numbers'), sections: [14] },
  { ...course('Harbour Talk', 'Words'), sections: [14] },
  { ...course('Signal Flags', 'Words', '0'), sections: [12] },
  { ...course('First Words', 'Reading'), sections: [14] },
  { ...course('Sail Mending', 'Hands'), sections: [14] },
  { ...course('Knife and Grain', 'Hands'), sections: [14] },
  { ...course('Stone Walls', 'Hands'), sections: [14] },
  { ...course('Lamp Keeping', 'Light'), sections: [12] },
  { ...course('Boat Songs', 'Music'), sections: [12] },
];

/**
 * A school that the district took over in the autumn, with the records that it had: what of its second term is wrong is there
 * for the audit to find, a fault of each kind, and beside it what looks alike and is right.
 */
export const spindleRock: SchoolPlan = {
  id: 4,
  code: 'SRS',
  name: 'Spindle Rock School',
  shortName: 'Spindle Rock',
  students: 64,
  teachers: 8,
  periods: [
    { id: 31, parentId: null, kind: 'year', name: '2025–26', startsOn: '2025-09-01', endsOn: '2026-06-12' },
    {
      id: 32,
      parentId: 31,
      kind: 'term',
      name: 'First term',
      startsOn: '2025-09-01',
      endsOn: '2025-10-24',
      window: ['2025-10-20T08:00:00Z', '2025-10-28T17:00:00Z'],
    },
    {
      id: 33,
      parentId: 31,
      kind: 'term',
      name: 'Second term',
      startsOn: '2025-10-27',
      endsOn: '2025-12-19',
      window: ['2025-12-15T08:00:00Z', '2026-01-13T17:00:00Z'],
    },
    {
      id: 34,
      parentId: 31,
      kind: 'term',
      name: 'Third term',
      startsOn: '2026-01-05',
      endsOn: '2026-03-27',
      window: ['2026-03-20T08:00:00Z', '2026-03-31T17:00:00Z'],
    },
    {
      id: 35,
      parentId: 31,
      kind: 'term',
      name: 'Fourth term',
      startsOn: '2026-04-07',
      endsOn: '2026-06-12',
      window: ['2026-06-05T08:00:00Z', '2026-06-16T17:00:00Z'],
    },
  ],
  scale: { name: 'Rock letters', bands: letters },
  item: {
    name: 'Term grade',
    heading: 'Term',
    digits: 0,
    periodKind: 'term',
    failingNeedsLastDate: true,
    asksHours: true,
    onTranscript: true,
  },
  categories: [
    ['Work', 40],
    ['Tests', 40],
    ['Field notes', 20],
  ],
  courses: taught.map(({ sections: _sections, ...plan }) => plan),
};

export const [firstTerm, secondTerm] = [32, 33] as const;
/** Report items of the second term beside the grade. */
export const items = { termGrade: 4, project: 401, wholeWork: 402, readingAloud: 403 } as const;

const secondOnly = { periodKind: 'term' as const, ordinals: [2], countsInGpa: false };
const window = [secondTerm, '2025-12-15T08:00:00Z', '2026-01-13T17:00:00Z'] as const;

export const spindleRockSetUp: SetUpPlan = {
  breaks: [
    ['Winter break', '2025-12-22', '2026-01-02'],
    ['Spring break', '2026-03-30', '2026-04-06'],
  ],
  choiceScales: [],
  items: [
    {
      row: {
        ...secondOnly,
        id: items.project,
        name: 'Project',
        heading: 'Project',
        kind: 'exam',
        source: 'hand',
        digits: 0,
        highestPercent: '100',
        commentRule: 'none',
      },
      rule: { kind: 'workshop', length: null },
      windows: [window],
    },
    {
      row: {
        ...secondOnly,
        id: items.wholeWork,
        name: 'Whole work',
        heading: 'Whole',
        kind: 'final',
        source: 'composite',
      },
      parts: [
        [items.termGrade, 1, '80'],
        [items.project, 1, '20'],
      ],
      rule: { kind: 'workshop', length: null },
      windows: [window],
    },
    {
      row: {
        ...secondOnly,
        id: items.readingAloud,
        name: 'Reading aloud',
        heading: 'Aloud',
        kind: 'progress',
        source: 'hand',
        digits: 0,
      },
      rule: { kind: 'reading', length: null },
      windows: [],
    },
  ],
  exceptions: [],
};
