import { longestAssignmentName, type RunReason, type RunReasonCode } from '#core/runs';
import { formatMessage } from '#contract/messages';

/** How whoever says it writes days and percents. */
export interface ReasonFormats {
  readonly day: (day: string) => string;
  readonly percent: (percent: string) => string;
}

interface ReasonWords {
  /** As a list of reasons says it, without a full stop. */
  readonly brief: string;
  /** What the parts of its facts are, in the order in which they are kept. */
  readonly parts: readonly string[];
  /** As one row says it. */
  readonly says: string;
}

/** Why a row of a run is not carried over, or what is to be known about it. */
export const reasonWords: Record<RunReasonCode, ReasonWords> = {
  'class-open': {
    brief: 'The class is not joined to a section',
    parts: [],
    says: 'This class is not matched to one of our sections yet.',
  },
  'class-ignored': { brief: 'The class is ignored', parts: [], says: 'It was decided to ignore this class.' },
  'other-term': {
    brief: 'The section belongs to another term',
    parts: ['section', 'period'],
    says: '{section} does not run through {period}.',
  },
  'period-sealed': {
    brief: 'The period is sealed',
    parts: ['period'],
    says: '{period} is sealed; a grade in it changes only by amendment.',
  },
  'weights-not-100': {
    brief: 'The weights there do not add up to 100',
    parts: ['sum'],
    says: 'The weights of its groups add up to {sum} percent there.',
  },
  'not-marked': { brief: 'Not marked for sending', parts: [], says: 'Its teacher did not mark it for sending.' },
  unpublished: { brief: 'Not published', parts: [], says: 'Students do not see it there yet.' },
  ungraded: { brief: 'Not graded', parts: [], says: 'It is of a kind that gets no grade.' },
  'other-period': {
    brief: 'Due in another period',
    parts: ['day'],
    says: 'It is due on {day}, outside of this period.',
  },
  'gone-there': {
    brief: 'Gone on the platform',
    parts: [],
    says: 'The platform no longer has it. It still counts here; delete it in the grade book if it should not.',
  },
  'removed-here': { brief: 'Removed here', parts: [], says: 'It was carried over once and then removed here.' },
  'group-ignored': { brief: 'Its group is ignored', parts: [], says: 'Its group feeds no category by choice.' },
  'group-open': {
    brief: 'Its group is not joined to a category',
    parts: [],
    says: 'It is in no group, or in one that is not matched to a category.',
  },
  'no-date': { brief: 'No due date', parts: [], says: 'It has no due date there, so its period is not known.' },
  'no-points': { brief: 'No points', parts: [], says: 'It says no points there that a score could be out of.' },
  'too-many-points': {
    brief: 'Points that do not fit',
    parts: ['points'],
    says: '{points} points: below 10,000 with at most two decimals fit.',
  },
  'name-missing': { brief: 'No name', parts: [], says: 'It has no name there.' },
  'name-too-long': {
    brief: 'The name is too long',
    parts: ['length'],
    says: 'Its name has {length} characters; {longest} fit.',
  },
  'given-to-nobody': {
    brief: 'Given to none of our students',
    parts: [],
    says: 'None of those it was given to is in our section.',
  },
  'not-levels': {
    brief: 'The total is no level',
    parts: ['outOf', 'highest'],
    says: 'The total is out of {outOf}; this item takes levels up to {highest}.',
  },
  'points-below-scores': {
    brief: 'Scores here lie above the new points',
    parts: ['count', 'points', 'whose'],
    says: '{count, plural, one {# score} other {# scores}} here would lie above {points} points: {whose}. Correct them here or on the platform; until then nothing of this assignment is changed.',
  },
  'default-category': {
    brief: 'Put into the default category',
    parts: [],
    says: 'Its group is not joined, so it goes into the default category.',
  },
  'given-to-some': {
    brief: 'Given to single students',
    parts: ['count'],
    says: 'It was given to {count, plural, one {# student} other {# students}} rather than to all.',
  },
  'no-scores-yet': { brief: 'No scores yet', parts: [], says: 'It has no scores yet.' },
  'taken-up': {
    brief: 'Found here by its name',
    parts: [],
    says: 'An assignment of the same name was here; from now on they are one.',
  },
  'person-open': {
    brief: 'The student is not known',
    parts: [],
    says: 'This person is not matched to one of our students yet.',
  },
  'person-ignored': { brief: 'The student is ignored', parts: [], says: 'It was decided to ignore this person.' },
  'not-in-section': { brief: 'Not in our section', parts: [], says: 'A student of ours, but not of this section.' },
  withdrawn: { brief: 'Has left the section', parts: ['day'], says: 'Left the section on {day}.' },
  'not-given': {
    brief: 'Was not given the assignment',
    parts: [],
    says: 'The assignment was not given to this student.',
  },
  'score-too-high': {
    brief: 'More points than a book holds',
    parts: ['points', 'most'],
    says: '{points} is more than 9999.99, the most that a score can be.',
  },
  'score-above': {
    brief: 'More points than there are',
    parts: ['points', 'most'],
    says: '{points} is more than the {most} it is out of.',
  },
  'score-negative': { brief: 'Points below zero', parts: ['points'], says: '{points} is below zero.' },
  'score-digits': { brief: 'Points too exact', parts: ['points'], says: '{points} has more than two decimals.' },
  'score-unreadable': { brief: 'No number', parts: ['points'], says: '“{points}” is no number of points.' },
  kept: { brief: 'Kept what is here', parts: [], says: 'It was entered or changed here, and the run keeps that.' },
  'total-open': {
    brief: 'The total is not joined to a report item',
    parts: [],
    says: 'This column is not matched to a report item yet.',
  },
  'total-ignored': { brief: 'The total is ignored', parts: [], says: 'It was decided to ignore this column.' },
  'no-scale': {
    brief: 'No scale is in force',
    parts: ['item'],
    says: 'No scale is in force for {item} in this section.',
  },
  'window-closed': {
    brief: 'The posting window is not open',
    parts: ['item'],
    says: '{item} cannot be posted now: its posting window is not open.',
  },
  'signed-off': {
    brief: 'The sheet is signed off',
    parts: ['item'],
    says: '{item} of this section is signed off. Take the sign-off back first.',
  },
  'letter-open': {
    brief: 'A label that is not matched yet',
    parts: ['letter'],
    says: '“{letter}” is not matched to one of our labels yet.',
  },
  'letter-ignored': { brief: 'The label is ignored', parts: ['letter'], says: '“{letter}” is ignored by choice.' },
  'below-scale': { brief: 'Below every band', parts: ['percent'], says: '{percent} reaches no band of the scale.' },
  'percent-too-high': {
    brief: 'Not between 0 and 200 percent',
    parts: ['percent'],
    says: '{percent} is not between 0 and 200.',
  },
};

export function reasonSentence({ code, about = '' }: RunReason, formats: ReasonFormats): string {
  const { parts, says } = reasonWords[code];
  const told = about.split('|');
  const values = parts.map((part, at) => [part, valueOf(part, told[at] ?? '', formats)] as const);
  return formatMessage(says, { longest: longestAssignmentName, ...Object.fromEntries(values) });
}

function valueOf(part: string, text: string, formats: ReasonFormats): string | number {
  if (part === 'count') return Number(text);
  if (part === 'section') return text || 'Its section';
  return part === 'day' || part === 'percent' ? formats[part](text) : text;
}
