import { labelByPercent } from '../label-by-percent.js';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const labelNotOnScale: AuditRule = {
  id: 'label-not-on-scale',
  version: 1,
  family: 'agreement',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Label not on the scale',
  why: 'A label that the scale does not know has no grade points and no meaning to whoever reads it.',
  messages: { unknown: '{label} is posted; {scale} knows {known}.' },

  *check({ grades }) {
    for (const grade of grades) {
      const { label } = grade.mark;
      const known = grade.scale.bands.map((band) => band.label);
      if (label === null || known.includes(label)) continue;
      yield findingOn(grade, 'unknown', { label, scale: grade.scale.name, known: known.join(', ') });
    }
  },

  fix: {
    says: 'Set the label by the percentage',
    mend: labelByPercent,
  },
};
