import { nowhere, type AuditRule } from '../audit-rule.js';
import { judgedTogether } from '../judged-together.js';

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

  ...judgedTogether<{ readonly id: number; readonly title: string }>({
    *gather({ sections }) {
      for (const { course, credits, sheets } of sections) {
        const isOn = course.onTranscript && sheets.some(({ item }) => item.onTranscript);
        if (isOn && credits.units <= 0n) yield { id: course.id, title: course.title };
      }
    },
    *conclude(found) {
      const titles = new Map(found.map(({ id, title }) => [id, title]));
      for (const [courseId, course] of titles) yield { ...nowhere, courseId, message: 'none', data: { course } };
    },
  }),
};
