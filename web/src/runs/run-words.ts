import type { LedgerOutcome, RowResult, RunReason, RunReasonCode, RunStage } from '#core/runs';
import { reasonSentence, type RunRowReply, type RunSummaryReply } from '#contract/runs';
import { showDay, showLabel, showPercent } from '../ui/format';

export const outcomeNames: Record<LedgerOutcome, string> = {
  create: 'new',
  change: 'changed',
  same: 'the same',
  skip: 'skipped',
  refuse: 'refused',
};

export const resultNames: Record<RowResult, string> = {
  written: 'written',
  left: 'not picked',
  movedOn: 'moved on since the plan',
  undone: 'undone',
  stays: 'changed since, stays',
};

const matchesOf = (view: string) => ({ place: `matches?view=${view}`, says: 'Join it' });

/** Where a reason is mended in Wombat; the others are mended on the platform. */
export const mends: Partial<Record<RunReasonCode, { readonly place: string; readonly says: string }>> = {
  'class-open': matchesOf('class'),
  'class-ignored': matchesOf('class'),
  'other-term': matchesOf('class'),
  'group-ignored': matchesOf('group'),
  'group-open': matchesOf('group'),
  'default-category': matchesOf('group'),
  'person-open': matchesOf('person'),
  'person-ignored': matchesOf('person'),
  'total-open': matchesOf('total'),
  'total-ignored': matchesOf('total'),
  'no-scale': { place: 'scales', says: 'Choose a scale' },
  'window-closed': { place: 'calendar', says: 'See the windows' },
  'letter-open': matchesOf('letter'),
  'letter-ignored': matchesOf('letter'),
};

export function sayReason(reason: RunReason): string {
  return reasonSentence(reason, { day: showDay, percent: showPercent });
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

/** What a run does in each stage. */
export const stageWords: Record<RunStage, string> = { plan: 'planning', carry: 'carrying over', undo: 'undoing' };

/** How a run stands, as a list of runs says it. */
export function sayStanding({ stage, state, done, total }: RunSummaryReply): string {
  const doing = stageWords[stage];
  if (state === 'working') return `${doing}, class ${Math.min(done + 1, total)} of ${total}`;
  if (state === 'failed') return `failed while ${doing}`;
  if (state === 'stopped') return `stopped while ${doing}`;
  return { plan: 'planned, waits', carry: 'carried out', undo: 'undone' }[stage];
}

/** "just now", "12 minutes ago", "8 hours ago", "3 days ago". */
export function sayAge(minutes: number): string {
  if (minutes < 2) return 'just now';
  if (minutes < 120) return `${minutes} minutes ago`;
  const hours = Math.floor(minutes / 60);
  return hours < 48 ? `${hours} hours ago` : `${Math.floor(hours / 24)} days ago`;
}
