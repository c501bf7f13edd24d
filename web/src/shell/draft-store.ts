import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { canonicalJson } from '#core/changes';

/** Something being changed: as it would be, what it was before each step, and what the change began from. */
export interface Draft<Body, Base> {
  readonly basedOn: Base;
  readonly now: Body;
  readonly undo: readonly Body[];
}

/** The number of what is changed, or a text where a number does not name it. */
type DraftKey = number | string;

interface Drafts<Body, Base> {
  readonly drafts: Readonly<Record<DraftKey, Draft<Body, Base>>>;
}

const mostSteps = 100;

/** Whether two bodies say the same, in whatever order their fields stand. */
const isSame = (one: unknown, other: unknown) => canonicalJson(one) === canonicalJson(other);

/**
 * Drafts of one kind of thing, each under a key. They survive leaving the page and reloading it; changed or stepped back to what
 * is saved, a draft goes. `Base` is what tells a save that somebody else saved first: a version or a revision.
 */
export function createDraftStore<Body, Base>(name: string) {
  const useStore = create<Drafts<Body, Base>>()(persist((): Drafts<Body, Base> => ({ drafts: {} }), { name }));
  const update = (id: DraftKey, next: (draft: Draft<Body, Base> | undefined) => Draft<Body, Base> | undefined) =>
    useStore.setState(({ drafts }) => {
      const { [id]: draft, ...others } = drafts;
      const changed = next(draft);
      return { drafts: changed ? { ...others, [id]: changed } : others };
    });
  return {
    /** A draft that is what is saved is none: its save arrived, and only the answer did not. */
    use(id: DraftKey, saved?: Body): Draft<Body, Base> | undefined {
      const draft = useStore(({ drafts }) => drafts[id]);
      return draft && isSame(draft.now, saved) ? undefined : draft;
    },
    useAll: () => useStore(({ drafts }) => drafts),
    get: (id: DraftKey) => useStore.getState().drafts[id],
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
    discard: (id: DraftKey) => update(id, () => undefined),
    discardAll: () => useStore.setState({ drafts: {} }),
  };
}
