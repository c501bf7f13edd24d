import { compareDecimals, formatAtLeast, formatDecimal } from '#core/numbers';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const percentOutOfRange: AuditRule = {
  id: 'percent-out-of-range',
  version: 1,
  family: 'agreement',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Percentage out of range',
  why: 'No number outside of what the item takes can have been meant, and every average takes it as it stands.',
  messages: {
    negative: '{percent} is below 0.',
    percent: '{percent} % is above {highest} %, the most that {item} takes.',
    level: '{percent} is above {highest}, the highest level of {scale}.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { percent } = grade.mark;
      if (percent === null) continue;
      const { highestLevel, name: scale } = grade.scale;
      const highest = highestLevel ?? grade.item.highestPercent;
      const isNegative = percent.units < 0n;
      if (!isNegative && compareDecimals(percent, highest) <= 0) continue;
      const message = isNegative ? 'negative' : highestLevel ? 'level' : 'percent';
      yield findingOn(grade, message, {
        percent: formatDecimal(percent),
        highest: formatAtLeast(highest, 0),
        item: grade.item.name,
        scale,
      });
    }
  },
};
