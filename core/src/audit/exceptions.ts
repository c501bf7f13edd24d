import type { FindingPlace } from './audit-rule.js';
import { effectIn, type RuleInForce } from './rule-settings.js';
import type { SectionFact, Snapshot } from './snapshot.js';

type CourseOfFinding = Pick<SectionFact['course'], 'id' | 'department'>;

/** Whether a finding is about a course that a rule leaves alone; what is about no course, such as an item, never is. */
export function isExcepted(finding: FindingPlace, rule: RuleInForce, snapshot: Pick<Snapshot, 'sections'>): boolean {
  const { departments, courses } = rule.exceptions;
  if (departments.length === 0 && courses.length === 0) return false;
  const course = coursesOf(snapshot)(finding);
  return course !== undefined && effectIn(rule, course) === 'off';
}

type CourseFinder = (finding: FindingPlace) => CourseOfFinding | undefined;

const known = new WeakMap<Snapshot['sections'], CourseFinder>();

function coursesOf({ sections }: Pick<Snapshot, 'sections'>): CourseFinder {
  const kept = known.get(sections) ?? finderOf(sections);
  known.set(sections, kept);
  return kept;
}

function finderOf(sections: Snapshot['sections']): CourseFinder {
  const bySection = new Map(sections.map(({ id, course }) => [id, course]));
  const byCourse = new Map(sections.map(({ course }) => [course.id, course]));
  const byEnrollment = new Map(
    sections.flatMap(({ students, course }) => students.map(({ enrollmentId }) => [enrollmentId, course] as const)),
  );
  return ({ enrollmentId, sectionId, courseId }) =>
    (courseId === null ? undefined : byCourse.get(courseId)) ??
    (sectionId === null ? undefined : bySection.get(sectionId)) ??
    (enrollmentId === null ? undefined : byEnrollment.get(enrollmentId));
}
