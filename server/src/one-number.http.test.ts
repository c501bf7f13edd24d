import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { explainGrade } from '#core/calculation';
import { bookScore, policyOfBody, scoreKey, type BookReply, type PolicyEffectReply } from '#contract/calculation';
import type { SheetReply } from '#contract/posting';
import type { ScaleEffectReply, ScalesReply } from '#contract/scales';
import type { ReadinessReply, TranscriptReply } from '#contract/transcripts';
import { bodyOfPolicy } from '#contract/calculation';
import { auditNow } from '../test/audit-now.js';
import { policyOf, secondOpinion, type Plan, type Score } from '../../core/test/second-opinion.fixture.js';
import {
  addRandomSchool,
  drawing,
  drawSchoolPlan,
  letters,
  placePolicy,
  quarterDays,
  type Draw,
  type DrawnSchool,
  type DrawnSection,
} from '../test/random-school.js';
import { certify } from '../test/settle-period.js';
import { changeOf } from '../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../test/test-server.js';

/*
 * One number, wherever it is shown: random schools, each asked of the sheet, the grade book, the previews, the audit, the
 * seal and the transcript, and compared with a second opinion that shares nothing with the application; then again after each
 * kind of change of what the number rests on.
 */

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

/** An exact fraction: numerator over denominator. */
type Fraction = readonly [bigint, bigint];

/** By enrollment: the percentage, exact, or who blocks it, or nothing. */
type Opinion = Map<number, Fraction | 'nothing' | 'blocked'>;

const isEnrolled = (quarter: 0 | 1, { enteredOn, withdrawnOn }: DrawnSection['students'][number]) =>
  enteredOn <= quarterDays[quarter].endsOn && (withdrawnOn === null || withdrawnOn >= quarterDays[quarter].startsOn);
const isRunning = (quarter: 0 | 1, { runs }: DrawnSection) =>
  runs.startsOn <= quarterDays[quarter].endsOn && runs.endsOn >= quarterDays[quarter].startsOn;

/** The nearest policy: the section before the department before the school, the period before every period. */
function planFor(school: DrawnSchool, section: DrawnSection, quarter: 0 | 1): Plan {
  const { department } = school.courses.find(({ id }) => id === section.courseId)!;
  const period = school.quarters[quarter];
  const order = [
    [null, section.id, period],
    [null, section.id, null],
    [department, null, period],
    [department, null, null],
    [null, null, period],
    [null, null, null],
  ];
  for (const [ofDepartment, sectionId, periodId] of order) {
    const found = school.policies.findLast(
      (each) => each.department === ofDepartment && each.sectionId === sectionId && each.periodId === periodId,
    );
    if (found) return found.plan;
  }
  throw new Error('a school without a policy');
}

function opinionOn(school: DrawnSchool, section: DrawnSection, quarter: 0 | 1, category: number | null): Opinion {
  const plan = planFor(school, section, quarter);
  const opinion: Opinion = new Map();
  for (const [at, student] of section.students.entries()) {
    if (!isEnrolled(quarter, student)) continue;
    const scores = section.books[quarter]!.flatMap((each) => each.scores[at] ?? []);
    const found = category === null ? secondOpinion(scores, plan) : ofCategory(scores, plan, category);
    opinion.set(
      student.enrollmentId,
      found === 'nothing' ? found : 'blockedBy' in found ? 'blocked' : [found[0] * 100n, found[1]],
    );
  }
  return opinion;
}

/** A category by itself is a book of its own, whatever it weighs; in one pot a drop there depends on the others. */
function ofCategory(scores: readonly Score[], plan: Plan, category: number) {
  const own = plan.categories.filter(({ id }) => id === category);
  const method = plan.method === 'totalPoints' ? ('categoryPoints' as const) : plan.method;
  return secondOpinion(
    scores.filter((score) => score.category === category),
    { ...plan, method, limit: null, categories: own.map((each) => ({ ...each, weight: 1n })) },
  );
}

/** The same to ten digits: what is kept has no more, and its last digit only says on which side the value lies. */
function isAlike(shown: string | undefined, expected: Fraction | 'nothing' | 'blocked'): boolean {
  if (typeof expected === 'string') return shown === undefined;
  if (shown === undefined) return false;
  const [whole, decimals = ''] = shown.split('.');
  const units = BigInt(whole! + decimals.padEnd(10, '0'));
  const difference = units * expected[1] - expected[0] * 10n ** 10n;
  return (difference < 0n ? -difference : difference) <= expected[1];
}

