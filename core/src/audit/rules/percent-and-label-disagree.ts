import { formatDecimal } from '#core/numbers';
import { findBand } from '#core/scales';
import { labelByPercent } from '../label-by-percent.js';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const percentAndLabelDisagree: AuditRule = {
  id: 'percent-and-label-disagree',
  version: 1,
  family: 'agreement',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Percent and label disagree',
  why: 'Families read one and the GPA counts the other.',
  messages: {
    differs: '{percent} % is {expected} on {scale}, but {label} is posted.',
    'no-label': '{percent} % is {expected} on {scale}, but no label is posted.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { percent, label, code } = grade.mark;
      if (percent === null || code !== null) continue;
      const expected = findBand(grade.scale.bands, percent, grade.item.precision).band?.label;
      if (expected === undefined || expected === label) continue;
      const isKnown = label === null || grade.scale.bands.some((band) => band.label === label);
      if (!isKnown) continue; // label-not-on-scale speaks of these
      const data = { percent: formatDecimal(percent), expected, label: label ?? '', scale: grade.scale.name };
      yield findingOn(grade, label === null ? 'no-label' : 'differs', data);
    }
  },

  fix: {
    says: 'Set the label by the percentage',
    mend: labelByPercent,
  },
};
