import type { Credits } from '#core/numbers';
import type { Course } from './course.js';

/** Facts that a course may leave to its department or school. */
export const inheritableFacts = ['credits', 'mostCredits', 'onTranscript', 'countsInGpa', 'allowsExempt'] as const;
export type InheritableFact = (typeof inheritableFacts)[number];

/** A course as it is kept: null means "as the department or the school says". */
export interface OwnCourse extends Omit<Course, InheritableFact> {
  readonly credits: Credits | null;
  readonly mostCredits: Credits | null;
  readonly onTranscript: boolean | null;
  readonly countsInGpa: boolean | null;
  readonly allowsExempt: boolean | null;
}

/** What holds where a course says nothing, for a department or, with null, for the whole school. */
export interface CourseDefaults {
  readonly department: string | null;
  readonly credits: Credits | null;
  readonly mostCredits: Credits | null;
  readonly onTranscript: boolean | null;
  readonly countsInGpa: boolean | null;
  readonly allowsExempt: boolean | null;
}

/** Where a fact of a course comes from. "nowhere" means that nobody says, and the last resort holds. */
export type FactSource = 'course' | 'department' | 'school' | 'nowhere';

const lastResort = {
  credits: { units: 0n, digits: 0 },
  mostCredits: null,
  onTranscript: true,
  countsInGpa: true,
  allowsExempt: true,
} as const;

/** The course with its inherited facts filled in: its own, else its department's, else the school's. */
export function withInheritedFacts(own: OwnCourse, defaults: readonly CourseDefaults[]): Course {
  const fact = <Fact extends InheritableFact>(name: Fact): Course[Fact] => {
    const value = sourcesOf(own, defaults).find(({ facts }) => facts?.[name] != null)?.facts?.[name];
    return (value ?? lastResort[name]) as Course[Fact];
  };
  return {
    ...own,
    credits: fact('credits'),
    mostCredits: fact('mostCredits'),
    onTranscript: fact('onTranscript'),
    countsInGpa: fact('countsInGpa'),
    allowsExempt: fact('allowsExempt'),
  };
}

/** Who says a fact of a course. */
export function factSource(own: OwnCourse, defaults: readonly CourseDefaults[], fact: InheritableFact): FactSource {
  return sourcesOf(own, defaults).find(({ facts }) => facts?.[fact] != null)?.source ?? 'nowhere';
}

function sourcesOf(own: OwnCourse, defaults: readonly CourseDefaults[]) {
  const of = (department: string | null) => defaults.find((each) => each.department === department);
  return [
    { source: 'course', facts: own },
    { source: 'department', facts: of(own.department) },
    { source: 'school', facts: of(null) },
  ] as const satisfies readonly { source: FactSource; facts: Partial<CourseDefaults> | undefined }[];
}
