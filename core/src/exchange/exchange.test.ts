import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { checkHead } from './check-rows.js';
import {
  exchangeFiles,
  extension,
  fieldsOf,
  type ExchangeFile,
  type ExchangeRow,
  type ExchangeRows,
} from './exchange-format.js';
import { asMerged } from './as-merged.js';
import { asHeld, termsOf } from './fit-rows.js';
import { planExchange, type ExchangeState } from './plan-exchange.js';
import { readManifest, type FileMode, type Manifest } from './read-manifest.js';
import { readScoreScale, readWholeBands, writeScoreScale } from './score-scale.js';
import { flagOf, periodKindOf, resultFieldsOf, sectionNumberOf } from './translate.js';

/* 1EdTech OneRoster 1.1 and 1.2, CSV binding: field lists and enumerations (from memory). */

describe('the fields of a file', () => {
  it.each<[ExchangeFile, '1.1' | '1.2', string]>([
    ['orgs', '1.1', 'sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId'],
    [
      'academicSessions',
      '1.1',
      'sourcedId,status,dateLastModified,title,type,startDate,endDate,parentSourcedId,schoolYear',
    ],
    [
      'users',
      '1.1',
      'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password',
    ],
    [
      'roles',
      '1.2',
      'sourcedId,status,dateLastModified,userSourcedId,roleType,role,beginDate,endDate,orgSourcedId,userProfileSourcedId',
    ],
    [
      'classes',
      '1.1',
      'sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds,subjects,subjectCodes,periods',
    ],
    [
      'enrollments',
      '1.1',
      'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate',
    ],
    [
      'lineItems',
      '1.1',
      'sourcedId,status,dateLastModified,title,description,assignDate,dueDate,classSourcedId,categorySourcedId,gradingPeriodSourcedId,resultValueMin,resultValueMax',
    ],
    [
      'results',
      '1.1',
      'sourcedId,status,dateLastModified,lineItemSourcedId,studentSourcedId,scoreStatus,score,scoreDate,comment',
    ],
    ['categories', '1.2', 'sourcedId,status,dateLastModified,title,weight'],
  ])('%s in %s are those of the standard, in its order', (file, version, names) => {
    expect(fieldsOf(file, version).map(({ name }) => name).join(',')).toBe(names); // prettier-ignore
  });

  it('a head lacks nothing that is required and has nothing strange but extensions', () => {
    const head = ['sourcedId', 'status', 'dateLastModified', 'title', 'metadata.house', 'colour'];
    expect(checkHead('categories', '1.1', head)).toEqual([
      { field: 'colour', says: 'OneRoster 1.1 has no column "colour" in categories.csv' },
    ]);
    expect(checkHead('categories', '1.1', ['sourcedId'])).toMatchObject([{ says: 'the column title is missing' }]);
  });
});

describe('a manifest', () => {
  it.each([
    ['without a version', [], 'it does not say oneroster.version'],
    ['of another version', [['oneroster.version', '2.0']], 'oneroster.version is "2.0"; 1.1 or 1.2 is read'],
    ['with a mode that is none', [['oneroster.version', '1.1'], ['file.orgs', 'some']], 'file.orgs is "some"; it has to be absent, bulk or delta'], // prettier-ignore
  ])('%s is refused in words', (_case, rows, says) => {
    expect(readManifest(rows)).toEqual({ kind: 'fault', says });
  });

  it('says of each file whether it is there, and names those that are passed over', () => {
    const read = readManifest([['oneroster.version', '1.1'], ['file.orgs', 'bulk'], ['file.resources', 'bulk']]); // prettier-ignore
    expect(read).toMatchObject({ kind: 'manifest', manifest: { version: '1.1', passedOver: ['resources'] } });
    expect(read.kind === 'manifest' && [read.manifest.modes.orgs, read.manifest.modes.users]).toEqual([
      'bulk',
      'absent',
    ]);
  });
});

