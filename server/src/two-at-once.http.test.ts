import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { placeKey } from '#core/scales';
import type { BookReply, CalculationReply } from '#contract/calculation';
import type { CalendarReply } from '#contract/calendar';
import type { CodesReply } from '#contract/codes';
import type { CoursesReply } from '#contract/courses';
import type { Problem } from '#contract/problems';
import type { ReportItemsReply } from '#contract/report-items';
import { placeOf, type ScalesReply } from '#contract/scales';
import type { GpaPolicyReply } from '#contract/transcripts';
import { checkLog } from '../test/check-log.js';
import { changeOf, sheetNamed } from '../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../test/test-server.js';

/*
 * Four people save the same thing at the same moment, each something else, and each having looked at the same state. With a
 * PostgreSQL server (npm run test:postgres) their transactions do run beside one another.
 */

let server: TestServer;
let registrar: TestClient;
let teacher: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  [registrar, teacher] = [await server.as('morwenna'), await server.as('harun')];
});
afterAll(() => server.stop());

const four = ['a', 'b', 'c', 'd'];
const read = async <Body>(path: string, who = registrar) => (await who.get<Body>(path)).body;

interface Case {
  readonly path: string;
  /** What each of them saves, told apart by a letter. */
  readonly bodies: readonly object[];
  readonly who?: TestClient;
}

const cases: readonly (readonly [name: string, make: () => Promise<Case>])[] = [
  [
    'the codes',
    async () => {
      const { revision, codes } = await read<CodesReply>('/codes');
      const bodies = four.map((letter) => ({
        revision,
        codes: codes.map(({ grades: _grades, ...code }, at) => (at === 0 ? { ...code, meaning: letter } : code)),
      }));
      return { path: '/codes', bodies };
    },
  ],
  [
    'the GPA settings',
    async () => {
      const { policy, revision } = await read<GpaPolicyReply>('/gpa-policy');
      return { path: '/gpa-policy', bodies: four.map((_letter, digits) => ({ ...policy, digits, revision })) };
    },
  ],
  [
    'a calendar',
    async () => {
      const [{ revision, weekdays, periods, windows }] = (await read<CalendarReply[]>('/calendars')) as [CalendarReply];
      const bodies = four.map((letter) => ({
        revision,
        weekdays,
        periods: periods.map(({ id, parentId, kind, name, startsOn, endsOn }) => ({
          id,
          parentId,
          kind,
          startsOn,
          endsOn,
          name: `${name} ${letter}`,
        })),
        breaks: [],
        windows: windows.map(({ id: _id, ...window }) => window),
      }));
      return { path: '/schools/1/calendar', bodies };
    },
  ],
  [
    'courses',
    async () => {
      const { courses } = await read<CoursesReply>('/schools/1/courses?period=4');
      const bodies = four.map((kind) => ({
        changes: courses.slice(0, 9).map(({ id, revision, cells }) => ({ id, revision, cells: { ...cells, kind } })),
        removed: [],
      }));
      return { path: '/schools/1/courses?period=4', bodies };
    },
  ],
  [
    'what courses inherit',
    async () => {
      const { defaultsRevision: revision, defaults } = await read<CoursesReply>('/schools/1/courses?period=4');
      const bodies = four.map((_letter, at) => ({
        revision,
        defaults: defaults.map((each) => ({ ...each, credits: String(at + 2) })),
      }));
      return { path: '/schools/1/course-defaults?period=4', bodies };
    },
  ],
  [
    'a report item',
    async () => {
      const { items } = await read<ReportItemsReply>('/schools/1/report-items?period=4');
      const { id, scaleName: _n, labels: _l, descriptors: _d, postedGrades: _p, ...body } = items[0]!;
      return {
        path: `/report-items/${id}?period=4`,
        bodies: four.map((letter) => ({ ...body, heading: `Head ${letter}` })),
      };
    },
  ],
  [
    'the order of the items',
    async () => {
      const { items } = await read<ReportItemsReply>('/schools/1/report-items?period=4');
      const seen = items.map(({ id }) => id);
      const bodies = seen.map((_id, at) => ({ itemIds: [...seen.slice(at), ...seen.slice(0, at)].toReversed(), seen }));
      return { path: '/schools/1/report-items/order?period=4', bodies };
    },
  ],
  [
    'a scale at a place',
    async () => {
      const { scales, placeRevisions } = await read<ScalesReply>('/scales?period=6');
      const place = { kind: 'school' as const, department: null, level: null, courseId: null, sectionId: null };
      const revision = placeRevisions[placeKey(placeOf(1, place))]!;
      const bodies = scales
        .slice(1, 4)
        .map(({ id }) => ({ ...place, scaleId: id, isLocked: false, fromPeriodId: 6, revision }));
      return { path: '/schools/1/scale-placements', bodies };
    },
  ],
  [
    'rules',
    async () => {
      const { revision, rules, exceptions } = await read<ReportItemsReply>('/schools/1/report-items?period=4');
      const bodies = four.map((_letter, at) => ({ revision, rules: rules.slice(0, rules.length - at), exceptions }));
      return { path: '/schools/1/report-items/assignment?period=4', bodies: bodies.slice(1) };
    },
  ],
  [
    'a scale',
    async () => {
      const { scales } = await read<ScalesReply>('/scales?period=6');
      const { id, latestVersion: basedOnVersion, bands } = scales[0]!;
      const bodies = four.map((descriptor) => ({
        basedOnVersion,
        fromPeriodId: 6,
        bands: bands.map((band, at) => (at === 0 ? { ...band, descriptor } : band)),
      }));
      return { path: `/scales/${id}`, bodies };
    },
  ],
  [
    'categories',
    async () => {
      const { categories, revision } = await read<CalculationReply>('/calculation?period=4');
      const bodies = four.map((letter) => ({
        revision,
        categories: categories.map(({ id, name, tint, isActive }) => ({
          id,
          name: `${name} ${letter}`,
          tint,
          isActive,
        })),
      }));
      return { path: '/schools/1/categories', bodies };
    },
  ],
  [
    'a policy',
    async () => {
      const { policies } = await read<CalculationReply>('/calculation?period=4');
      const { policy, revision } = policies[0]!;
      const place = { department: null, sectionId: null, periodId: null, revision };
      const bodies = four.map((_letter, at) => ({ ...place, policy: { ...policy, cap: String(91 + at) } }));
      return { path: '/schools/1/policies?period=4', bodies };
    },
  ],
  [
    'scores',
    async () => {
      const { scores } = await read<BookReply>('/grade-books/13/4', teacher);
      const bodies = four.map((_letter, at) => ({
        changes: scores.slice(0, 9).map((score) => ({ ...score, points: String(at + 1), flag: null })),
      }));
      return { path: '/grade-books/13/4/scores', bodies, who: teacher };
    },
  ],
  [
    'an assignment',
    async () => {
      const { assignments } = await read<BookReply>('/grade-books/13/4', teacher);
      const { id, ...body } = assignments[0]!;
      return {
        path: `/grade-books/13/4/assignments/${id}`,
        bodies: four.map((letter) => ({ ...body, name: `Work ${letter}` })),
        who: teacher,
      };
    },
  ],
  [
    'a grade sheet',
    async () => {
      const { path, sheet } = await sheetNamed(registrar, 'Shore Life 2');
      const rows = sheet.rows.filter(({ withdrawnOn }) => withdrawnOn === null);
      const bodies = four.map((comment) => ({ changes: rows.map((row) => changeOf(row, { comment })) }));
      return { path, bodies };
    },
  ],
];

