import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { BreakBody, CalendarReply, PeriodBody, WindowBody } from '#contract/calendar';

/** A calendar as it is changed. */
export interface CalendarBody {
  readonly weekdays: readonly number[];
  readonly periods: readonly PeriodBody[];
  readonly breaks: readonly BreakBody[];
  readonly windows: readonly WindowBody[];
}

export interface CalendarDraft {
  /** The version that the draft began from. */
  readonly version: number;
  readonly now: CalendarBody;
  readonly undo: readonly CalendarBody[];
}

interface Drafts {
  /** By school. */
  readonly drafts: Readonly<Record<number, CalendarDraft>>;
}

const mostSteps = 100;

/** Drafts survive leaving the page and reloading it. */
export const useCalendarDrafts = create<Drafts>()(
  persist((): Drafts => ({ drafts: {} }), { name: 'wombat-calendar-drafts' }),
);

export function bodyOfCalendar({ weekdays, periods, breaks, windows }: CalendarReply): CalendarBody {
  return {
    weekdays,
    periods: periods.map(({ id, parentId, kind, name, startsOn, endsOn }) => ({
      id,
      parentId,
      kind,
      name,
      startsOn,
      endsOn,
    })),
    breaks,
    windows: windows.map(({ id: _id, ...window }) => window),
  };
}

/** Changes a school's draft, beginning one where there is none. With `isSameStep` the change joins the step before it. */
export function changeCalendar(calendar: CalendarReply, change: Partial<CalendarBody>, isSameStep = false): void {
  const schoolId = calendar.school.id;
  useCalendarDrafts.setState(({ drafts }) => {
    const draft = drafts[schoolId] ?? { version: calendar.version, now: bodyOfCalendar(calendar), undo: [] };
    const undo = isSameStep && draft.undo.length > 0 ? draft.undo : [...draft.undo, draft.now].slice(-mostSteps);
    return { drafts: { ...drafts, [schoolId]: { ...draft, now: { ...draft.now, ...change }, undo } } };
  });
}

export function undoCalendar(schoolId: number): void {
  useCalendarDrafts.setState(({ drafts }) => {
    const draft = drafts[schoolId];
    const before = draft?.undo.at(-1);
    if (!draft || !before) return {};
    if (draft.undo.length === 1) return { drafts: without(drafts, schoolId) };
    return { drafts: { ...drafts, [schoolId]: { ...draft, now: before, undo: draft.undo.slice(0, -1) } } };
  });
}

/** Lets a draft go on from what somebody else saved meanwhile. */
export function rebaseCalendar(schoolId: number, version: number): void {
  useCalendarDrafts.setState(({ drafts }) => {
    const draft = drafts[schoolId];
    return draft ? { drafts: { ...drafts, [schoolId]: { ...draft, version } } } : {};
  });
}

export function discardCalendar(schoolId: number): void {
  useCalendarDrafts.setState(({ drafts }) => ({ drafts: without(drafts, schoolId) }));
}

function without(drafts: Drafts['drafts'], schoolId: number): Drafts['drafts'] {
  return Object.fromEntries(Object.entries(drafts).filter(([id]) => Number(id) !== schoolId));
}
