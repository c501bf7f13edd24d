import type { FindingPlace } from './audit-rule.js';
import { effectIn, type RuleInForce } from './rule-settings.js';
import type { SectionFact, Snapshot } from './snapshot.js';

type CourseOfFinding = Pick<SectionFact['course'], 'id' | 'department'>;

/** A section as far as it says of which course a finding is. */
export type CoursePlace = Pick<SectionFact, 'id' | 'course' | 'students'>;

/** Tells which course a finding is about; undefined where it is about none. */
export type CourseOf = (finding: FindingPlace) => CourseOfFinding | undefined;

/** Whether a finding is about a course that a rule leaves alone; what is about no course, such as an item, never is. */
export function isExcepted(finding: FindingPlace, rule: RuleInForce, courseOf: CourseOf): boolean {
  const { departments, courses } = rule.exceptions;
  if (departments.length === 0 && courses.length === 0) return false;
  const course = courseOf(finding);
  return course !== undefined && effectIn(rule, course) === 'off';
}

const known = new WeakMap<Snapshot['sections'], CourseOf>();

/** Of the sections of a snapshot. They are looked through when it is first asked, and once. */
export function courseOfIn({ sections }: Pick<Snapshot, 'sections'>): CourseOf {
  return (finding) => {
    let courseOf = known.get(sections);
    if (!courseOf) {
      const finder = createCourseFinder();
      finder.add(sections);
      courseOf = finder.courseOf;
      known.set(sections, courseOf);
    }
    return courseOf(finding);
  };
}

/** Tells of the sections that it was told of, some at a time. */
export function createCourseFinder(): {
  readonly add: (sections: readonly CoursePlace[]) => void;
  readonly courseOf: CourseOf;
} {
  const bySection = new Map<number, CourseOfFinding>();
  const byCourse = new Map<number, CourseOfFinding>();
  const byEnrollment = new Map<number, CourseOfFinding>();
  return {
    add(sections) {
      for (const { id, course, students } of sections) {
        bySection.set(id, course);
        byCourse.set(course.id, course);
        for (const { enrollmentId } of students) byEnrollment.set(enrollmentId, course);
      }
    },
    courseOf: ({ enrollmentId, sectionId, courseId }) =>
      (courseId === null ? undefined : byCourse.get(courseId)) ??
      (sectionId === null ? undefined : bySection.get(sectionId)) ??
      (enrollmentId === null ? undefined : byEnrollment.get(enrollmentId)),
  };
}