describe('of four who save at once, one is heard and the others are told', () => {
  it.each(cases)('%s', async (_name, make) => {
    const { path, bodies, who = registrar } = await make();
    const answers = await Promise.all(bodies.map((body) => who.send<Problem>('PUT', path, body)));
    const statuses = answers.map(({ status }) => status).toSorted();
    expect(statuses).toEqual([200, ...Array.from({ length: bodies.length - 1 }, () => 409)]);
  });

  it('what is answered while others save is one state of it: no exception without its course', async () => {
    const { courses } = await read<CoursesReply>('/schools/1/courses?period=4');
    const cells = { ...courses[0]!.cells, code: 'ONE1', title: 'Ropes' };
    const save = (changes: readonly object[], removed: readonly number[]) =>
      registrar.send<CoursesReply>('PUT', '/schools/1/courses?period=4', { changes, removed });
    const { body } = await save([{ id: null, revision: '', cells }], []);
    const { id } = body.courses.find((course) => course.cells.code === 'ONE1')!;
    const path = '/schools/1/report-items';
    const { revision, rules, exceptions, items } = await read<ReportItemsReply>(`${path}?period=4`);
    const own = { itemId: items[0]!.id, courseId: id, effect: 'omits', reason: 'none' };
    await registrar.send('PUT', `${path}/assignment?period=4`, { revision, rules, exceptions: [...exceptions, own] });
    const done = new AbortController();
    const saving = (async () => {
      for (let round = 0; round < 20; round++) {
        const { change } = await save([], [id]);
        await registrar.send('POST', `/changes/${change}/undo`);
      }
      done.abort();
    })();
    let [seen, torn] = [0, 0];
    while (!done.signal.aborted) {
      const reply = await read<ReportItemsReply>(`${path}?period=4`);
      const known = new Set(reply.courses.map((course) => course.id));
      if (reply.exceptions.some(({ courseId }) => !known.has(courseId))) torn++;
      seen++;
    }
    await saving;
    expect([seen > 5, torn]).toEqual([true, 0]);
  });

  it('and the log is one chain', async () => {
    expect(await checkLog(registrar)).toMatchObject({ state: 'whole' });
  });
});
