import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { AssignmentBody } from '#contract/report-items';

/** Rules and exceptions being changed: as they would be, what they were before each step, and what they began from. */
export interface AssignmentDraft {
  readonly revision: string;
  readonly now: AssignmentBody;
  readonly undo: readonly AssignmentBody[];
}

interface Drafts {
  /** By school. */
  readonly drafts: Readonly<Record<number, AssignmentDraft>>;
}

const mostSteps = 100;

/** Drafts survive leaving the page and reloading it. */
export const useAssignmentDrafts = create<Drafts>()(
  persist((): Drafts => ({ drafts: {} }), { name: 'wombat-assignment-drafts' }),
);

/** Changes a school's draft, beginning one where there is none. Changed back to what is saved, it goes. */
export function changeAssignment(schoolId: number, revision: string, saved: AssignmentBody, now: AssignmentBody): void {
  useAssignmentDrafts.setState(({ drafts }) => {
    const draft = drafts[schoolId] ?? { revision, now: saved, undo: [] };
    if (JSON.stringify(now) === JSON.stringify(saved)) return { drafts: without(drafts, schoolId) };
    const undo = [...draft.undo, draft.now].slice(-mostSteps);
    return { drafts: { ...drafts, [schoolId]: { ...draft, now, undo } } };
  });
}

export function undoAssignment(schoolId: number): void {
  useAssignmentDrafts.setState(({ drafts }) => {
    const draft = drafts[schoolId];
    const before = draft?.undo.at(-1);
    if (!draft || !before) return {};
    if (draft.undo.length === 1) return { drafts: without(drafts, schoolId) };
    return { drafts: { ...drafts, [schoolId]: { ...draft, now: before, undo: draft.undo.slice(0, -1) } } };
  });
}

/** Lets a draft go on from what somebody else saved meanwhile. */
export function rebaseAssignment(schoolId: number, revision: string): void {
  useAssignmentDrafts.setState(({ drafts }) => {
    const draft = drafts[schoolId];
    return draft ? { drafts: { ...drafts, [schoolId]: { ...draft, revision } } } : {};
  });
}

export function discardAssignment(schoolId: number): void {
  useAssignmentDrafts.setState(({ drafts }) => ({ drafts: without(drafts, schoolId) }));
}

function without(drafts: Drafts['drafts'], schoolId: number): Drafts['drafts'] {
  return Object.fromEntries(Object.entries(drafts).filter(([id]) => Number(id) !== schoolId));
}
