import type { CourseLevel } from '#core/courses';
import type { Credits, GradePoints, Percent } from '#core/numbers';

/** One line of a transcript: a course's grade for one period, as it was sealed. */
export interface TranscriptEntry {
  readonly courseCode: string;
  readonly courseTitle: string;
  readonly level: CourseLevel;
  readonly percent: Percent | null;
  /** The label, or the code that stands in its place. */
  readonly mark: string;
  /** Null when the mark carries no grade points; then it is not in the GPA. */
  readonly points: GradePoints | null;
  readonly passes: boolean;
  readonly creditsTried: Credits;
  readonly creditsEarned: Credits;
  readonly countsInGpa: boolean;
  /** The enrollment it belongs to: lines of one attempt at a course have the same, lines of a repeat another. */
  readonly attempt: number;
  /** The most credits that the course gives when repeated; null where every repeat counts. */
  readonly mostCredits: Credits | null;
}
