import { explainGrade, type BookScore, type CalculationPolicy } from '#core/calculation';
import { decimalOrThrow, formatDecimal, fromDecimal, roundHalfUp, roundSticky, roundTo } from '#core/numbers';
import type { District, EnrollmentRow, SectionRow } from './district.js';
import type { DrawnPeople, DrawnStudent } from './draw-people.js';
import { createRandom, type Random } from './random.js';
import { policyOf } from './policies.js';
import type { PeriodPlan, SchoolPlan } from './school-plan.js';
import { demoNow, planOf, primary } from './schools.js';

/** What an enrollment's scores of a period come to, to ten digits, by "enrollment/period". */
export type CalculatedPercents = ReadonlyMap<string, string>;

const today = demoNow.slice(0, 10);
const assignmentsByKind = { quarter: 8, trimester: 6, term: 10, year: 0, semester: 0 };
const [digitsKept, digitsExported] = [10, 4];

/** Draws assignments and scores for every period that has begun, and adds them up by the policy of each section. */
export function drawScores(district: District, people: DrawnPeople, random: Random): CalculatedPercents {
  return drawBooks(district, district.sections, [...people.students.values()].flat(), random);
}

/** The same for some sections and the students in them. */
export function drawBooks(
  district: District,
  sections: readonly SectionRow[],
  students: readonly DrawnStudent[],
  random: Random,
): CalculatedPercents {
  const strength = new Map(students.map((student) => [student.id, student.strength]));
  const enrollments = groupBySection(district);
  const percents = new Map<string, string>();
  for (const section of sections) {
    const plan = planOf(section);
    const ease = random.bell() * 3;
    const policy = policyOf(district, section);
    for (const period of reportedPeriods(plan, section.periodId).filter(({ startsOn }) => startsOn <= today)) {
      const assignments = drawAssignments(district, plan, section, period, random);
      // Levels are noted more often than tests are set. A stream of its own leaves what follows as it is.
      const further = createRandom(section.id * 100 + period.id);
      const noted = plan.id === primary.id ? drawAssignments(district, plan, section, period, further, 2) : [];
      for (const enrollment of enrollments.get(section.id) ?? []) {
        const level = Math.min(0.985, 0.82 + 0.07 * strength.get(enrollment.studentId)! + 0.01 * ease);
        const scores = drawScoresOf(district, enrollment, assignments, level, random);
        const more = drawScoresOf(district, enrollment, noted, level, further);
        const percent = percentOf(inOrderOfDueDates([...scores, ...more], [...assignments, ...noted]), policy);
        if (percent !== undefined) percents.set(`${enrollment.id}/${period.id}`, percent);
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

/** As a learning platform exports it. */
export function exportedPercent(percent: string): string {
  return formatDecimal(roundTo(fromDecimal(decimalOrThrow(percent)), digitsExported, roundHalfUp));
}

/** What a section's book comes to as it stands, by enrollment. */
export function percentsOfBook(district: District, section: SectionRow): ReadonlyMap<number, string> {
  const assignments = new Map(
    district.assignments.filter(({ sectionId }) => sectionId === section.id).map((each) => [each.id, each]),
  );
  const byStudent = new Map<number, BookScore[]>();
  for (const { assignmentId, enrollmentId, points, flag } of district.scores) {
    const assignment = assignments.get(assignmentId);
    if (!assignment) continue;
    const { categoryId, possible, isExtra, isCounted } = assignment;
    const facts = { isExtra: isExtra === true, isCounted: isCounted !== false, possible: decimalOrThrow(possible) };
    const score = {
      assignmentId,
      categoryId,
      flag: flag ?? null,
      points: points == null ? null : decimalOrThrow(points),
    };
    byStudent.set(enrollmentId, [...(byStudent.get(enrollmentId) ?? []), { ...facts, ...score }]);
  }
  const policy = policyOf(district, section);
  return new Map(
    [...byStudent].flatMap(([enrollmentId, scores]) => {
      const percent = percentOf(inOrderOfDueDates(scores, [...assignments.values()]), policy);
      return percent === undefined ? [] : [[enrollmentId, percent] as const];
    }),
  );
}

function percentOf(scores: readonly BookScore[], policy: CalculationPolicy): string | undefined {
  const { percent } = explainGrade(scores, policy);
  return percent ? formatDecimal(roundTo(percent, digitsKept, roundSticky)) : undefined;
}

function inOrderOfDueDates(scores: readonly BookScore[], assignments: readonly DrawnAssignment[]): BookScore[] {
  const due = new Map(assignments.map(({ id, dueOn }) => [id, dueOn]));
  return scores.toSorted(
    (a, b) => due.get(a.assignmentId)!.localeCompare(due.get(b.assignmentId)!) || a.assignmentId - b.assignmentId,
  );
}

type DrawnAssignment = District['assignments'][number];

function drawAssignments(
  district: District,
  plan: SchoolPlan,
  section: SectionRow,
  period: PeriodPlan,
  random: Random,
  fold = 1,
): DrawnAssignment[] {
  const lastDay = period.endsOn < today ? period.endsOn : today;
  const spanDays = (Date.parse(lastDay) - Date.parse(period.startsOn)) / 86_400_000;
  const share = spanDays / ((Date.parse(period.endsOn) - Date.parse(period.startsOn)) / 86_400_000);
  const count = Math.max(1, Math.round(assignmentsByKind[period.kind] * share)) * fold;
  return Array.from({ length: count }, (_each, index) => {
    const at = index % plan.categories.length;
    const [category] = plan.categories[at]!;
    const id = (district.assignments.at(-1)?.id ?? 0) + 1;
    const drawn = random.pick([10, 20, 25, 50, 100]);
    const possible = plan.id === primary.id ? 4 : drawn;
    const due = new Date(Date.parse(period.startsOn) + Math.floor((spanDays * (index + 1)) / (count + 1)) * 86_400_000);
    const assignment = {
      id,
      sectionId: section.id,
      periodId: period.id,
      categoryId: plan.id * 10 + at,
      name: `${category}${fold > 1 ? ', noted' : ''} ${Math.floor(index / plan.categories.length) + 1}`,
      possible: String(possible),
      dueOn: due.toISOString().slice(0, 10),
      isExtra: false,
      isCounted: true,
      isPublished: true,
    };
    district.assignments.push(assignment);
    return assignment;
  });
}

function drawScoresOf(
  district: District,
  enrollment: EnrollmentRow,
  assignments: readonly DrawnAssignment[],
  level: number,
  random: Random,
): BookScore[] {
  return assignments.map((assignment): BookScore => {
    const possible = Number(assignment.possible);
    const flag = random.chance(0.015)
      ? 'missing'
      : random.chance(0.02)
        ? 'exempt'
        : random.chance(0.03)
          ? 'late'
          : null;
    const share = Math.min(1, Math.max(0.15, level + 0.09 * random.bell()));
    const earned = possible === 4 ? levelOf(share) : String(Math.round(share * possible * 2) / 2);
    const points = flag === 'missing' || flag === 'exempt' ? null : earned;
    district.scores.push({ assignmentId: assignment.id, enrollmentId: enrollment.id, points, flag });
    return {
      assignmentId: assignment.id,
      categoryId: assignment.categoryId,
      points: points === null ? null : decimalOrThrow(points),
      flag,
      possible: decimalOrThrow(assignment.possible),
      isExtra: false,
      isCounted: true,
    };
  });
}

/** From 1 to 4, most of them 3. */
function levelOf(share: number): string {
  return share > 0.93 ? '4' : share > 0.76 ? '3' : share > 0.6 ? '2' : '1';
}
