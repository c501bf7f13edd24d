import { nowhere, type AuditRule } from '../audit-rule.js';

export const courseWithoutCredits: AuditRule = {
  id: 'course-without-credits',
  version: 1,
  family: 'transcript',
  scope: 'course',
  severity: 'warns',
  summary: 'Course on the transcript without credits',
  why: 'A line of 0 credits counts for nothing, though it stands where credits are looked for.',
  messages: {
    none: '{course} is on the transcript and carries no credits in this period.',
  },

  *check({ sections }) {
    const told = new Set<number>();
    for (const { course, credits, sheets } of sections) {
      const isOn = course.onTranscript && sheets.some(({ item }) => item.onTranscript);
      if (!isOn || credits.units > 0n || told.has(course.id)) continue;
      told.add(course.id);
      yield { ...nowhere, courseId: course.id, message: 'none', data: { course: course.title } };
    }
  },
};
