import { weightedCategories, type Score } from '#core/calculation';
import { decimalOrThrow, formatDecimal, roundHalfUp, roundTo } from '#core/numbers';
import type { District, EnrollmentRow, SectionRow } from './district.js';
import type { DrawnPeople } from './draw-people.js';
import type { Random } from './random.js';
import { demoNow, schoolPlans, type PeriodPlan, type SchoolPlan } from './schools.js';

/** The percent that the learning platform shows for an enrollment in a period, by "enrollment/period". */
export type PlatformPercents = ReadonlyMap<string, string>;

const today = demoNow.slice(0, 10);
const assignmentsByKind = { quarter: 8, trimester: 6, term: 10, year: 0, semester: 0 };
const digitsExported = 4;

/** Draws assignments and scores for every period that has begun, and adds them up as the platform would. */
export function drawScores(district: District, people: DrawnPeople, random: Random): PlatformPercents {
  const strength = new Map([...people.students.values()].flat().map((student) => [student.id, student.strength]));
  const enrollments = groupBySection(district);
  const percents = new Map<string, string>();
  for (const section of district.sections) {
    const plan = schoolPlans.find(({ id }) => id === Math.floor(section.courseId / 1000))!;
    const ease = random.bell() * 3;
    for (const period of reportedPeriods(plan, section.periodId).filter(({ startsOn }) => startsOn <= today)) {
      const assignments = drawAssignments(district, plan, section, period, random);
      for (const enrollment of enrollments.get(section.id) ?? []) {
        const level = Math.min(0.985, 0.82 + 0.07 * strength.get(enrollment.studentId)! + 0.01 * ease);
        const scores = drawScoresOf(district, enrollment, assignments, level, random);
        const percent = weightedCategories(weights(plan), scores);
        if (percent)
          percents.set(`${enrollment.id}/${period.id}`, formatDecimal(roundTo(percent, digitsExported, roundHalfUp)));
      }
    }
  }
  return percents;
}

/** The periods inside a section's own in which its school's item is reported. */
export function reportedPeriods({ periods, item }: SchoolPlan, sectionPeriodId: number): PeriodPlan[] {
  const own = periods.find(({ id }) => id === sectionPeriodId)!;
  return periods.filter(
    ({ kind, startsOn, endsOn }) => kind === item.periodKind && own.startsOn <= startsOn && endsOn <= own.endsOn,
  );
}

export function groupBySection({ enrollments }: District): ReadonlyMap<number, EnrollmentRow[]> {
  const groups = new Map<number, EnrollmentRow[]>();
  for (const enrollment of enrollments) {
    const group = groups.get(enrollment.sectionId);
    if (group) group.push(enrollment);
    else groups.set(enrollment.sectionId, [enrollment]);
  }
  return groups;
}

interface DrawnAssignment {
  readonly id: number;
  readonly category: string;
  readonly possible: number;
}

function drawAssignments(
  district: District,
  plan: SchoolPlan,
  section: SectionRow,
  period: PeriodPlan,
  random: Random,
): DrawnAssignment[] {
  const lastDay = period.endsOn < today ? period.endsOn : today;
  const spanDays = (Date.parse(lastDay) - Date.parse(period.startsOn)) / 86_400_000;
  const share = spanDays / ((Date.parse(period.endsOn) - Date.parse(period.startsOn)) / 86_400_000);
  const count = Math.max(1, Math.round(assignmentsByKind[period.kind] * share));
  return Array.from({ length: count }, (_each, index) => {
    const at = index % plan.categories.length;
    const [category] = plan.categories[at]!;
    const id = district.assignments.length + 1;
    const possible = random.pick([10, 20, 25, 50, 100]);
    const due = new Date(Date.parse(period.startsOn) + Math.floor((spanDays * (index + 1)) / (count + 1)) * 86_400_000);
    district.assignments.push({
      id,
      sectionId: section.id,
      periodId: period.id,
      categoryId: plan.id * 10 + at,
      name: `${category} ${Math.floor(index / plan.categories.length) + 1}`,
      possible: String(possible),
      dueOn: due.toISOString().slice(0, 10),
    });
    return { id, category, possible };
  });
}

function drawScoresOf(
  district: District,
  enrollment: EnrollmentRow,
  assignments: readonly DrawnAssignment[],
  level: number,
  random: Random,
): Score[] {
  return assignments.map(({ id, category, possible }): Score => {
    const flag = random.chance(0.015)
      ? 'missing'
      : random.chance(0.02)
        ? 'exempt'
        : random.chance(0.03)
          ? 'late'
          : null;
    const share = Math.min(1, Math.max(0.15, level + 0.09 * random.bell()));
    const points = flag === 'missing' ? '0' : flag === 'exempt' ? null : String(Math.round(share * possible * 2) / 2);
    district.scores.push({ assignmentId: id, enrollmentId: enrollment.id, points, flag });
    return {
      category,
      points: points === null ? null : decimalOrThrow(points),
      possible: decimalOrThrow(String(possible)),
    };
  });
}

function weights({ categories }: SchoolPlan) {
  return categories.map(([name, weight]) => ({ name, weight: decimalOrThrow(String(weight)) }));
}
