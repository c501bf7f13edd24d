import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { BandBody } from '#contract/scales';

/** A scale being changed: its bands as typed, and what they were before each step, for undo. */
export interface ScaleDraft {
  /** The version that the draft began from. */
  readonly basedOnVersion: number;
  readonly bands: readonly BandBody[];
  readonly undo: readonly (readonly BandBody[])[];
}

interface Drafts {
  readonly drafts: Readonly<Record<number, ScaleDraft>>;
}

const mostSteps = 100;

/** Drafts survive leaving the page and reloading it. */
export const useScaleDrafts = create<Drafts>()(
  persist((): Drafts => ({ drafts: {} }), { name: 'wombat-scale-drafts' }),
);

/** Changes a draft, beginning one where there is none. With `isSameStep` the change joins the step before it, as in a drag. */
export function changeDraft(
  scaleId: number,
  basedOnVersion: number,
  saved: readonly BandBody[],
  bands: readonly BandBody[],
  isSameStep: boolean,
): void {
  useScaleDrafts.setState(({ drafts }) => {
    const draft = drafts[scaleId] ?? { basedOnVersion, bands: saved, undo: [] };
    const undo = isSameStep && draft.undo.length > 0 ? draft.undo : [...draft.undo, draft.bands].slice(-mostSteps);
    return { drafts: { ...drafts, [scaleId]: { ...draft, bands, undo } } };
  });
}

export function undoDraft(scaleId: number): void {
  useScaleDrafts.setState(({ drafts }) => {
    const draft = drafts[scaleId];
    const before = draft?.undo.at(-1);
    if (!draft || !before) return {};
    if (draft.undo.length === 1) return { drafts: withoutDraft(drafts, scaleId) };
    return { drafts: { ...drafts, [scaleId]: { ...draft, bands: before, undo: draft.undo.slice(0, -1) } } };
  });
}

/** Lets a draft go on from a version that somebody else saved meanwhile. */
export function rebaseDraft(scaleId: number, basedOnVersion: number): void {
  useScaleDrafts.setState(({ drafts }) => {
    const draft = drafts[scaleId];
    return draft ? { drafts: { ...drafts, [scaleId]: { ...draft, basedOnVersion } } } : {};
  });
}

export function discardDraft(scaleId: number): void {
  useScaleDrafts.setState(({ drafts }) => ({ drafts: withoutDraft(drafts, scaleId) }));
}

function withoutDraft(drafts: Drafts['drafts'], scaleId: number): Drafts['drafts'] {
  return Object.fromEntries(Object.entries(drafts).filter(([id]) => Number(id) !== scaleId));
}
