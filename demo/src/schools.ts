import type { BandPlan, CoursePlan, SchoolPlan } from './school-plan.js';
import { spindleRock } from './spindle-rock/spindle-rock.js';

const letters: readonly BandPlan[] = [
  ['A', '93', '4.0', 'Excellent', true],
  ['A-', '90', '3.7', 'Excellent', true],
  ['B+', '87', '3.3', 'Good', true],
  ['B', '83', '3.0', 'Good', true],
  ['B-', '80', '2.7', 'Good', true],
  ['C+', '77', '2.3', 'Satisfactory', true],
  ['C', '73', '2.0', 'Satisfactory', true],
  ['C-', '70', '1.7', 'Satisfactory', true],
  ['D+', '67', '1.3', 'Just passing', true],
  ['D', '60', '1.0', 'Just passing', true],
  ['F', '0', '0.0', 'Not passing', false],
];

/** One department of the upper school: a course for each year, some of them with an honours class beside it. */
const upperLines: readonly (readonly [department: string, titles: readonly string[], honoursFrom: number])[] = [
  ['Sea and Shore', ['Shore Life', 'Tidal Ecology', 'Currents and Weather', 'Deep Water Biology'], 1],
  [
    'Numbers and Charts',
    ['Number and Measure', 'Chart and Compass Mathematics', 'Curves and Tides', 'Reckoning and Chance'],
    0,
  ],
  ['Letters', ['Reading the Coast', 'Island Literature', 'Letters and Logbooks', 'Argument and Assembly'], 2],
  ['Island and World', ['Harbour History', 'Routes and Trade', 'Law of the Foreshore', 'Islands Compared'], 2],
  ['Craft and Workshop', ['Rope and Canvas', 'Boatbuilding', 'Marine Engines', 'Lantern and Signal'], 3],
  ['Voice and Movement', ['Rescue Swimming', 'Choir and Shanty', 'Net and Fibre Arts', 'Stage and Storm'], 4],
];

const upperCourses: readonly CoursePlan[] = [
  ...upperLines.flatMap(([department, titles, honoursFrom]) =>
    titles.flatMap((title, year): CoursePlan[] => {
      const yearGroup = String(9 + year);
      const countsInGpa = department !== 'Voice and Movement';
      const course = { department, length: 'year', credits: '1', countsInGpa, yearGroup } as const;
      const regular: CoursePlan = { ...course, title, level: 'regular' };
      return year >= honoursFrom ? [regular, { ...course, title: `${title}, honours`, level: 'honours' }] : [regular];
    }),
  ),
  ...[
    'Seabird Watch',
    'Knots',
    'Kitchen Garden',
    'Driftwood Drawing',
    'Radio Hour',
    'Map Printing',
    'Debating',
    'Small Sails',
    'Beekeeping',
    'Field Sketching',
    'Star Names',
    'Island Cooking',
  ].map((title): CoursePlan => ({
    title,
    department: 'Half-year courses',
    level: 'regular',
    length: 'semester',
    credits: '0.5',
    countsInGpa: true,
    yearGroup: null,
  })),
];

const primaryCourses: readonly CoursePlan[] = ['1', '2', '3', '4', '5'].flatMap((yearGroup) =>
  ['Reading and Telling', 'Numbers', 'Shore and Garden', 'Making'].map((title): CoursePlan => ({
    title: `${title}, year ${yearGroup}`,
    department: `Year ${yearGroup}`,
    level: 'regular',
    length: 'year',
    credits: '0',
    countsInGpa: false,
    yearGroup,
  })),
);

const collegeTitles =
  'Harbour Accounts|Ferry Operations|Boatyard Safety|Marine Law|Island Tourism|Nursing Foundations|Care of the Old|Welding|Refrigeration|Net Mending for Trade|Small Business|Writing for Work|Spoken Languages|Applied Statistics|Tide Power|Solar and Wind|Hotel Kitchen|Bakery|Child Development|Coastal Surveying|Radio Operation|First Response'.split(
    '|',
  );

const collegeCourses = collegeTitles.map((title, index): CoursePlan => ({
  title,
  department: index % 2 ? 'Trades' : 'Services',
  level: 'regular',
  length: 'term',
  credits: index % 5 === 0 ? '4' : '3',
  countsInGpa: true,
  yearGroup: null,
}));

