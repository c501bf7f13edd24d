import { courseLengths, courseLevels, type CellFault } from '#core/courses';

/** What would be right in a cell of a course. */
export const cellFaultSentences: Readonly<Record<CellFault, string>> = {
  'cell-needed': 'this cannot be empty',
  'cell-too-long': 'this is too long',
  'level-unknown': `one of ${courseLevels.join(', ')}`,
  'length-unknown': `one of ${courseLengths.join(', ')}`,
  'credits-unreadable': 'credits from 0 to 99 with at most four decimals, such as 0.5',
  'yes-or-no': 'yes or no, or empty to inherit',
};
