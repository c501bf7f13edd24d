import { longestAssignmentName, type RunReason, type RunReasonCode } from '#core/runs';

/** How whoever says it writes days and percents. */
export interface ReasonFormats {
  readonly day: (day: string) => string;
  readonly percent: (percent: string) => string;
}

interface ReasonWords {
  /** As a list of reasons says it, without a full stop. */
  readonly brief: string;
  /** As one line says it; what it names comes in up to three parts. */
  readonly says: (first: string, formats: ReasonFormats, second: string, third: string) => string;
}

/** Why a line of a run is not carried over, or what is to be known about it. */
export const reasonWords: Record<RunReasonCode, ReasonWords> = {
  'class-open': {
    brief: 'The class is not joined to a section',
    says: () => 'This class is not matched to one of our sections yet.',
  },
  'class-ignored': {
    brief: 'The class is ignored',
    says: () => 'It was decided to ignore this class.',
  },
  'other-term': {
    brief: 'The section belongs to another term',
    says: (section, _formats, period) => `${section || 'Its section'} does not run through ${period}.`,
  },
  'period-sealed': {
    brief: 'The period is sealed',
    says: (period) => `${period} is sealed; a grade in it changes only by amendment.`,
  },
  'weights-not-100': {
    brief: 'The weights there do not come to 100',
    says: (sum) => `The weights of its groups come to ${sum} percent there.`,
  },
  'not-marked': { brief: 'Not marked for sending', says: () => 'Its teacher did not mark it for sending.' },
  unpublished: { brief: 'Not published', says: () => 'Students do not see it there yet.' },
  ungraded: { brief: 'Not graded', says: () => 'It is of a kind that gets no grade.' },
  'other-period': {
    brief: 'Due in another period',
    says: (day, formats) => `It is due on ${formats.day(day)}, outside of this period.`,
  },
  'removed-here': { brief: 'Removed here', says: () => 'It came over once and somebody here removed it.' },
  'group-ignored': {
    brief: 'Its group is ignored',
    says: () => 'Its group feeds no category by choice.',
  },
  'group-open': {
    brief: 'Its group is not joined to a category',
    says: () => 'It is in no group, or in one that is not matched to a category.',
  },
  'no-date': { brief: 'No due date', says: () => 'It has no due date there, so its period is not known.' },
  'no-points': { brief: 'No points', says: () => 'It says no points there that a score could be out of.' },
  'too-many-points': {
    brief: 'Points that do not fit',
    says: (points) => `${points} points: below 10,000 with at most two decimals fit.`,
  },
  'name-missing': { brief: 'No name', says: () => 'It has no name there.' },
  'name-too-long': {
    brief: 'The name is too long',
    says: (length) => `Its name has ${length} characters; ${longestAssignmentName} fit.`,
  },
  'given-to-nobody': {
    brief: 'Given to none of our students',
    says: () => 'None of those it was given to is in our section.',
  },
  'not-levels': {
    brief: 'The total is no level',
    says: (outOf, _formats, highest) => `The total is out of ${outOf}; this item takes levels up to ${highest}.`,
  },
  'points-below-scores': {
    brief: 'Scores here lie above the new points',
    says: (count, _formats, points, whose) =>
      `${counted(count, 'score')} here would lie above ${points} points: ${whose}. Correct them here or on the platform; until then nothing of this assignment is changed.`,
  },
  'default-category': {
    brief: 'Put into the default category',
    says: () => 'Its group is not joined, so it goes into the default category.',
  },
  'given-to-some': {
    brief: 'Given to single students',
    says: (count) => `It was given to ${counted(count, 'student')} rather than to all.`,
  },
  'no-scores-yet': { brief: 'No scores yet', says: () => 'It has no scores yet.' },
  'taken-up': {
    brief: 'Found here by its name',
    says: () => 'An assignment of the same name was here; from now on they are one.',
  },
  'person-open': {
    brief: 'The student is not known',
    says: () => 'This person is not matched to one of our students yet.',
  },
  'person-ignored': {
    brief: 'The student is ignored',
    says: () => 'It was decided to ignore this person.',
  },
  'not-in-section': { brief: 'Not in our section', says: () => 'A student of ours, but not of this section.' },
  withdrawn: { brief: 'Has left the section', says: (day, formats) => `Left the section on ${formats.day(day)}.` },
  'not-given': { brief: 'Was not given the assignment', says: () => 'The assignment was not given to this student.' },
  'score-above': {
    brief: 'More points than there are',
    says: (points, _formats, most) => `${points} is more than the ${most} it is out of.`,
  },
  'score-negative': { brief: 'Points below zero', says: (points) => `${points} is below zero.` },
  'score-digits': { brief: 'Points too exact', says: (points) => `${points} has more than two decimals.` },
  'score-unreadable': { brief: 'No number', says: (points) => `“${points}” is no number of points.` },
  kept: { brief: 'Kept what is here', says: () => 'It was entered or changed here, and the run keeps that.' },
  'total-open': {
    brief: 'The total is not joined to a report item',
    says: () => 'This column is not matched to a report item yet.',
  },
  'total-ignored': {
    brief: 'The total is ignored',
    says: () => 'It was decided to ignore this column.',
  },
  'no-scale': {
    brief: 'No scale is in force',
    says: (item) => `No scale is in force for ${item} in this section.`,
  },
  'window-closed': {
    brief: 'The posting window is not open',
    says: (item) => `${item} takes no marks now: its posting window is not open.`,
  },
  'letter-open': {
    brief: 'A label that is not matched yet',
    says: (letter) => `“${letter}” is not matched to one of our labels yet.`,
  },
  'letter-ignored': {
    brief: 'The label is ignored',
    says: (letter) => `“${letter}” is ignored by choice.`,
  },
  'below-scale': {
    brief: 'Below every band',
    says: (percent, formats) => `${formats.percent(percent)} reaches no band of the scale.`,
  },
  'percent-too-high': {
    brief: 'Not between 0 and 200 percent',
    says: (percent, formats) => `${formats.percent(percent)} is not between 0 and 200.`,
  },
};

export function reasonSentence({ code, about = '' }: RunReason, formats: ReasonFormats): string {
  const [first, second = '', third = ''] = about.split('|') as [string, string?, string?];
  return reasonWords[code].says(first, formats, second, third);
}

function counted(count: string, one: string): string {
  return `${count} ${one}${count === '1' ? '' : 's'}`;
}