const manifest = (mode: FileMode = 'bulk'): Manifest => ({
  version: '1.1',
  modes: Object.fromEntries(exchangeFiles.map((file) => [file, mode])) as Manifest['modes'],
  passedOver: [],
});
const school = { sourcedId: 's', name: 'Knot School', type: 'school' };
const term = {
  sourcedId: 't',
  title: 'Term',
  type: 'term',
  startDate: '2025-09-01',
  endDate: '2026-01-31',
  schoolYear: '2026',
};
const person = (sourcedId: string, role: string): ExchangeRow => ({
  sourcedId,
  enabledUser: 'true',
  orgSourcedIds: 's',
  role,
  username: sourcedId,
  givenName: 'G',
  familyName: sourcedId,
});
const stay = (sourcedId: string, userSourcedId: string, role: string, over: object = {}): ExchangeRow => ({
  sourcedId,
  classSourcedId: 'c',
  schoolSourcedId: 's',
  userSourcedId,
  role,
  ...over,
});
const whole: ExchangeRows = {
  orgs: [school],
  academicSessions: [term],
  users: [person('u1', 'student'), person('u2', 'teacher')],
  courses: [{ sourcedId: 'k', title: 'Knots', orgSourcedId: 's' }],
  classes: [
    {
      sourcedId: 'c',
      title: 'Knots 1',
      courseSourcedId: 'k',
      classType: 'scheduled',
      schoolSourcedId: 's',
      termSourcedIds: 't',
    },
  ],
  enrollments: [stay('e1', 'u1', 'student'), stay('e2', 'u2', 'teacher')],
  categories: [{ sourcedId: 'g', title: 'Tests' }],
  lineItems: [
    {
      sourcedId: 'a',
      title: 'Splice',
      dueDate: '2025-10-01',
      classSourcedId: 'c',
      categorySourcedId: 'g',
      resultValueMax: '20',
    },
  ],
  results: [
    { sourcedId: 'r', lineItemSourcedId: 'a', studentSourcedId: 'u1', scoreStatus: 'fully graded', score: '17' },
  ],
};
/** Nothing sealed, nobody merged. */
const state: ExchangeState = { sealed: new Set(), merged: new Map(), today: dayOrThrow('2026-01-20') };
const outcomes = (files: ExchangeRows, here: ExchangeRows = {}, mode: FileMode = 'bulk') =>
  planExchange(manifest(mode), files, here, state).map(({ file, outcome, faults }) =>
    [file, outcome, ...faults.map(({ field }) => field)].join(' '),
  );
const without = (file: ExchangeFile) => ({ ...whole, [file]: [] });

describe('a plan where two records were merged', () => {
  const merged = new Map([['u9', 'u1']]);
  const [student] = whole.users!;
  const both: ExchangeRows = {
    ...whole,
    users: [...whole.users!, { ...student!, sourcedId: 'u9', givenName: 'Tasmin' }],
    enrollments: [stay('e9', 'u9', 'student'), ...whole.enrollments!.slice(1)],
    results: [{ ...whole.results![0]!, studentSourcedId: 'u9' }],
  };
  const planned = (files: ExchangeRows, here: ExchangeRows) =>
    planExchange(manifest(), asMerged(files, merged), here, { ...state, merged }).flatMap(({ file, outcome, faults }) =>
      outcome === 'same' ? [] : [[file, outcome, ...faults.map(({ field }) => field)].join(' ')],
    );

  it('brings the one that went no more, and what hangs on it for the one that stays', () => {
    expect(planned(both, whole)).toEqual(['users left sourcedId']);
  });

  it('takes two seats of both in one class for two stays of one student, as it does anybody’s', () => {
    const twice = { ...both, enrollments: [stay('e9', 'u9', 'student'), ...whole.enrollments!] };
    const own = { ...whole, enrollments: [stay('e9', 'u1', 'student'), ...whole.enrollments!] };
    const ofSeats = (files: ExchangeRows) => planned(files, whole).filter((each) => each.startsWith('enrollments'));
    expect(ofSeats(twice)).toEqual(ofSeats(own));
  });
});

describe('a plan against a sealed period', () => {
  const sealed = (files: ExchangeRows, here: ExchangeRows) =>
    planExchange(manifest(), files, here, { ...state, sealed: new Set(['t']) }).flatMap(({ file, outcome, faults }) =>
      outcome === 'same' ? [] : [[file, outcome, ...faults.map(({ field }) => field)].join(' ')],
    );
  const [item, result] = [whole.lineItems![0]!, whole.results![0]!];
  const here = {
    ...whole,
    academicSessions: [{ ...term, [extension('school')]: 's' }],
    lineItems: [{ ...item, gradingPeriodSourcedId: 't' }],
  };

  it('refuses its days, its line items and their results row by row, and lets everything else through', () => {
    const changed = {
      ...here,
      academicSessions: [{ ...here.academicSessions[0]!, endDate: '2025-11-01' }],
      lineItems: [
        { ...here.lineItems[0]!, resultValueMax: '40' },
        { ...item, sourcedId: 'b', title: 'New' },
      ],
      results: [{ ...result, score: '12' }],
      categories: [{ sourcedId: 'g', title: 'Examinations' }],
    };
    expect(sealed(changed, here)).toEqual([
      'academicSessions refuse startDate',
      'categories changed',
      'lineItems refuse status',
      'lineItems refuse status',
      'results refuse status',
    ]);
  });

  it('has nothing against what is as it is here', () => expect(sealed(here, here)).toEqual([]));
});

