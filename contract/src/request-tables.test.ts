import 'reflect-metadata';
import { plainToInstance, type ClassConstructor } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import { describe, expect, it } from 'vitest';
import { personFields } from '#core/people';
import { CategoryBody, SaveCategoriesRequest, SaveScoresRequest } from '#contract/calculation';
import { BreakBody, CopyYearsRequest, PeriodBody, WindowBody } from '#contract/calendar';
import { LogRequest } from '#contract/changes';
import { CodeBody, SaveCodesRequest } from '#contract/codes';
import { SaveCoursesRequest } from '#contract/courses';
import { DecideMatchesRequest } from '#contract/matching';
import { SavePeopleRequest } from '#contract/people';
import { OrderItemsRequest } from '#contract/report-items';
import { ConnectPlatformRequest } from '#contract/platforms';
import { PickRequest } from '#contract/runs';
import { PlaceScaleRequest, ScaleFactsRequest } from '#contract/scales';
import { GpaPolicyBody } from '#contract/transcripts';
import { LevelRuleBody } from './calculation/policy-messages.js';

/* What the edge refuses, whatever the domain would think of it: each request with one field wrong, and each without one. */

type Values = Readonly<Record<string, unknown>>;

interface Table {
  readonly type: ClassConstructor<object>;
  /** A request that is taken as it is. */
  readonly good: Values;
  /** Fields by their path, and what they may not be. */
  readonly bad: Readonly<Record<string, readonly unknown[]>>;
  /** Fields that may be missing. */
  readonly optional?: readonly string[];
}

const personCells = Object.fromEntries(personFields.map((field) => [field, 'x']));
const long = (length: number) => 'x'.repeat(length);
const cells = {
  code: 'MA1',
  title: 'Making',
  department: 'Craft',
  kind: '',
  level: '',
  length: 'year',
  credits: '',
  mostCredits: '',
  onTranscript: '',
  countsInGpa: '',
  allowsExempt: '',
};
const code = {
  code: 'INC',
  meaning: 'Incomplete',
  isOff: false,
  asPart: 'blocks',
  countsAs: null,
  isFailing: false,
  forbidsPercent: true,
  needsLastDate: false,
  needsFirstDay: false,
  lapsesInto: 'F',
  lapsesAfterDays: 30,
  triesCredit: true,
  earnsCredit: false,
  countsInGpa: false,
  onTranscript: true,
};
const notWhole = ['1', 1.5, null, undefined, Number.NaN];
const notDays = [
  '2026-1-16', '16/01/2026', '2026-01-16T00:00:00Z', 20260116, null, '2026-02-31', '0000-01-01', '9999-12-31'
]; // prettier-ignore
const notTruth = ['true', 1, null];

