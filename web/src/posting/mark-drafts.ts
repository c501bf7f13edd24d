import { dequal } from 'dequal';
import type { MarkBody, MarkChangeBody, SheetReply } from '#contract/posting';
import { createDraftStore } from '../shell/draft-store';

/** An unsaved mark and the version of the grade that it was made on. */
export interface MarkDraft {
  readonly mark: MarkBody;
  readonly version: number;
  /** The request that it came from, where somebody asked for it to be posted. */
  readonly asked?: number;
}

/** The unsaved marks of one sheet, by enrollment. */
export type MarkDrafts = Readonly<Record<number, MarkDraft>>;

type SavedRows = Pick<SheetReply, 'rows'>;

export const noMarkDrafts: MarkDrafts = {};

/** By section, item and period. Each mark bears the version it was made on, so the draft as a whole is based on nothing. */
export const markDrafts = createDraftStore<MarkDrafts, null>('marks');

export function marksOf(sheetId: string): MarkDrafts {
  return markDrafts.get(sheetId)?.now ?? noMarkDrafts;
}

/** Drafts as a save sends them. */
export function changesOf(drafts: MarkDrafts): MarkChangeBody[] {
  return Object.entries(drafts).map(([id, { mark, version }]) => ({ ...mark, enrollmentId: Number(id), version }));
}

/** The requests that saving drafts answers: those that any of the marks came from. */
export function askedIn(drafts: MarkDrafts): number[] {
  return [...new Set(Object.values(drafts).flatMap(({ asked }) => asked ?? []))];
}

/** Changes several marks in one step that can be undone. A null takes a draft away. */
export function changeMarks(sheetId: string, changes: Readonly<Record<number, MarkDraft | null>>): void {
  const next = Object.entries({ ...marksOf(sheetId), ...changes }).filter(
    (entry): entry is [string, MarkDraft] => entry[1] !== null,
  );
  markDrafts.change(sheetId, null, noMarkDrafts, Object.fromEntries(next));
}

/** After a save: what was sent goes; what was typed since stays, over the versions saved. */
export function settleMarks(sheetId: string, sent: MarkDrafts, saved: SavedRows): void {
  const versions = versionsOf(saved);
  const changes = Object.entries(marksOf(sheetId)).map(([id, draft]): [string, MarkDraft | null] => {
    const own = sent[Number(id)];
    if (own && dequal(own.mark, draft.mark)) return [id, null];
    return [id, own ? { ...draft, version: versions.get(Number(id)) ?? draft.version } : draft];
  });
  const kept = changes.filter((entry): entry is [string, MarkDraft] => entry[1] !== null);
  markDrafts.discard(sheetId);
  changeMarks(sheetId, Object.fromEntries(kept));
}

/** Lets the drafts stand over what somebody else saved meanwhile. */
export function keepMarksOver(sheetId: string, saved: SavedRows): void {
  const versions = versionsOf(saved);
  const kept = Object.entries(marksOf(sheetId)).map(([id, draft]) => [
    id,
    { ...draft, version: versions.get(Number(id)) ?? draft.version },
  ]);
  changeMarks(sheetId, Object.fromEntries(kept) as MarkDrafts);
}

function versionsOf(sheet: SavedRows): ReadonlyMap<number, number> {
  return new Map(sheet.rows.map(({ enrollmentId, version }) => [enrollmentId, version]));
}
