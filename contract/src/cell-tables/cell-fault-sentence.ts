import type { CellFault } from '#core/cell-tables';
import { courseLengths, courseLevels } from '#core/courses';
import { pronouns, personKinds } from '#core/people';

/** What would be right in a cell. */
export const cellFaultSentences: Readonly<Record<CellFault, string>> = {
  'cell-needed': 'this cannot be empty',
  'cell-too-long': 'this is too long',
  'level-unknown': `one of ${courseLevels.join(', ')}`,
  'length-unknown': `one of ${courseLengths.join(', ')}`,
  'credits-unreadable': 'credits from 0 to 99 with at most four decimals, such as 0.5',
  'yes-or-no': 'yes or no, or empty to inherit',
  'pronoun-unknown': `one of ${pronouns.join(', ')}, or nothing`,
  'kind-unknown': `one of ${personKinds.join(', ')}`,
  'day-unreadable': 'a day such as 2010-05-17',
  'birth-day-unlikely': 'a day of birth after 1900; programs write this one where they know none',
  'course-unknown': 'a course of this school, by its title or code',
  'teacher-unknown': 'one of the staff of this school, by name, number or e-mail address',
  'period-unknown': 'a period of this year, such as Semester 1; empty for the whole year',
  'section-unknown': 'a section of this year, such as Weaving 2',
  'student-unknown': 'a student of this school, by number, name or e-mail address',
  'name-of-several': 'more than one has this name: write the number or code',
  'section-number-unreadable': 'a whole number from 1 to 9999',
  'day-outside-year': 'a day of this year',
  'seats-unreadable': 'how many students there is room for, from 1 to 999',
  'birth-day-ahead': 'a day of birth that has been; this one is yet to come',
  'day-before-birth': 'a day after the day of birth',
  'day-outside-period': 'a day of the period that it runs in',
  'day-before-first': 'a day that is not before the first one',
  'day-ahead': 'a day that has come; attendance is not taken ahead',
  'day-without-classes': 'a day with classes',
  'day-outside-seat': 'a day on which this student sat in the section',
  'student-not-in-section': 'a student of this section',
  'status-unknown': 'P for present, A for absent, E for excused or L for late',
  'address-unreadable': 'an e-mail address such as ada@school.example, or empty',
};
