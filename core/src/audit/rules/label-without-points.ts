import { findingOn, type AuditRule } from '../audit-rule.js';

export const labelWithoutPoints: AuditRule = {
  id: 'label-without-points',
  version: 1,
  family: 'transcript',
  scope: 'grade',
  severity: 'warns',
  summary: 'Label without grade points',
  why: 'A grade that counts in the GPA and has no points is left out of it, or counted as nothing.',
  messages: {
    pointless: '{label} has no grade points on {scale}, but {item} counts in the GPA.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { label } = grade.mark;
      const band = label === null ? undefined : grade.scale.bands.find((each) => each.label === label);
      if (grade.item.onTranscript && grade.item.countsInGpa && band && band.points === null)
        yield findingOn(grade, 'pointless', { label: band.label, scale: grade.scale.name, item: grade.item.name });
    }
  },
};
