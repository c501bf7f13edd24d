import {
  longestAssignmentName,
  type LedgerOutcome,
  type RowResult,
  type RunReason,
  type RunReasonCode,
} from '#core/transfer';
import type { RunRowReply, RunSummaryReply } from '#contract/transfer';
import { plural, showDay, showLabel, showPercent } from '../ui/format';

export const outcomeNames: Record<LedgerOutcome, string> = {
  create: 'new',
  change: 'changed',
  same: 'the same',
  skip: 'left out',
  refuse: 'refused',
};

export const resultNames: Record<RowResult, string> = {
  written: 'written',
  left: 'not picked',
  movedOn: 'moved on since the plan',
  undone: 'taken back',
  stays: 'changed since, stays',
};

interface ReasonWords {
  /** As the list of reasons says it, without a full stop. */
  readonly brief: string;
  /** As one line says it; `about` is what it names, in two parts where there are two. */
  readonly says: (about: string, other: string) => string;
  /** Where it is mended in Wombat; on the platform where nothing is said. */
  readonly mend?: { readonly place: string; readonly says: string };
}

const matchesOf = (view: string) => ({ place: `matches?view=${view}`, says: 'Join it' });

/** Why a line is not carried over, or what is to be known about it. */
export const reasonWords: Record<RunReasonCode, ReasonWords> = {
  'class-open': {
    brief: 'The class is not joined to a section',
    says: () => 'Nobody has said which of our sections this class is.',
    mend: matchesOf('class'),
  },
  'class-ignored': {
    brief: 'The class is ignored',
    says: () => 'Somebody chose to ignore this class.',
    mend: matchesOf('class'),
  },
  'other-term': {
    brief: 'The section belongs to another term',
    says: (section, period) => `${section || 'Its section'} does not run through ${period}.`,
    mend: matchesOf('class'),
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
    says: (day) => `It is due on ${showDay(day)}, outside of this period.`,
  },
  'removed-here': { brief: 'Removed here', says: () => 'It came over once and somebody here removed it.' },
  'group-ignored': {
    brief: 'Its group is ignored',
    says: () => 'Its group feeds no category by choice.',
    mend: matchesOf('group'),
  },
  'group-open': {
    brief: 'Its group is not joined to a category',
    says: () => 'It is in no group, or in one that nobody joined to a category.',
    mend: matchesOf('group'),
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
    brief: 'Given to nobody of ours',
    says: () => 'None of those it was given to is in our section.',
  },
  'points-below-scores': {
    brief: 'Scores here lie above the new points',
    says: (count, points) => `${plural(Number(count), 'score')} here would lie above ${points} points.`,
  },
  'default-category': {
    brief: 'Put into the default category',
    says: () => 'Its group is not joined, so it goes into the default category.',
    mend: matchesOf('group'),
  },
  'given-to-some': {
    brief: 'Given to single students',
    says: (count) => `It was given to ${plural(Number(count), 'student')} rather than to all.`,
  },
  'no-scores-yet': { brief: 'No scores yet', says: () => 'Nobody is scored on it yet.' },
  'taken-up': {
    brief: 'Found here by its name',
    says: () => 'An assignment of the same name was here; from now on they are one.',
  },
  'person-open': {
    brief: 'The student is not known',
    says: () => 'Nobody has said which of our students this is.',
    mend: matchesOf('person'),
  },
  'person-ignored': {
    brief: 'The student is ignored',
    says: () => 'Somebody chose to ignore this person.',
    mend: matchesOf('person'),
  },
  'not-in-section': { brief: 'Not in our section', says: () => 'A student of ours, but not of this section.' },
  withdrawn: { brief: 'Has left the section', says: (day) => `Left the section on ${showDay(day)}.` },
  'not-given': { brief: 'Was not given the assignment', says: () => 'The assignment was not given to this student.' },
  'score-above': {
    brief: 'More points than there are',
    says: (points, most) => `${points} is more than the ${most} it is out of.`,
  },
  'score-negative': { brief: 'Points below zero', says: (points) => `${points} is below zero.` },
  'score-digits': { brief: 'Points too exact', says: (points) => `${points} has more than two decimals.` },
  'score-unreadable': { brief: 'No number', says: (points) => `“${points}” is no number of points.` },
  kept: { brief: 'Kept what is here', says: () => 'Somebody here entered or changed it, and the run keeps that.' },
  'total-open': {
    brief: 'The total is not joined to a report item',
    says: () => 'Nobody has said which report item this column is.',
    mend: matchesOf('total'),
  },
  'total-ignored': {
    brief: 'The total is ignored',
    says: () => 'Somebody chose to ignore this column.',
    mend: matchesOf('total'),
  },
  'no-scale': {
    brief: 'No scale is in force',
    says: (item) => `No scale is in force for ${item} in this section.`,
    mend: { place: 'scales', says: 'Put one in force' },
  },
  'window-closed': {
    brief: 'The posting window is not open',
    says: (item) => `${item} takes no marks now: its posting window is not open.`,
    mend: { place: 'calendar', says: 'See the windows' },
  },
  'letter-open': {
    brief: 'A letter that means none of ours yet',
    says: (letter) => `Nobody has said which of our labels “${letter}” means.`,
    mend: matchesOf('letter'),
  },
  'letter-ignored': {
    brief: 'The letter is ignored',
    says: (letter) => `“${letter}” is ignored by choice.`,
    mend: matchesOf('letter'),
  },
  'below-scale': {
    brief: 'Below every band',
    says: (percent) => `${showPercent(percent)} reaches no band of the scale.`,
  },
  'percent-too-high': {
    brief: 'Not between 0 and 200 percent',
    says: (percent) => `${showPercent(percent)} is not between 0 and 200.`,
  },
};

