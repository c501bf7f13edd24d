import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { MarkBody } from '#contract/posting';

/** An unsaved mark and the version of the grade that it was made on. */
export interface MarkDraft {
  readonly mark: MarkBody;
  readonly version: number;
}

/** The unsaved marks of one sheet, by enrollment, and the drafts before each step for undo. */
export interface SheetDrafts {
  readonly marks: Readonly<Record<number, MarkDraft>>;
  readonly undo: readonly Readonly<Record<number, MarkDraft>>[];
}

interface AllDrafts {
  readonly sheets: Readonly<Record<string, SheetDrafts>>;
}

const noDrafts: SheetDrafts = { marks: {}, undo: [] };
const mostSteps = 50;

/** Unsaved work survives a reload and a closed tab. */
export const useMarkDrafts = create<AllDrafts>()(
  persist((): AllDrafts => ({ sheets: {} }), { name: 'wombat-mark-drafts' }),
);

export function draftsOf(state: AllDrafts, sheet: string): SheetDrafts {
  return state.sheets[sheet] ?? noDrafts;
}

/** Changes several marks in one step that can be taken back. A null takes a draft away. */
export function changeMarks(sheet: string, changes: Readonly<Record<number, MarkDraft | null>>): void {
  useMarkDrafts.setState((state) => {
    const { marks, undo } = draftsOf(state, sheet);
    const next = Object.entries({ ...marks, ...changes }).filter(
      (entry): entry is [string, MarkDraft] => entry[1] !== null,
    );
    return withSheet(state, sheet, { marks: Object.fromEntries(next), undo: [...undo, marks].slice(-mostSteps) });
  });
}

export function undoMarks(sheet: string): void {
  useMarkDrafts.setState((state) => {
    const { undo } = draftsOf(state, sheet);
    const before = undo.at(-1);
    return before ? withSheet(state, sheet, { marks: before, undo: undo.slice(0, -1) }) : {};
  });
}

/** Forgets the drafts of a sheet, as after a save. */
export function clearMarks(sheet: string): void {
  useMarkDrafts.setState(({ sheets }) => ({
    sheets: Object.fromEntries(Object.entries(sheets).filter(([key]) => key !== sheet)),
  }));
}

function withSheet({ sheets }: AllDrafts, sheet: string, drafts: SheetDrafts): AllDrafts {
  return { sheets: { ...sheets, [sheet]: drafts } };
}
