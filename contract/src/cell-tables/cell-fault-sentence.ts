import type { CellFault } from '#core/cell-tables';
import { courseLengths, courseLevels } from '#core/courses';
import { personKinds } from '#core/people';

/** What would be right in a cell. */
export const cellFaultSentences: Readonly<Record<CellFault, string>> = {
  'cell-needed': 'this cannot be empty',
  'cell-too-long': 'this is too long',
  'level-unknown': `one of ${courseLevels.join(', ')}`,
  'length-unknown': `one of ${courseLengths.join(', ')}`,
  'credits-unreadable': 'credits from 0 to 99 with at most four decimals, such as 0.5',
  'yes-or-no': 'yes or no, or empty to inherit',
  'kind-unknown': `one of ${personKinds.join(', ')}`,
  'day-unreadable': 'a day such as 2010-05-17',
  'birth-day-unlikely': 'a day of birth after 1900; programs write this one where they know none',
  'address-unreadable': 'an e-mail address such as ada@school.example, or empty',
};
