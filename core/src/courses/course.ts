import type { Credits } from '#core/numbers';

export const courseLevels = ['regular', 'honours', 'college'] as const;
export type CourseLevel = (typeof courseLevels)[number];

export const courseLengths = ['year', 'semester', 'term'] as const;
export type CourseLength = (typeof courseLengths)[number];

/** What the rules and the transcript need to know of a course, inherited facts filled in. */
export interface Course {
  readonly id: number;
  readonly schoolId: number;
  readonly code: string;
  readonly title: string;
  readonly department: string;
  /** What sort of course it is, in the school's own words, such as "academic" or "activity". */
  readonly kind: string;
  readonly level: CourseLevel;
  readonly length: CourseLength;
  /** For the whole course; 0 where it carries none. */
  readonly credits: Credits;
  /** The most credits a student gets when the course is repeated; null where every repeat counts. */
  readonly mostCredits: Credits | null;
  readonly onTranscript: boolean;
  readonly countsInGpa: boolean;
  /** Whether a student may be exempt from it: graded with a code that leaves composites. */
  readonly allowsExempt: boolean;
}
