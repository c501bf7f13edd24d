import { compareDecimals, formatAtLeast, type Decimal } from '#core/numbers';
import { compareText } from '../compare-text.js';
import { findingOnSection, type AuditRule } from '../audit-rule.js';
import type { AssignmentFact } from '../snapshot.js';

export const scoreAboveScale: AuditRule = {
  id: 'score-above-scale',
  version: 1,
  family: 'set-up',
  scope: 'section',
  severity: 'warns',
  summary: 'Scores above their scale',
  why: 'A score of another scale counts as far too much, or as too little.',
  messages: {
    level: '{name} of {section} is scored up to {highest}, and levels end at {most}.',
    points: '{name} of {section} is scored up to {highest} of {possible} points.',
  },

  *check({ sections }) {
    for (const section of sections) {
      const levels = section.policy?.levels ?? null;
      for (const { name, possible, highest, isExtra, isCounted } of byName(section.assignments)) {
        if (highest === null || !isCounted) continue;
        const most = levels?.most ?? null;
        const isAbove = most !== null ? compareDecimals(highest, most) > 0 : !isExtra && isTwice(highest, possible);
        if (!isAbove) continue;
        const data = { section: section.name, name, highest: formatAtLeast(highest, 0) };
        if (most !== null) yield findingOnSection(section, 'level', { ...data, most: formatAtLeast(most, 0) });
        else yield findingOnSection(section, 'points', { ...data, possible: formatAtLeast(possible, 0) });
        break; // one of a section says enough
      }
    }
  },
};

/** Extra points carry a score a little above what is possible; twice as many are points of something else. */
function isTwice(highest: Decimal, possible: Decimal): boolean {
  return possible.units > 0n && compareDecimals(highest, { ...possible, units: possible.units * 2n }) >= 0;
}

const byName = (assignments: readonly AssignmentFact[]) => assignments.toSorted((a, b) => compareText(a.name, b.name));