const sheetOf = async (section: DrawnSection, item: number, period: number) =>
  (await registrar.get<SheetReply>(`/grade-sheets/${section.id}/${item}/${period}`)).body;

/** Sheet and grade book of every section of a quarter, against the second opinion. @returns the percents compared */
async function agreesEverywhere(school: DrawnSchool, quarter: 0 | 1, after: string): Promise<number> {
  const period = school.quarters[quarter];
  const { whole, part, partCategory } = school.items;
  const sections = school.sections.filter((section) => isRunning(quarter, section));
  let compared = 0;
  for (const section of sections) {
    const where = `${after}: school ${school.id}, section ${section.id}, quarter ${quarter + 1}`;
    const { method, categories } = planFor(school, section, quarter);
    const opinion = opinionOn(school, section, quarter, null);
    const { rows } = await sheetOf(section, whole, period);
    expect([where, rows.map(({ enrollmentId }) => enrollmentId).toSorted()]).toEqual([
      where,
      [...opinion.keys()].toSorted(),
    ]);
    for (const { enrollmentId, computed, blockedBy } of rows) {
      const expected = opinion.get(enrollmentId)!;
      if (!isAlike(computed?.percent, expected))
        throw new Error(`${where}, sheet, ${method}: ${computed?.percent}, not ${shown(expected)}`);
      expect([where, blockedBy.length > 0]).toEqual([where, expected === 'blocked']);
      compared++;
    }
    const { body: book } = await registrar.get<BookReply>(`/grade-books/${section.id}/${period}`);
    for (const [enrollmentId, percent] of percentsOfBook(book))
      if (!isAlike(percent, opinion.get(enrollmentId)!)) throw new Error(`${where}, book: ${percent}`);
    // In one pot, with drops, a category has no best choice of its own.
    if (method === 'totalPoints' && categories.some(({ drop }) => drop > 0)) continue;
    const parts = opinionOn(school, section, quarter, partCategory);
    const weight = categories.find(({ id }) => id === partCategory)!.weight;
    for (const { enrollmentId, computed } of (await sheetOf(section, part, period)).rows) {
      const expected = parts.get(enrollmentId)!;
      if (weight > 0n && !isAlike(computed?.percent, expected))
        throw new Error(`${where}, category, ${method}: ${computed?.percent}, not ${shown(expected)}`);
    }
  }
  return compared;
}

function shown(expected: Fraction | 'nothing' | 'blocked'): string {
  return typeof expected === 'string' ? expected : String(Number(expected[0]) / Number(expected[1]));
}

/** What the browser makes of an opened book, to ten digits. */
function percentsOfBook(book: BookReply): Map<number, string | undefined> {
  const scores = new Map(book.scores.map((score) => [scoreKey(score), score]));
  return new Map(
    book.students.map(({ enrollmentId }) => {
      const own = book.assignments.map((assignment) =>
        bookScore(assignment, scores.get(scoreKey({ assignmentId: assignment.id, enrollmentId }))),
      );
      const { percent } = explainGrade(own, policyOfBody(book.policy));
      if (!percent) return [enrollmentId, undefined];
      const units = (percent.numerator * 10n ** 10n) / percent.denominator;
      return [enrollmentId, `${units / 10n ** 10n}.${String(units % 10n ** 10n).padStart(10, '0')}`];
    }),
  );
}

