import type { Pool } from 'pg';
import { drawing, drawPlan, policyOf, type Plan, type Score } from '../../core/test/second-opinion.fixture.js';
import { bodyOfPolicy } from '#contract/calculation';

/** Random draws with a seed. */
export type Draw = ReturnType<typeof drawing>;
export { drawing };

/** The seven days that a drawn section or enrollment may begin or end on: at edges, within quarters and between them. */
const days = [
  '2025-09-01',
  '2025-09-02',
  '2025-10-15',
  '2025-11-07',
  '2025-11-10',
  '2025-12-03',
  '2026-01-23',
] as const;

export const quarterDays = [
  { startsOn: '2025-09-01', endsOn: '2025-11-07' },
  { startsOn: '2025-11-10', endsOn: '2026-01-23' },
] as const;

/** Label, lowest value, grade points, passes. */
export const letters = [
  ['A', 90, 4, true],
  ['B', 80, 3, true],
  ['C', 70, 2, true],
  ['D', 60, 1, true],
  ['F', 0, 0, false],
] as const;

/** A policy as it is placed, with what it says in the words of the second opinion. */
export interface DrawnPolicy {
  readonly department: string | null;
  readonly sectionId: number | null;
  readonly periodId: number | null;
  readonly plan: Plan;
}

export interface DrawnSection {
  readonly id: number;
  readonly courseId: number;
  readonly runs: { startsOn: string; endsOn: string };
  readonly students: readonly {
    enrollmentId: number;
    studentId: number;
    enteredOn: string;
    withdrawnOn: string | null;
  }[];
  /** By quarter: assignments with each student's score, in the order of their due dates. */
  readonly books: readonly (readonly { id: number; scores: (Score | null)[] }[])[];
}

export interface DrawnCourse {
  readonly id: number;
  department: string;
  readonly level: 'regular' | 'honours' | 'college';
  readonly credits: number;
}

export interface DrawnSchool {
  readonly id: number;
  readonly quarters: readonly [number, number];
  readonly categories: readonly number[];
  /** The item of the whole book and the one of a category of it. */
  readonly items: {
    readonly whole: number;
    readonly part: number;
    readonly partCategory: number;
    readonly digits: number;
  };
  readonly courses: readonly DrawnCourse[];
  readonly sections: readonly DrawnSection[];
  readonly policies: DrawnPolicy[];
  readonly scaleId: number;
}

/** Numbers that the demo district does not reach. */
let lastId = 900_000;
const nextId = () => ++lastId;

/** Adds a school drawn by lot to the database, beside whatever is there, and tells what was drawn. */
export async function addRandomSchool(pool: Pool, draw: Draw): Promise<DrawnSchool> {
  const insert = async (table: string, row: Record<string, unknown>) => {
    const keys = Object.keys(row);
    const places = keys.map((_key, at) => `$${at + 1}`).join(', ');
    await pool.query(`INSERT INTO ${table} (${keys.join(', ')}) VALUES (${places})`, Object.values(row));
  };
  const id = nextId();
  await insert('schools', { id, code: `R${id}`, name: `School ${id}`, short_name: `School ${id}` });
  const year = nextId();
  const quarters = [nextId(), nextId()] as const;
  const period = { school_id: id, starts_on: '2025-09-01', ends_on: '2026-01-23' };
  await insert('periods', { ...period, id: year, kind: 'year', name: '2025' });
  for (const [at, quarter] of quarters.entries())
    await insert('periods', {
      ...period,
      id: quarter,
      parent_id: year,
      kind: 'quarter',
      name: `Quarter ${at + 1}`,
      starts_on: quarterDays[at]!.startsOn,
      ends_on: quarterDays[at]!.endsOn,
    });
  const [scaleId, versionId] = [nextId(), nextId()];
  await insert('scales', { id: scaleId, school_id: id, name: `Letters ${id}` });
  await insert('scale_versions', { id: versionId, scale_id: scaleId, number: 1, from_period_id: year });
  for (const [at, [label, lowest, points, passes]] of letters.entries())
    await insert('bands', {
      version_id: versionId,
      label,
      lowest,
      points,
      passes,
      earns_credit: passes,
      descriptor: '',
      position: at,
    });
  await insert('scale_placements', { kind: 'school', school_id: id, scale_id: scaleId });
  const categories = [nextId(), nextId(), nextId()];
  for (const category of categories) await insert('categories', { id: category, school_id: id, name: `C${category}` });
  const items = { whole: nextId(), part: nextId(), partCategory: draw.oneOf(categories), digits: draw.below(3) };
  const item = { school_id: id, period_kind: 'quarter', rounding: 'halfUp', failing_needs_last_date: false };
  await insert('report_items', {
    ...item,
    id: items.whole,
    name: 'Grade',
    heading: 'G',
    digits: items.digits,
    on_transcript: true,
  });
  await insert('report_items', {
    ...item,
    id: items.part,
    name: 'Part',
    heading: 'P',
    kind: 'standard',
    digits: 1,
    on_transcript: false,
    category_id: items.partCategory,
  });
  for (const [at, itemId] of [items.whole, items.part].entries())
    await insert('report_item_rules', { school_id: id, item_id: itemId, position: at + 1 });
  const teacher = nextId();
  await insert('people', {
    id: teacher,
    sourced_id: `T${id}`,
    kind: 'staff',
    school_id: id,
    given_name: 'T',
    family_name: `T${id}`,
    email: '',
  });
  const students = await Promise.all(
    Array.from({ length: 5 }, async (_each, at) => {
      const student = nextId();
      await insert('people', {
        id: student,
        sourced_id: `S${student}`,
        kind: 'student',
        school_id: id,
        given_name: `N${at}`,
        family_name: `F${student}`,
        email: '',
      });
      return student;
    }),
  );
  const courses = Array.from({ length: 3 }, (_each, at): DrawnCourse => ({
    id: nextId(),
    department: at === 2 ? 'Y' : 'X',
    level: draw.oneOf(['regular', 'honours', 'college']),
    credits: draw.oneOf([1, 0.5]),
  }));
  const sections: DrawnSection[] = [];
  for (const course of courses) {
    await insert('courses', {
      id: course.id,
      school_id: id,
      code: `K${course.id}`,
      title: `Course ${course.id}`,
      department: course.department,
      level: course.level,
      length: 'year',
      credits: course.credits,
      on_transcript: true,
      counts_in_gpa: true,
    });
    sections.push(await addSection(insert, draw, { course, year, quarters, teacher, students, categories }));
  }
  const school: DrawnSchool = { id, quarters, categories, items, courses, sections, policies: [], scaleId };
  for (const place of [
    { department: null, sectionId: null, periodId: null },
    { department: 'Y', sectionId: null, periodId: null },
    { department: 'X', sectionId: null, periodId: quarters[1] },
    { department: null, sectionId: sections[0]!.id, periodId: draw.oneOf([null, quarters[0]]) },
  ])
    await placePolicy(pool, school, { ...place, plan: drawSchoolPlan(draw, categories) });
  return school;
}