export const upper: SchoolPlan = {
  id: 1,
  code: 'PEU',
  name: 'Port Elowen Upper School',
  shortName: 'Upper School',
  students: 560,
  teachers: 36,
  periods: [
    { id: 1, parentId: null, kind: 'year', name: '2025–26', startsOn: '2025-09-01', endsOn: '2026-06-12' },
    { id: 2, parentId: 1, kind: 'semester', name: 'Semester 1', startsOn: '2025-09-01', endsOn: '2026-01-23' },
    {
      id: 3,
      parentId: 2,
      kind: 'quarter',
      name: 'Quarter 1',
      startsOn: '2025-09-01',
      endsOn: '2025-11-07',
      window: ['2025-10-31T08:00:00Z', '2025-11-11T17:00:00Z'],
    },
    {
      id: 4,
      parentId: 2,
      kind: 'quarter',
      name: 'Quarter 2',
      startsOn: '2025-11-10',
      endsOn: '2026-01-23',
      window: ['2026-01-14T08:00:00Z', '2026-01-23T17:00:00Z'],
    },
    { id: 5, parentId: 1, kind: 'semester', name: 'Semester 2', startsOn: '2026-01-26', endsOn: '2026-06-12' },
    {
      id: 6,
      parentId: 5,
      kind: 'quarter',
      name: 'Quarter 3',
      startsOn: '2026-01-26',
      endsOn: '2026-04-02',
      window: ['2026-03-26T08:00:00Z', '2026-04-07T17:00:00Z'],
    },
    {
      id: 7,
      parentId: 5,
      kind: 'quarter',
      name: 'Quarter 4',
      startsOn: '2026-04-13',
      endsOn: '2026-06-12',
      window: ['2026-06-04T08:00:00Z', '2026-06-16T17:00:00Z'],
    },
  ],
  scale: { name: 'Letter scale', bands: letters },
  item: {
    name: 'Quarter grade',
    heading: 'Quarter',
    digits: 1,
    periodKind: 'quarter',
    failingNeedsLastDate: false,
    asksHours: false,
    onTranscript: true,
  },
  categories: [
    ['Class work', 30],
    ['Homework', 10],
    ['Quizzes', 20],
    ['Tests', 40],
  ],
  courses: upperCourses,
};

export const primary: SchoolPlan = {
  id: 2,
  code: 'GAN',
  name: 'Gannet Primary',
  shortName: 'Gannet Primary',
  students: 330,
  teachers: 17,
  periods: [
    { id: 11, parentId: null, kind: 'year', name: '2025–26', startsOn: '2025-09-01', endsOn: '2026-06-12' },
    {
      id: 12,
      parentId: 11,
      kind: 'trimester',
      name: 'Trimester 1',
      startsOn: '2025-09-01',
      endsOn: '2025-11-28',
      window: ['2025-11-20T08:00:00Z', '2025-12-02T17:00:00Z'],
    },
    {
      id: 13,
      parentId: 11,
      kind: 'trimester',
      name: 'Trimester 2',
      startsOn: '2025-12-01',
      endsOn: '2026-03-13',
      window: ['2026-03-05T08:00:00Z', '2026-03-17T17:00:00Z'],
    },
    {
      id: 14,
      parentId: 11,
      kind: 'trimester',
      name: 'Trimester 3',
      startsOn: '2026-03-16',
      endsOn: '2026-06-12',
      window: ['2026-06-04T08:00:00Z', '2026-06-16T17:00:00Z'],
    },
  ],
  scale: {
    name: 'Four steps',
    highestLevel: '4',
    bands: [
      ['4', '3.5', null, 'Beyond what the year asks', true],
      ['3', '2.5', null, 'What the year asks', true],
      ['2', '1.5', null, 'On the way', true],
      ['1', '0', null, 'At the beginning', true],
    ],
  },
  item: {
    name: 'Trimester step',
    heading: 'Step',
    digits: 2,
    periodKind: 'trimester',
    failingNeedsLastDate: false,
    asksHours: false,
    onTranscript: false,
  },
  categories: [
    ['Knowing', 40],
    ['Doing', 40],
    ['Explaining', 20],
  ],
  courses: primaryCourses,
};

export const college: SchoolPlan = {
  id: 3,
  code: 'EEC',
  name: 'Elowen Evening College',
  shortName: 'Evening College',
  students: 260,
  teachers: 17,
  periods: [
    { id: 21, parentId: null, kind: 'year', name: '2025–26', startsOn: '2025-09-08', endsOn: '2026-06-26' },
    {
      id: 22,
      parentId: 21,
      kind: 'term',
      name: 'Autumn term',
      startsOn: '2025-09-08',
      endsOn: '2025-12-19',
      window: ['2025-12-12T08:00:00Z', '2025-12-23T17:00:00Z'],
    },
    {
      id: 23,
      parentId: 21,
      kind: 'term',
      name: 'Winter term',
      startsOn: '2026-01-05',
      endsOn: '2026-03-27',
      window: ['2026-03-20T08:00:00Z', '2026-03-31T17:00:00Z'],
    },
    {
      id: 24,
      parentId: 21,
      kind: 'term',
      name: 'Spring term',
      startsOn: '2026-04-07',
      endsOn: '2026-06-26',
      window: ['2026-06-19T08:00:00Z', '2026-06-30T17:00:00Z'],
    },
  ],
  scale: {
    name: 'College letters',
    bands: [
      ['A', '90', '4.0', 'Excellent', true],
      ['B', '80', '3.0', 'Good', true],
      ['C', '70', '2.0', 'Satisfactory', true],
      ['D', '60', '1.0', 'Just passing', true],
      ['F', '0', '0.0', 'Not passing', false],
    ],
  },
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
    ['Assignments', 50],
    ['Quizzes', 30],
    ['Tests', 20],
  ],
  courses: collegeCourses,
};

/** Those that are drawn by lot, one after the other; a school beside them has a stream of its own. */
export const schoolPlans = [upper, primary, college] as const;

/** The plan of the school of a section. */
export function planOf({ courseId }: { readonly courseId: number }): SchoolPlan {
  return [...schoolPlans, spindleRock].find(({ id }) => id === Math.floor(courseId / 1000))!;
}

/** The moment at which the demo's clock starts: a Wednesday, two days before the window of Quarter 2 closes. */
export const demoNow = '2026-01-21T10:42:00Z';