/** Kinds of change of what a number rests on; each as somebody could make it, in whatever part of the application. */
const changes: readonly (readonly [what: string, make: (school: DrawnSchool, draw: Draw) => Promise<void>])[] = [
  [
    'a course is moved to another department',
    async (school, draw) => {
      const course = draw.oneOf(school.courses);
      course.department = course.department === 'X' ? 'Y' : 'X';
      await server.database.pool.query(`UPDATE courses SET department = $2 WHERE id = $1`, [
        course.id,
        course.department,
      ]);
    },
  ],
  [
    'the days of a section move',
    async (school, draw) => {
      const { id, runs } = draw.oneOf(school.sections);
      runs.startsOn = draw.oneOf(['2025-09-01', '2025-11-08', '2025-11-10']);
      runs.endsOn = '2026-01-23';
      await server.database.pool.query(`UPDATE sections SET starts_on = $2, ends_on = $3 WHERE id = $1`, [
        id,
        runs.startsOn,
        runs.endsOn,
      ]);
    },
  ],
  [
    'a student enters or leaves on another day',
    async (school, draw) => {
      const student = draw.oneOf(draw.oneOf(school.sections).students);
      Object.assign(student, { enteredOn: draw.oneOf(['2025-09-01', '2025-12-03']), withdrawnOn: null });
      await server.database.pool.query(`UPDATE enrollments SET entered_on = $2, withdrawn_on = NULL WHERE id = $1`, [
        student.enrollmentId,
        student.enteredOn,
      ]);
    },
  ],
  [
    'a score is written past the grade book',
    async (school, draw) => {
      const section = draw.oneOf(school.sections);
      const assignment = draw.oneOf(section.books[1]!);
      const at = assignment.scores.findIndex((score) => score !== null);
      if (at === -1) return;
      const score = assignment.scores[at]!;
      assignment.scores[at] = { ...score, points: BigInt(draw.below(Number(score.possible) + 1)), flag: null };
      await server.database.pool.query(
        `UPDATE scores SET points = $3, flag = NULL WHERE assignment_id = $1 AND enrollment_id = $2`,
        [assignment.id, section.students[at]!.enrollmentId, Number(assignment.scores[at].points) / 100],
      );
    },
  ],
  [
    'an assignment no longer counts',
    async (school, draw) => {
      const assignment = draw.oneOf(draw.oneOf(school.sections).books[1]!);
      assignment.scores.forEach((score, at) => (assignment.scores[at] = score && { ...score, isCounted: false }));
      await server.database.pool.query(`UPDATE assignments SET is_counted = false WHERE id = $1`, [assignment.id]);
    },
  ],
  [
    'a department gets a policy of its own for the quarter',
    async (school, draw) => {
      const plan = drawSchoolPlan(draw, school.categories);
      const place = { department: 'Y', sectionId: null, periodId: school.quarters[1] };
      if (school.policies.some((each) => each.department === 'Y' && each.periodId === place.periodId)) return;
      await placePolicy(server.database.pool, school, { ...place, plan });
    },
  ],
];

describe('random schools', () => {
  const draw = drawing(20_261_128);
  const schools: DrawnSchool[] = [];

  it('have one number for each student, on the sheet and in the book, whole and by category', async () => {
    for (let at = 0; at < 6; at++) schools.push(await addRandomSchool(server.database.pool, draw));
    let compared = 0;
    for (const school of schools)
      for (const quarter of [0, 1] as const) compared += await agreesEverywhere(school, quarter, 'as drawn');
    expect(compared).toBeGreaterThan(100);
  });

  it.each(changes)('and the same after %s', async (what, make) => {
    let compared = 0;
    for (const school of schools) {
      await make(school, draw);
      compared += await agreesEverywhere(school, 1, what);
    }
    expect(compared).toBeGreaterThan(40);
  });

  it('a preview of a policy begins from the very numbers that the sheets show', async () => {
    for (const school of schools) {
      const period = school.quarters[1];
      const { body } = await registrar.send<PolicyEffectReply>('POST', `/schools/${school.id}/policies/preview`, {
        department: 'X',
        sectionId: null,
        periodId: period,
        inPeriodId: period,
        policy: bodyOfPolicy(policyOf(drawSchoolPlan(draw, school.categories))),
      });
      const own = body.students.filter(({ item }) => item === 'Grade');
      for (const section of school.sections.filter((each) => isRunning(1, each))) {
        const { rows, section: name, digits } = await sheetOf(section, school.items.whole, period);
        for (const { before, studentId } of own.filter((each) => each.section === name)) {
          const { computed } = rows.find((row) => row.studentId === studentId)!;
          expect([name, before && Number(before)]).toEqual([name, computed && rounded(computed.percent, digits)]);
        }
      }
    }
  });

  it('posted, the audit finds nothing, the seal copies them, and the transcript has them with GPA and credits', async () => {
    let entries = 0;
    for (const school of schools) {
      for (const quarter of [0, 1] as const) await postAll(school, quarter);
      const { body: scales } = await registrar.get<ScalesReply>(`/scales?period=${school.quarters[1]}`);
      const { bands } = scales.scales.find(({ id }) => id === school.scaleId)!;
      const previewed = await registrar.send<ScaleEffectReply>('POST', `/scales/${school.scaleId}/preview`, {
        periodId: school.quarters[1],
        bands,
      });
      for (const periodId of school.quarters) {
        const { body: audit } = await auditNow(registrar, periodId);
        // Nothing is set up around these schools but what numbers need: windows, sign-offs and the like are not looked at.
        expect(audit.run!.findings.filter(({ mark }) => mark !== null)).toEqual([]);
        await certify(registrar, periodId);
        const { body: sealed } = await registrar.send<ReadinessReply>('POST', '/seals', { periodId });
        expect(sealed.seal).not.toBeNull();
      }
      const gpas: number[] = [];
      for (const { studentId } of school.sections[0]!.students) {
        const { periods } = (await registrar.get<TranscriptReply>(`/students/${studentId}/transcript`)).body;
        for (const [quarter, periodId] of school.quarters.entries()) {
          const lines = periods.find((each) => each.periodId === periodId)?.entries ?? [];
          const expected = expectedLines(school, studentId, quarter as 0 | 1);
          expect(
            lines
              .map(({ courseTitle, percent, mark, creditsTried }) => [
                courseTitle,
                Number(percent),
                mark,
                Number(creditsTried),
              ])
              .toSorted(),
          ).toEqual(expected.map(({ line }) => line).toSorted());
          entries += lines.length;
          if (quarter === 1 && expected.length > 0) gpas.push(gpaOf(expected));
        }
      }
      const mean = gpas.reduce((sum, each) => sum + Math.round(each * 1000) / 1000, 0) / gpas.length;
      expect(Math.abs(Number(previewed.body.meanBefore ?? 0) - (gpas.length === 0 ? 0 : mean))).toBeLessThan(0.0011);
    }
    expect(entries).toBeGreaterThan(60);
  });
});

