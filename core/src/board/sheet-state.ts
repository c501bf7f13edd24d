import type { PostingWindow } from '#core/calendar';

/** How far a sheet is: a section's students with one item in one period. */
export const sheetStages = ['not started', 'begun', 'complete', 'signed off'] as const;
export type SheetStage = (typeof sheetStages)[number];

/** What is counted of a sheet, of students who take a grade there. */
export interface SheetCounts {
  readonly expected: number;
  /** Without a percent, a label or a code. */
  readonly blanks: number;
  /** Posted with a code instead of a label. */
  readonly codes: number;
  /** Whose label or code needs a last date of attendance and has none that will do. */
  readonly missingDates: number;
  /** Whose label needs a comment and has none. */
  readonly missingComments: number;
  readonly overrides: number;
  /** Overrides without a reason. */
  readonly unexplained: number;
}

export const noCounts: SheetCounts = {
  expected: 0,
  blanks: 0,
  codes: 0,
  missingDates: 0,
  missingComments: 0,
  overrides: 0,
  unexplained: 0,
};

/** The counts of two sheets together. */
export function addCounts(one: SheetCounts, other: SheetCounts): SheetCounts {
  const names = Object.keys(noCounts) as (keyof SheetCounts)[];
  return Object.fromEntries(names.map((name) => [name, one[name] + other[name]])) as Record<keyof SheetCounts, number>;
}

/** Complete is a sheet without blanks, whatever else it lacks; one without students is so from the start. */
export function sheetStage({ expected, blanks }: SheetCounts, isSignedOff: boolean): SheetStage {
  if (isSignedOff) return 'signed off';
  if (blanks === 0) return 'complete';
  return blanks < expected ? 'begun' : 'not started';
}

/** Whether a sheet is work by now: its window has opened. Where there is no window nothing is due. */
export function isDue(window: Pick<PostingWindow, 'opensAt'> | null, now: string): boolean {
  return window !== null && Date.parse(now) >= Date.parse(window.opensAt);
}

/** How long ago the window closed, in milliseconds, whether or not there is a grace; 0 up to then, and without a window. */
export function lateBy(window: Pick<PostingWindow, 'closesAt'> | null, now: string): number {
  return window === null ? 0 : Math.max(0, Date.parse(now) - Date.parse(window.closesAt));
}

/** Whether something is left to do on a sheet before it is finished; it can be signed off with some of it open. */
export function isLacking({ blanks, missingDates, missingComments, unexplained }: SheetCounts): boolean {
  return blanks + missingDates + missingComments + unexplained > 0;
}

/** What says how far a sheet is and whether it is work. */
export interface SheetFacts {
  readonly counts: SheetCounts;
  readonly isSignedOff: boolean;
  readonly window: Pick<PostingWindow, 'opensAt' | 'closesAt'> | null;
  /** Of its period. */
  readonly isSealed: boolean;
}

export interface SheetState {
  readonly stage: SheetStage;
  /** Work by now: the window has opened, somebody is graded there, and the period is not sealed. */
  readonly isDue: boolean;
  /** Due, and nobody has signed it off. */
  readonly isOpen: boolean;
  /** How long the window has been closed without a sign-off, in milliseconds; 0 where it is not late. */
  readonly late: number;
}

export function sheetState({ counts, isSignedOff, window, isSealed }: SheetFacts, now: string): SheetState {
  const due = !isSealed && isDue(window, now) && counts.expected > 0;
  const isOpen = due && !isSignedOff;
  return { stage: sheetStage(counts, isSignedOff), isDue: due, isOpen, late: isOpen ? lateBy(window, now) : 0 };
}

/** How long something has been late, cut to its largest unit: 3 days, 2 hours, 12 minutes. */
export function lateness(milliseconds: number): readonly [count: number, unit: 'day' | 'hour' | 'minute'] {
  const minutes = Math.floor(milliseconds / 60_000);
  if (minutes < 60) return [minutes, 'minute'];
  if (minutes < 48 * 60) return [Math.floor(minutes / 60), 'hour'];
  return [Math.floor(minutes / (24 * 60)), 'day'];
}