describe('a score of more than two decimals', () => {
  it.each([
    ['1.555', ['results refuse score']],
    ['1.5500', []],
  ])('%s is refused rather than rounded, or is none', (score, expected) => {
    const results = [{ ...whole.results![0]!, score }];
    expect(
      outcomes({ ...whole, results }, { ...whole, results: [{ ...results[0]!, score: '1.55' }] }).filter((each) =>
        each.includes('refuse'),
      ),
    ).toEqual(expected);
  });
});

describe('a plan of a zip', () => {
  it('finds everything new where nothing is, and the same where it is here', () => {
    expect(new Set(outcomes(whole).map((each) => each.split(' ')[1]))).toEqual(new Set(['new']));
    expect(new Set(outcomes(whole, whole).map((each) => each.split(' ')[1]))).toEqual(new Set(['same']));
  });

  it.each<[string, ExchangeRows, string]>([
    ['a course of a school that is nowhere', without('orgs'), 'courses refuse orgSourcedId'],
    ['a class without a teacher', { ...whole, enrollments: [stay('e1', 'u1', 'student')] }, 'classes refuse sourcedId'],
    ['an enrollment in a class that is refused', { ...whole, courses: [] }, 'enrollments refuse classSourcedId'],
    [
      'a word that is none of the standard',
      { ...whole, users: [...whole.users!, person('u3', 'pilot')] },
      'users refuse role',
    ],
    [
      'a day that does not exist',
      { ...whole, academicSessions: [{ ...term, endDate: '2026-02-30' }] },
      'academicSessions refuse endDate',
    ],
    [
      'two rows with one id',
      { ...whole, categories: [...whole.categories!, { sourcedId: 'g', title: 'Quizzes' }] },
      'categories refuse sourcedId',
    ],
    [
      'a score of somebody who is not in the class',
      { ...whole, enrollments: [stay('e2', 'u2', 'teacher')] },
      'results refuse studentSourcedId',
    ],
    ['a guardian passes by', { ...whole, users: [...whole.users!, person('u4', 'guardian')] }, 'users left role'],
    [
      'a local body passes by',
      { ...whole, orgs: [school, { ...school, sourcedId: 'd', type: 'local' }] },
      'orgs left type',
    ],
    [
      'a second district passes by',
      { ...whole, orgs: ['d1', 'd2'].map((sourcedId) => ({ ...school, sourcedId, type: 'district' })) },
      'orgs left type',
    ],
    [
      'a second teacher teaches it too',
      {
        ...whole,
        users: [...whole.users!, person('u5', 'teacher')],
        enrollments: [...whole.enrollments!, stay('e5', 'u5', 'teacher')],
      },
      'enrollments new',
    ],
    [
      'an earlier stay in a class passes by',
      {
        ...whole,
        enrollments: [
          stay('e0', 'u1', 'student', { beginDate: '2025-01-01' }),
          ...whole.enrollments!.map((row) => ({ ...row, beginDate: '2025-09-01' })),
        ],
      },
      'enrollments left beginDate',
    ],
  ])('%s', (_case, files, expected) => {
    expect(outcomes(files)).toContain(expected);
  });

  it('takes for the term of a class the session that holds all that it names', () => {
    const year = { ...term, sourcedId: 'y', type: 'schoolYear' };
    const halves = ['h1', 'h2'].map((sourcedId) => ({ ...term, sourcedId, type: 'semester', parentSourcedId: 'y' }));
    const quarters = ['q1', 'q2', 'q3'].map((sourcedId, at) => ({
      ...term,
      sourcedId,
      type: 'gradingPeriod',
      parentSourcedId: at < 2 ? 'h1' : 'h2',
    }));
    const termOf = (termSourcedIds: string) => {
      const classes = [{ ...whole.classes![0]!, termSourcedIds }];
      const files = { ...whole, academicSessions: [year, ...halves, ...quarters], classes };
      const { row } = planExchange(manifest(), files, {}, state).find(({ file }) => file === 'classes')!;
      return asHeld('classes', row, termsOf(files.academicSessions))['termSourcedIds'];
    };
    expect([termOf('q1'), termOf('q1,q2'), termOf('q1,q3')]).toEqual(['q1', 'h1', 'y']);
  });

  it('names what changed, and takes a number with other digits for the same', () => {
    const files = { ...whole, lineItems: [{ ...whole.lineItems![0]!, title: 'Eye splice', resultValueMax: '20.0' }] };
    const changed = planExchange(manifest(), files, whole, state).filter(({ outcome }) => outcome === 'changed');
    expect(changed.map(({ changes }) => changes)).toEqual([['title']]);
    expect(changed.map(({ was }) => was)).toEqual([[whole.lineItems![0]!['title']]]);
  });

  it('takes a blank for no statement, but for an end date and a score', () => {
    const here = {
      ...whole,
      enrollments: [
        stay('e1', 'u1', 'student', { beginDate: '2025-09-01', endDate: '2025-12-01' }),
        whole.enrollments![1]!,
      ],
    };
    const files = {
      ...whole,
      enrollments: [stay('e1', 'u1', 'student', { beginDate: '', endDate: '' }), whole.enrollments![1]!],
    };
    const changed = planExchange(manifest(), files, here, state).filter(({ outcome }) => outcome === 'changed');
    expect(changed.map(({ changes }) => changes)).toEqual([['endDate']]);
  });

  it('lets what a changed row leaves unsaid stay as it is', () => {
    const [item] = whole.lineItems!;
    const [score] = whole.results!;
    const [flag, students] = ['metadata.wombat.flag', 'metadata.wombat.students'];
    const here = { ...whole, lineItems: [{ ...item!, [students]: 'u1' }], results: [{ ...score!, [flag]: 'late' }] };
    const { resultValueMax: _points, ...renamed }: ExchangeRow = { ...item!, title: 'Eye splice' };
    const rows = (results: ExchangeRow[]) =>
      planExchange(manifest(), { ...whole, lineItems: [renamed], results }, here, state).filter(
        ({ outcome }) => outcome === 'changed',
      );
    const [one, other] = rows([{ ...score!, score: '18' }]);
    expect(one!.row).toMatchObject({ title: 'Eye splice', resultValueMax: '20', [students]: 'u1' });
    expect([other!.row['score'], flagOf(other!.row)]).toEqual(['18', 'late']);
    const exempt = rows([{ ...score!, score: '', scoreStatus: 'exempt' }])[1]!;
    expect([exempt.row['score'], flagOf(exempt.row)]).toEqual(['', 'exempt']);
  });

  it('lets a course keep its code, and refuses another one that comes to it', () => {
    const codes = (...rows: string[]) =>
      rows.map((sourcedId) => ({ ...whole.courses![0]!, sourcedId, courseCode: 'KN1' }));
    const here = { ...whole, courses: codes('k') };
    const planned = outcomes({ ...whole, courses: codes('k', 'k2') }, here).filter((each) =>
      each.startsWith('courses'),
    );
    expect(planned).toEqual(['courses same', 'courses refuse courseCode']);
  });

  it('does not move a course to another school', () => {
    const orgs = [school, { ...school, sourcedId: 's2' }];
    const files = { ...whole, orgs, courses: [{ ...whole.courses![0]!, orgSourcedId: 's2' }] };
    expect(outcomes(files, { ...whole, orgs })).toContain('courses refuse orgSourcedId');
  });

  it('of a delta lets only what grades do not hang on be deleted', () => {
    const gone = (row: ExchangeRow) => ({ ...row, status: 'tobedeleted' });
    const files = {
      enrollments: [{ sourcedId: 'e1', status: 'tobedeleted' }],
      courses: whole.courses!.map(gone),
      results: whole.results!.map(gone),
    };
    expect(outcomes(files, whole, 'delta')).toEqual(['courses left status', 'enrollments delete', 'results delete']);
    expect(outcomes({ courses: whole.courses! }, whole, 'delta')).toEqual(['courses refuse status']);
  });
});

