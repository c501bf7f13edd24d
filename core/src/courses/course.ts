import type { Credits } from '#core/numbers';

export const courseLevels = ['regular', 'honours', 'college'] as const;
export type CourseLevel = (typeof courseLevels)[number];

export const courseLengths = ['year', 'semester', 'term'] as const;
export type CourseLength = (typeof courseLengths)[number];

/** What the rules and the transcript need to know of a course. */
export interface Course {
  readonly id: number;
  readonly schoolId: number;
  readonly code: string;
  readonly title: string;
  readonly department: string;
  readonly level: CourseLevel;
  readonly length: CourseLength;
  /** For the whole course. */
  readonly credits: Credits;
  readonly onTranscript: boolean;
  readonly countsInGpa: boolean;
}