const tables: Readonly<Record<string, Table>> = {
  'a period': {
    type: PeriodBody,
    good: { id: -1, parentId: 3, kind: 'quarter', name: 'Quarter 1', startsOn: '2025-09-01', endsOn: '2025-11-07' },
    bad: {
      id: notWhole,
      parentId: ['3', 1.5],
      kind: ['week', '', null],
      name: ['', long(41), 7],
      startsOn: notDays,
      endsOn: notDays,
    },
  },
  'a break': {
    type: BreakBody,
    good: { id: 1, name: 'Winter break', startsOn: '2025-12-20', endsOn: '2026-01-04' },
    bad: { id: notWhole, name: ['', long(41)], startsOn: notDays, endsOn: notDays },
  },
  'a posting window': {
    type: WindowBody,
    good: {
      itemId: 1,
      periodId: 4,
      opensAt: '2026-01-14T08:00:00Z',
      closesAt: '2026-01-23T17:00:00Z',
      graceUntil: null,
      latePosters: 'registrars',
      earlyReason: '',
    },
    bad: {
      opensAt: ['tomorrow', '2026-02-30T08:00:00Z', 5, null],
      closesAt: ['2026-01-23 at five', ''],
      graceUntil: ['never', 7],
      latePosters: ['everybody', null],
      earlyReason: [long(121), null],
    },
  },
  'years to copy': {
    type: CopyYearsRequest,
    good: { years: [{ schoolId: 1, revision: 'r', yearId: 2, name: '2026–27', startsOn: '2026-09-01' }] },
    bad: {
      years: [[], 'all', null],
      'years.0.schoolId': notWhole,
      'years.0.name': ['', long(41)],
      'years.0.startsOn': notDays,
    },
  },
  'a code': {
    type: CodeBody,
    good: code,
    bad: {
      code: ['', 'INCOMPLETE', 7],
      meaning: ['', long(61)],
      asPart: ['vanishes', null],
      countsAs: ['1000', '50.123', '-1', 'half', 50],
      lapsesInto: ['', long(13)],
      lapsesAfterDays: [0, 3651, 1.5, '30'],
      ...Object.fromEntries(
        ['isOff', 'isFailing', 'forbidsPercent', 'needsLastDate', 'needsFirstDay', 'triesCredit', 'earnsCredit', 'countsInGpa', 'onTranscript'].map((flag) => [flag, notTruth]), // prettier-ignore
      ),
    },
  },
  'the codes': {
    type: SaveCodesRequest,
    good: { revision: 'r', codes: [code] },
    bad: { revision: [7, null], codes: ['none', Array.from({ length: 61 }, () => code)], 'codes.0.meaning': [''] },
  },
  courses: {
    type: SaveCoursesRequest,
    good: { changes: [{ id: null, revision: '', cells }], removed: [7] },
    bad: {
      changes: ['none', null],
      'changes.0.id': ['7', 1.5],
      'changes.0.cells.title': [long(201), 7, null],
      'changes.0.cells.credits': [0.5],
      removed: [['7'], [1.5], 'all'],
    },
  },
  people: {
    type: SavePeopleRequest,
    good: { changes: [{ id: 7, revision: 'r', cells: personCells }], removed: [8] },
    bad: {
      changes: ['none', null],
      'changes.0.id': ['7', 1.5],
      'changes.0.revision': [7, null],
      'changes.0.cells.familyName': [long(201), 7, null],
      'changes.0.cells.birthDate': [2010],
      removed: [['7'], [1.5], 'all'],
    },
  },
  'an order of items': {
    type: OrderItemsRequest,
    good: { itemIds: [2, 1], seen: [1, 2] },
    bad: { itemIds: ['2,1', ['2'], [1.5]], seen: [null, ['2']] },
  },
  'decisions on matches': {
    type: DecideMatchesRequest,
    good: { decisions: [{ kind: 'class', ids: [1, 2], decision: 'joined', target: '7' }] },
    bad: {
      decisions: [[], 'all'],
      'decisions.0.kind': ['school', null],
      'decisions.0.ids': [[], ['1'], [1.5]],
      'decisions.0.decision': ['perhaps'],
      'decisions.0.target': ['', long(61), null, 7],
    },
  },
  'a platform to connect': {
    type: ConnectPlatformRequest,
    good: { schoolId: 1, name: 'Quillpond', address: 'http://127.0.0.1:4900', clientId: 'w', clientSecret: 's' },
    bad: {
      schoolId: notWhole,
      name: ['', long(61)],
      address: ['quillpond', 'ftp://quillpond.example', 'javascript:alert(1)', '//quillpond.example', ''],
      clientId: ['', long(201)],
      clientSecret: ['', long(501)],
    },
  },
  'a place for a scale': {
    type: PlaceScaleRequest,
    good: {
      kind: 'department',
      department: 'Craft',
      level: null,
      courseId: null,
      sectionId: null,
      scaleId: 3,
      isLocked: false,
      fromPeriodId: 4,
      revision: null,
    },
    bad: {
      revision: [7],
      kind: ['street', null],
      department: [7],
      level: ['expert'],
      courseId: ['7', 1.5],
      sectionId: ['7'],
      scaleId: ['3'],
      isLocked: notTruth,
      fromPeriodId: notWhole,
    },
  },
  'the facts of a scale': {
    type: ScaleFactsRequest,
    good: { revision: 'r', name: 'Honours letters', tie: { toId: 1, cutOffShift: '-0.5', pointsShift: '0.5' } },
    bad: {
      name: ['', long(61)],
      tie: ['letters', 7],
      'tie.toId': notWhole,
      'tie.cutOffShift': ['half', '100', '0.555', 0.5],
      'tie.pointsShift': ['10', '0.555', ''],
    },
  },
  'the GPA settings': {
    type: GpaPolicyBody,
    good: {
      additions: { regular: '0', honours: '0.5', college: '1' },
      leastAddedPoints: '2',
      mostAddedCredits: null,
      repeats: 'all',
      digits: 3,
      rounding: 'halfUp',
    },
    bad: {
      additions: [null, 'more'],
      'additions.honours': ['half', '', 0.5],
      leastAddedPoints: ['two', null],
      mostAddedCredits: ['4.55555', 'four', 4],
      repeats: ['sometimes'],
      digits: [-1, 5, 1.5, '3'],
      rounding: ['nearest'],
    },
  },
  'a category': {
    type: CategoryBody,
    good: { id: null, name: 'Tests', tint: 3, isActive: true },
    bad: { id: ['1', 1.5], name: ['', long(41)], tint: [-1, 8, 1.5, '3'], isActive: notTruth },
  },
  categories: {
    type: SaveCategoriesRequest,
    good: { revision: 'r', categories: [] },
    bad: {
      revision: [null],
      categories: [Array.from({ length: 41 }, () => ({ id: null, name: 'T', tint: 0, isActive: true })), 'none'],
    },
  },
  'levels of a policy': {
    type: LevelRuleBody,
    good: { most: '4', meets: '3', exceeds: '4', evidence: 3 },
    bad: { most: ['four', '', 4], meets: ['-1', null], exceeds: ['4.555'], evidence: [0, 51, 1.5, '3'] },
  },
  scores: {
    type: SaveScoresRequest,
    good: { changes: [{ assignmentId: 1, enrollmentId: 2, version: 0, points: '8.5', flag: null }] },
    bad: {
      changes: [[], 'all', null],
      'changes.0.points': ['-1', '8.555', '10000', '8,5', 'eight', 8.5],
      'changes.0.flag': ['lost'],
      'changes.0.version': notWhole,
    },
  },
  'rows of a run to pick': {
    type: PickRequest,
    good: { kind: 'row', keys: ['score 1'], isPicked: false },
    bad: { kind: ['all of it', null], keys: [[], [''], [long(401)], [7], 'all'], isPicked: notTruth },
  },
  'a look into the log': {
    type: LogRequest,
    good: { thing: 'grade 1/4/7', personId: 3, text: 'save', from: '2026-01-14T08:00:00Z', until: '2026-01-15T08:00:00Z', before: 99 }, // prettier-ignore
    optional: ['thing', 'personId', 'text', 'from', 'until', 'before'],
    bad: {
      thing: [long(201)],
      personId: ['somebody', 1.5],
      text: [long(201)],
      from: ['yesterday'],
      until: ['2026-02-30T00:00:00Z'],
      before: ['first'],
    },
  },
};

