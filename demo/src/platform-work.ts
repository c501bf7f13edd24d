import type { PlatformContent, PlatformLineItem, PlatformResult } from '#standins';
import { findBand } from '#core/scales';
import { decimalOrThrow, roundHalfUp } from '#core/numbers';
import { bandsOf } from './draw-grades.js';
import type { EnrollmentRow, SectionRow } from './district.js';
import { exportedPercent } from './draw-scores.js';
import type { Demo } from './make-district.js';
import type { Random } from './random.js';
import type { SchoolPlan } from './school-plan.js';

export interface ClassWithHabit {
  readonly id: string;
  readonly section: SectionRow;
  readonly habit: { readonly total: string; readonly groups: readonly unknown[] };
}

type Work = Pick<PlatformContent, 'lineItems' | 'results'>;

/** What teachers set that is not in Wombat: most can be carried over; some lack what it takes, each kind somewhere. */
const furtherColumns: readonly {
  readonly every: number;
  readonly column: Omit<PlatformLineItem, 'id' | 'classId' | 'groupId' | 'isTotal'>;
  readonly group: number | null;
}[] = [
  { every: 3, group: 1, column: { label: 'Reading log', scoreMaximum: 10, dueOn: '2026-01-14' } },
  { every: 9, group: 1, column: { label: 'Reading log 2', scoreMaximum: 10, dueOn: null } },
  { every: 8, group: 0, column: { label: 'Warm-up', scoreMaximum: 0, dueOn: '2026-01-13' } },
  {
    every: 7,
    group: 2,
    column: { label: 'Quiz in the making', scoreMaximum: 20, dueOn: '2026-01-20', isPublished: false },
  },
  {
    every: 11,
    group: 0,
    column: { label: 'How did you find it?', scoreMaximum: 5, dueOn: '2026-01-19', isGraded: false },
  },
  {
    every: 10,
    group: 0,
    column: { label: 'Practice for the fair', scoreMaximum: 15, dueOn: '2026-01-15', isMarked: false },
  },
  { every: 12, group: 1, column: { label: 'Outing to the breakwater', scoreMaximum: 10, dueOn: '2026-04-22' } },
  { every: 13, group: null, column: { label: 'Bonus question', scoreMaximum: 5, dueOn: '2026-01-16' } },
  {
    every: 17,
    group: 1,
    column: {
      label: 'Write down in your own words what the harbour master told us and what you would ask next',
      scoreMaximum: 10,
      dueOn: '2026-01-12',
    },
  },
];

/**
 * The columns of a period, with the total of each class, and what stands in them: what Wombat has too, what is kept on the
 * platform only, and what teachers added there.
 */
export function platformWork(
  demo: Demo,
  plan: SchoolPlan,
  periodId: number,
  classes: readonly ClassWithHabit[],
  random: Random,
): Work {
  const bySection = new Map(classes.map((each) => [each.section.id, each]));
  const students = demo.district.enrollments.filter(
    ({ sectionId, withdrawnOn }) => bySection.has(sectionId) && withdrawnOn === null,
  );
  const known = knownWork(demo, periodId, bySection);
  const further = classes.flatMap((each, at) => furtherWork(each, at, students, random));
  const totals = classes.map((each) => totalOf(demo, plan, periodId, each, students));
  const all = [known, ...further, ...totals];
  return { lineItems: all.flatMap(({ lineItems }) => lineItems), results: all.flatMap(({ results }) => results) };
}

function knownWork(
  { district, elsewhere }: Demo,
  periodId: number,
  bySection: ReadonlyMap<number, ClassWithHabit>,
): Work {
  const assignments = [...district.assignments, ...elsewhere.assignments].filter(
    (each) => each.periodId === periodId && bySection.has(each.sectionId),
  );
  const lineItems = assignments.map(({ id, sectionId, categoryId, name, possible, dueOn }) => {
    const { id: classId, habit } = bySection.get(sectionId)!;
    const groupId = `${classId}-g${Math.min(categoryId % 10, habit.groups.length - 1)}`;
    return { id: `a${id}`, classId, label: name, scoreMaximum: Number(possible), groupId, dueOn, isTotal: false };
  });
  const ids = new Set(assignments.map(({ id }) => id));
  const people = new Map(district.enrollments.map(({ id, studentId }) => [id, studentId]));
  const results = [...district.scores, ...elsewhere.scores]
    .filter(({ assignmentId }) => ids.has(assignmentId))
    .map(({ assignmentId, enrollmentId, points }) => ({
      lineItemId: `a${assignmentId}`,
      personId: `p${people.get(enrollmentId)}`,
      score: points == null ? null : Number(points),
    }));
  return { lineItems, results };
}

function furtherWork(
  { id: classId, section }: ClassWithHabit,
  at: number,
  students: readonly EnrollmentRow[],
  random: Random,
): Work[] {
  const own = students.filter(({ sectionId }) => sectionId === section.id);
  return furtherColumns
    .filter(({ every }) => at % every === every - 1)
    .map(({ column, group }) => {
      const id = `${classId}-${column.label
        .toLowerCase()
        .replaceAll(/[^a-z0-9]+/g, '-')
        .slice(0, 30)}`;
      const groupId = group === null ? null : `${classId}-g${group}`;
      const results = own.map(({ studentId }, place): PlatformResult => {
        const share = Math.min(1, 0.84 + random.bell() * 0.1);
        const score = random.chance(0.05) ? null : Math.round(share * column.scoreMaximum * 2) / 2;
        // Somebody gave a point for neatness in every ninth class.
        return {
          lineItemId: id,
          personId: `p${studentId}`,
          score: at % 9 === 2 && place === 0 ? column.scoreMaximum + 1 : score,
        };
      });
      return { lineItems: [{ ...column, id, classId, groupId, isTotal: false }], results };
    });
}

/** In percent, or in letters where the platform has no percents. */
function totalOf(
  { percents }: Demo,
  plan: SchoolPlan,
  periodId: number,
  { id: classId, section, habit }: ClassWithHabit,
  students: readonly EnrollmentRow[],
): Work {
  const id = `${classId}-total`;
  const total = { id, classId, label: habit.total, scoreMaximum: 100, groupId: null, dueOn: null, isTotal: true };
  const givesLetters = habit.total === 'Final letter';
  const results = students
    .filter(({ sectionId }) => sectionId === section.id)
    .map(({ id: enrollmentId, studentId }): PlatformResult => {
      const percent = percents.get(`${enrollmentId}/${periodId}`);
      const place = { lineItemId: id, personId: `p${studentId}` };
      if (percent === undefined) return { ...place, score: null };
      if (!givesLetters) return { ...place, score: Number(exportedPercent(percent)) };
      const precision = { digits: plan.item.digits, rounding: roundHalfUp };
      const label = findBand(bandsOf(plan), decimalOrThrow(percent), precision).band?.label;
      return { ...place, score: null, letter: label === 'F' ? 'E' : (label ?? 'E') };
    });
  return { lineItems: [total], results };
}