describe('a score scale', () => {
  it.each([
    ['{A:90-100},{B:80-89},{F:0-79}', 'A90 B80 F0'],
    ['{F:0-59},{A:100-60}', 'A60 F0'],
    ['{ High : 85.5 }, {Low:0}', 'High85.5 Low0'],
  ])('%s is read as labels with their lowest values', (value, bands) => {
    expect(
      readScoreScale(value)!
        .map(({ label, lowest }) => label + lowest)
        .join(' '),
    ).toBe(bands);
  });

  it.each(['', 'A-F', '{A:high}', '{A:90},{A:80}', '{A:9000}'])('"%s" is none', (value) => {
    expect(readScoreScale(value)).toBeUndefined();
  });

  it('written is read as the same', () => {
    const bands = [{ label: 'A', lowest: '90' }, { label: 'F', lowest: '0' }]; // prettier-ignore
    expect(readScoreScale(writeScoreScale(bands))).toEqual(bands);
  });

  it('in our own column is believed only where it is whole', () => {
    const band = { label: 'A', lowest: '90', points: '4.0', passes: true, earnsCredit: true, descriptor: '' };
    expect(readWholeBands(JSON.stringify([band]))).toEqual([band]);
    for (const broken of [
      '',
      '[]',
      '{"a":1}',
      JSON.stringify([{ ...band, lowest: 90 }]),
      JSON.stringify([{ ...band, passes: 1 }]),
    ])
      expect(readWholeBands(broken)).toBeUndefined();
  });

  it('that is here stays as it is: a changed one is its next version', () => {
    const scale = { sourcedId: 'z', title: 'Letters', scoreScaleValue: '{A:90},{F:0}' };
    const later: Manifest = { ...manifest(), version: '1.2' };
    const outcome = (scoreScaleValue: string, here: ExchangeRows) =>
      planExchange(
        later,
        { scoreScales: [{ ...scale, scoreScaleValue }] },
        { academicSessions: [term], ...here },
        state,
      ).map((row) => row.outcome);
    expect(outcome('{A:90},{F:0}', {})).toEqual(['new']);
    expect(outcome('{A:91},{F:0}', { scoreScales: [scale] })).toEqual(['left']);
    expect(outcome('none', {})).toEqual(['refuse']);
  });
});

