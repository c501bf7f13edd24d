// Deciding what comes in: a run's classes against reading them, a zip's rows against parsing them.
import Papa from 'papaparse';
import { dayOrThrow } from '#core/calendar';
import { exchangeFiles, planExchange } from '#core/exchange';
import { planClass } from '#core/runs';
import { median } from './support/median.mjs';

const [classes, columns, students] = [100, 12, 30];
const each = (count, make) => Array.from({ length: count }, (_each, at) => make(at));
const day = dayOrThrow('2026-01-09');

const theirs = each(classes, (at) => ({
  title: `Class ${at}`,
  weightSum: '100',
  totals: [],
  assignments: each(columns, (column) => ({
    key: `a${at}-${column}`,
    name: `Assignment ${column}`,
    possible: '20',
    groupKey: 'g',
    dueOn: day,
    isMarked: true,
    isPublished: true,
    isGraded: true,
    givenTo: null,
    results: each(students, (student) => ({
      personKey: `p${student}`,
      points: String(student % 20),
      possible: '20',
      letter: null,
    })),
  })),
}));
const told = theirs.map((one) => JSON.stringify(one));
const ours = {
  decision: 'joined',
  section: {
    students: new Map(each(students, (at) => [at + 1, { enrollmentId: at, name: `Student ${at}`, withdrawnOn: null }])),
    assignments: [],
    removedKeys: new Set(),
    scores: new Map(),
    items: new Map(),
  },
  sectionName: 'Section',
  period: { name: 'Quarter', startsOn: dayOrThrow('2025-11-17'), endsOn: dayOrThrow('2026-01-30'), isSealed: false },
  groups: new Map([['g', { decision: 'joined', target: 1 }]]),
  people: new Map(each(students, (at) => [`p${at}`, { decision: 'joined', target: at + 1, name: `Student ${at}` }])),
  letters: new Map(),
  totals: new Map(),
  defaultCategoryId: null,
};
const choices = { mode: 'keep', carriesWork: true, carriesTotals: true };

const rowCount = 100_000;
const results = each(rowCount, (at) => ({
  sourcedId: `r${at}`,
  lineItemSourcedId: `li${at % 4000}`,
  studentSourcedId: `u${at % 1000}`,
  scoreStatus: 'fully graded',
  score: String(at % 20),
}));
const enrollments = each(1000, (at) => ({
  sourcedId: `e${at}`,
  classSourcedId: 'c',
  userSourcedId: `u${at}`,
  role: 'student',
}));
const lineItems = each(4000, (at) => ({ sourcedId: `li${at}`, classSourcedId: 'c' }));
const users = each(1000, (at) => ({ sourcedId: `u${at}` }));
const here = { results, enrollments, lineItems, users };
const csv = Papa.unparse(results);
const manifest = {
  version: '1.1',
  modes: Object.fromEntries(exchangeFiles.map((file) => [file, 'bulk'])),
  passedOver: [],
};

const state = { sealed: new Set(), merged: new Map(), today: '2026-01-21' };

export const measurements = [
  {
    what: 'planning the 36,000 scores of 100 classes',
    against: 'reading them from JSON',
    limit: 25,
    measure: async () => ({
      ours: await median(5, () => told.forEach((text) => planClass(JSON.parse(text), ours, choices))),
      peer: await median(5, () => told.forEach((text) => JSON.parse(text))),
    }),
  },
  {
    what: 'deciding 100,000 scores of a zip against what is here, parsing included',
    against: 'parsing them',
    limit: 6,
    measure: async () => ({
      ours: await median(5, () =>
        planExchange(manifest, { results: Papa.parse(csv, { header: true }).data }, here, state),
      ),
      peer: await median(5, () => Papa.parse(csv, { header: true })),
    }),
  },
];
