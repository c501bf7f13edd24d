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
