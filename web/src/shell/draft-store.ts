import { canonicalJson } from '#core/changes';
import { isViewOnly } from '../ui/view-only';
import { keepDraft, useKeptDrafts, type Draft, type DraftsOfKind } from './kept-drafts';

export type { Draft } from './kept-drafts';

/** The number of what is changed, or a text where a number does not name it. */
type DraftKey = number | string;

const mostSteps = 100;
const none: DraftsOfKind = {};

/** Whether two bodies say the same, in whatever order their fields stand. */
const isSame = (one: unknown, other: unknown) => canonicalJson(one) === canonicalJson(other);

/**
 * Drafts of one kind of thing, each under a key. They survive leaving the page and reloading it; changed or stepped back to what
 * is saved, a draft goes. `Base` is what tells a save that somebody else saved first: a version or a revision.
 * @param kind permanent, as they are kept under it; another name where their form changes
 */
export function createDraftStore<Body, Base>(kind: string) {
  type Own = Draft<Body, Base>;
  const ownOf = (drafts: DraftsOfKind | undefined) => (drafts ?? none) as Readonly<Record<DraftKey, Own>>;
  const get = (id: DraftKey): Own | undefined => ownOf(useKeptDrafts.getState().kinds[kind])[id];
  const update = (id: DraftKey, next: (draft: Own | undefined) => Own | undefined) => {
    if (isViewOnly()) return;
    const before = get(id);
    const changed = next(before);
    if (changed !== before) keepDraft(kind, String(id), changed);
  };
  return {
    /** A draft that is what is saved is none: its save arrived, and only the answer did not. */
    use(id: DraftKey, saved?: Body): Own | undefined {
      const draft = useKeptDrafts(({ kinds }) => ownOf(kinds[kind])[id]);
      return draft && isSame(draft.now, saved) ? undefined : draft;
    },
    useAll: () => ownOf(useKeptDrafts(({ kinds }) => kinds[kind])),
    get,
    /** Changes a draft, beginning one where there is none. With `isSameStep` the change joins the step before it, as in a drag. */
    change(id: DraftKey, basedOn: Base, saved: Body, now: Body, isSameStep = false): void {
      update(id, (draft = { basedOn, now: saved, undo: [] }) => {
        if (isSame(now, saved)) return undefined;
        const undo = isSameStep && draft.undo.length > 0 ? draft.undo : [...draft.undo, draft.now].slice(-mostSteps);
        return { ...draft, now, undo };
      });
    },
    undo(id: DraftKey): void {
      update(id, (draft) => {
        const before = draft?.undo.at(-1);
        if (!draft || before === undefined || draft.undo.length === 1) return undefined;
        return { ...draft, now: before, undo: draft.undo.slice(0, -1) };
      });
    },
    /** Lets a draft go on from what somebody else saved meanwhile. */
    rebase: (id: DraftKey, basedOn: Base) => update(id, (draft) => draft && { ...draft, basedOn }),
    /** After a save: what was sent goes, as it is saved now; what was typed since stays, on the new base. */
    settle(id: DraftKey, sent: Body, basedOn: Base): void {
      update(id, (draft) =>
        draft && !isSame(draft.now, sent) ? { basedOn, now: draft.now, undo: [sent] } : undefined,
      );
    },
    /** After a save of parts: what is left of the draft goes on, upon what is saved now. */
    settleTo(id: DraftKey, basedOn: Base, saved: Body, left: (now: Body) => Body): void {
      update(id, (draft) => {
        const now = draft && left(draft.now);
        return now === undefined || isSame(now, saved) ? undefined : { basedOn, now, undo: [saved] };
      });
    },
    discard: (id: DraftKey) => update(id, () => undefined),
  };
}