type Insert = (table: string, row: Record<string, unknown>) => Promise<void>;

async function addSection(
  insert: Insert,
  draw: Draw,
  {
    course,
    year,
    quarters,
    teacher,
    students,
    categories,
  }: {
    course: DrawnCourse;
    year: number;
    quarters: readonly [number, number];
    teacher: number;
    students: readonly number[];
    categories: readonly number[];
  },
): Promise<DrawnSection> {
  const id = nextId();
  const [startsOn, endsOn] =
    draw.below(2) === 0 ? [days[0], days[6]] : [draw.oneOf(days.slice(0, 3)), draw.oneOf(days.slice(3))];
  const runs = { startsOn: startsOn!, endsOn: endsOn! };
  await insert('sections', {
    id,
    course_id: course.id,
    number: 1,
    teacher_id: teacher,
    period_id: year,
    starts_on: runs.startsOn,
    ends_on: runs.endsOn,
  });
  const enrolled = [];
  for (const studentId of students) {
    const enrollmentId = nextId();
    const [enteredOn, withdrawnOn] = [
      draw.oneOf([days[0], days[0], days[0], days[5]]),
      draw.oneOf([null, null, null, null, days[2], days[5]]),
    ];
    await insert('enrollments', {
      id: enrollmentId,
      section_id: id,
      student_id: studentId,
      entered_on: enteredOn,
      withdrawn_on: withdrawnOn,
    });
    enrolled.push({ enrollmentId, studentId, enteredOn, withdrawnOn });
  }
  const books = [];
  for (const [at, quarter] of quarters.entries()) {
    const book = [];
    for (let number = 0; number < 5; number++) {
      const assignmentId = nextId();
      const possible = draw.oneOf([400, 400, 1000, 5000, 0]);
      const facts = { category: draw.oneOf(categories), isExtra: draw.below(8) === 0, isCounted: draw.below(10) !== 0 };
      await insert('assignments', {
        id: assignmentId,
        section_id: id,
        period_id: quarter,
        category_id: facts.category,
        name: `A${assignmentId}`,
        possible: possible / 100,
        due_on: `${quarterDays[at]!.startsOn.slice(0, 8)}1${number}`,
        is_extra: facts.isExtra,
        is_counted: facts.isCounted,
      });
      const scores: (Score | null)[] = [];
      for (const { enrollmentId } of enrolled) {
        const score = drawScore(draw, possible, facts);
        scores.push(score);
        if (score) await writeScore(insert, assignmentId, enrollmentId, score);
      }
      book.push({ id: assignmentId, scores });
    }
    books.push(book);
  }
  return { id, courseId: course.id, runs, students: enrolled, books };
}

const flagNames = ['missing', 'late', 'incomplete', 'exempt', 'absent', 'collected'];

function writeScore(
  insert: Insert,
  assignmentId: number,
  enrollmentId: number,
  { points, flag }: Score,
): Promise<void> {
  return insert('scores', {
    assignment_id: assignmentId,
    enrollment_id: enrollmentId,
    points: points === null ? null : Number(points) / 100,
    flag: flag === null ? null : flagNames[flag],
  });
}

export function drawScore(
  draw: Draw,
  possible: number,
  facts: Pick<Score, 'category' | 'isExtra' | 'isCounted'>,
): Score | null {
  if (draw.below(8) === 0) return null;
  return {
    ...facts,
    points: draw.below(10) === 0 ? null : BigInt(draw.below(possible + 1)),
    flag: draw.below(5) === 0 ? draw.below(flagNames.length) : null,
    possible: BigInt(possible),
  };
}

/** Any policy of the second opinion, over the categories of a school; its weights do not add up to 100. */
export function drawSchoolPlan(draw: Draw, categories: readonly number[]): Plan {
  const plan = drawPlan(draw);
  return {
    ...plan,
    categories: categories.map((id, at) => ({ ...plan.categories[at % plan.categories.length]!, id })),
  };
}

export async function placePolicy(pool: Pool, school: DrawnSchool, policy: DrawnPolicy): Promise<void> {
  const { department, sectionId, periodId, plan } = policy;
  await pool.query(
    `INSERT INTO calculation_policies (school_id, department, section_id, period_id, body) VALUES ($1, $2, $3, $4, $5)`,
    [school.id, department, sectionId, periodId, JSON.stringify(bodyOfPolicy(policyOf(plan)))],
  );
  school.policies.push(policy);
}
