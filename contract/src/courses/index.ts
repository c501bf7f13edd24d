import type { CourseLength, CourseLevel } from '#core/courses';

export interface CourseReply {
  readonly id: number;
  readonly code: string;
  readonly title: string;
  readonly department: string;
  readonly level: CourseLevel;
  readonly length: CourseLength;
  readonly credits: string;
  readonly onTranscript: boolean;
}