describe('the translation', () => {
  it.each([
    [{ type: 'schoolYear' }, 'year'],
    [{ type: 'gradingPeriod' }, 'quarter'],
    [{ type: 'term', 'metadata.wombat.kind': 'trimester' }, 'trimester'],
  ])('of a session %j', (row, kind) => {
    expect(periodKindOf(row as never)).toBe(kind);
  });

  it.each([
    ['17.5', null],
    ['8', 'late'],
    [null, 'exempt'],
    [null, 'missing'],
    [null, 'incomplete'],
    [null, 'collected'],
  ] as const)('of %s points with the flag %s comes back as it went', (points, flag) => {
    const fields = resultFieldsOf(points, flag);
    expect([fields['score'] || null, flagOf(fields)]).toEqual([points, flag]);
  });

  it('of a result of another system reads the flag from its status', () => {
    expect(flagOf({ scoreStatus: 'not submitted', score: '' })).toBe('missing');
    expect(flagOf({ scoreStatus: 'fully graded', score: '9' })).toBeNull();
  });

  it('finds the number of a section in its code or title', () => {
    expect(sectionNumberOf({ classCode: 'KN-104-3', title: 'Knots' })).toBe(3);
    expect(sectionNumberOf({ classCode: '', title: 'Knots (2)' })).toBe(2);
    expect(sectionNumberOf({ title: 'Knots' })).toBeUndefined();
  });
});

describe('days that a zip leaves unsaid', () => {
  const came = { [extension('enteredOn')]: '2024-09-02' };
  const left = (day: string) => ({ [extension('leftOn')]: day });
  const users = (over: object) => [{ ...person('u1', 'student'), ...over }, person('u2', 'teacher')];
  const plan = (over: object) => outcomes({ ...whole, users: users(over) }, { ...whole, users: users(came) });

  it('are in order with those it says: one bad day stops its own row', () => {
    expect(plan(left('2024-06-30'))).toContain(`users refuse ${extension('leftOn')}`);
    expect(plan(left('2026-06-12'))).toContain('users changed');
    expect(plan({ [extension('enteredOn')]: '2025-01-07', ...left('2024-12-20') })).toContain(
      `users refuse ${extension('leftOn')}`,
    );
  });
});