export function sayReason({ code, about = '' }: RunReason): string {
  const [first, second = ''] = about.split('|') as [string, string?];
  return reasonWords[code].says(first, second);
}

/** What a line is about, in words. */
export const kindNames: Record<RunRowReply['kind'], string> = {
  class: 'class',
  assignment: 'assignment',
  total: 'total',
  score: 'score',
  mark: 'mark',
};

/** What stands there, as short as a cell needs it; "–" for nothing. */
export function showFacts(facts: RunRowReply['before'], categories: ReadonlyMap<number, string>): string {
  if (facts === null) return '–';
  if ('points' in facts) return [facts.points, facts.flag].filter((each) => each !== null).join(' ') || '–';
  if ('percent' in facts) {
    const { percent, label, code } = facts;
    const mark = label === null ? code : showLabel(label);
    return [percent === null ? null : showPercent(percent), mark].filter((each) => each !== null).join(' ') || '–';
  }
  const { possible, dueOn, categoryId } = facts;
  return `${possible} p., ${showDay(dueOn)}, ${categories.get(categoryId) ?? 'a category of the section'}`;
}

/** Of an assignment only what differs: "points 20 → 25". */
export function showChange({ before, after }: RunRowReply, categories: ReadonlyMap<number, string>): string {
  if (before === null || after === null || !('dueOn' in before) || !('dueOn' in after))
    return `${showFacts(before, categories)} → ${showFacts(after, categories)}`;
  const parts = [
    before.name === after.name ? null : `“${before.name}” → “${after.name}”`,
    Number(before.possible) === Number(after.possible) ? null : `${before.possible} → ${after.possible} p.`,
    before.dueOn === after.dueOn ? null : `${showDay(before.dueOn)} → ${showDay(after.dueOn)}`,
    before.categoryId === after.categoryId
      ? null
      : `${categories.get(before.categoryId) ?? '…'} → ${categories.get(after.categoryId) ?? '…'}`,
    String(before.givenTo) === String(after.givenTo) ? null : 'given to others',
  ];
  return parts.filter((part) => part !== null).join(', ') || showFacts(after, categories);
}

/** How a run stands, as a list of runs says it. */
export function sayStanding({ stage, state, done, total }: RunSummaryReply): string {
  const doing = { plan: 'planning', carry: 'carrying out', undo: 'taking back' }[stage];
  if (state === 'working') return `${doing}, class ${Math.min(done + 1, total)} of ${total}`;
  if (state === 'failed') return `failed while ${doing}`;
  if (state === 'stopped') return `stopped while ${doing}`;
  return { plan: 'planned, waits', carry: 'carried out', undo: 'taken back' }[stage];
}

/** "just now", "12 minutes ago", "8 hours ago", "3 days ago". */
export function sayAge(minutes: number): string {
  if (minutes < 2) return 'just now';
  if (minutes < 120) return `${minutes} minutes ago`;
  const hours = Math.floor(minutes / 60);
  return hours < 48 ? `${hours} hours ago` : `${Math.floor(hours / 24)} days ago`;
}