/** What is posted where nothing is computed. */
const byHand = '75';
const posted = new Map<string, { percent: number; label: string }>();

async function postAll(school: DrawnSchool, quarter: 0 | 1): Promise<void> {
  const period = school.quarters[quarter];
  for (const section of school.sections.filter((each) => isRunning(quarter, each)))
    for (const item of [school.items.whole, school.items.part]) {
      const sheet = await sheetOf(section, item, period);
      const changed = sheet.rows
        .filter(({ withdrawnOn }) => withdrawnOn === null)
        .map((row) => {
          const percent = row.computed ? Math.min(200, rounded(row.computed.percent, sheet.digits)) : Number(byHand);
          const label = letters.find(([, lowest]) => percent >= lowest)![0];
          posted.set(`${row.enrollmentId}/${item}/${period}`, { percent, label });
          return changeOf(row, { percent: percent.toFixed(sheet.digits), label });
        });
      if (changed.length === 0) continue;
      const { status } = await registrar.send('PUT', `/grade-sheets/${section.id}/${item}/${period}`, {
        changes: changed,
        outsideWindow: true,
      });
      expect(status).toBe(200);
    }
}

/** Half up, in whole numbers. */
function rounded(text: string, digits: number): number {
  const [whole, decimals = ''] = text.split('.');
  const units = BigInt(whole! + decimals.padEnd(12, '0'));
  const step = 10n ** BigInt(12 - digits);
  return Number((units * 2n + step) / (step * 2n)) / 10 ** digits;
}

interface ExpectedLine {
  readonly line: readonly [title: string, percent: number, label: string, credits: number];
  readonly points: number;
  readonly level: 'regular' | 'honours' | 'college';
  readonly passes: boolean;
}

function expectedLines(school: DrawnSchool, studentId: number, quarter: 0 | 1): ExpectedLine[] {
  return school.sections
    .filter((section) => isRunning(quarter, section))
    .flatMap((section) => {
      const { enrollmentId } = section.students.find((each) => each.studentId === studentId)!;
      const mark = posted.get(`${enrollmentId}/${school.items.whole}/${school.quarters[quarter]}`);
      if (!mark) return [];
      const course = school.courses.find(({ id }) => id === section.courseId)!;
      const runsIn = ([0, 1] as const).filter((each) => isRunning(each, section)).length;
      const [, , points, passes] = letters.find(([label]) => label === mark.label)!;
      const line = [`Course ${course.id}`, mark.percent, mark.label, course.credits / runsIn] as const;
      return [{ line, points, level: course.level, passes }];
    });
}

/** The demo district adds half a point for honours and one for college level from 1.7 on, for at most four credits. */
function gpaOf(lines: readonly ExpectedLine[]): number {
  const credits = lines.reduce((sum, { line }) => sum + line[3], 0);
  const products = lines.reduce((sum, { line, points, level, passes }) => {
    const addition = passes && points >= 1.7 ? { regular: 0, honours: 0.5, college: 1 }[level] : 0;
    return sum + (points + addition) * line[3];
  }, 0);
  return products / credits;
}