/** Paths of the fields at fault, as the server answers them. */
function faultsOf(type: ClassConstructor<object>, body: unknown): string[] {
  const paths = (errors: ValidationError[], path: string): string[] =>
    errors.flatMap(({ property, constraints, children }) => [
      ...(constraints ? [path + property] : []),
      ...paths(children ?? [], `${path}${property}.`),
    ]);
  return paths(validateSync(plainToInstance(type, body)), '');
}

/** A copy with one field as given; without it where nothing is. */
function withField(body: unknown, [name, ...rest]: readonly string[], value: unknown): unknown {
  const copy = (Array.isArray(body) ? [...(body as unknown[])] : { ...(body as object) }) as Record<string, unknown>;
  if (rest.length > 0) copy[name!] = withField(copy[name!], rest, value);
  else if (value === undefined) delete copy[name!];
  else copy[name!] = value;
  return copy;
}

describe.each(Object.entries(tables))('%s', (_name, { type, good, bad, optional = [] }) => {
  it('is taken as it should be', () => expect(faultsOf(type, good)).toEqual([]));

  it.each(Object.entries(bad).flatMap(([path, values]) => values.map((value) => [path, value] as const)))(
    'is refused by its field: %s may not be %j',
    (path, value) => {
      const faults = faultsOf(type, withField(good, path.split('.'), value));
      expect(faults.some((fault) => fault === path || fault.startsWith(`${path}.`))).toBe(true);
    },
  );

  it.each(Object.keys(good).filter((field) => !optional.includes(field)))('is refused without %s', (field) => {
    expect(faultsOf(type, withField(good, [field], undefined))).toContain(field);
  });

  it.each(thingsIn(good))('takes no list where one thing is wanted, at %s', (path) => {
    const faults = faultsOf(type, withField(good, path.split('.'), []));
    expect(faults.some((fault) => path.startsWith(fault))).toBe(true); // one of a list is told of by the list
  });
});

/** Paths of the things within a request, and of those in its lists. */
function thingsIn(value: unknown, path = ''): string[] {
  if (typeof value !== 'object' || value === null) return [];
  const own = path === '' || Array.isArray(value) ? [] : [path];
  return [...own, ...Object.entries(value).flatMap(([key, each]) => thingsIn(each, path ? `${path}.${key}` : key))];
}
