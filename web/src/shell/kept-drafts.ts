import { create } from 'zustand';

/** Something being changed: as it would be, what it was before each step, and what the change began from. */
export interface Draft<Body = unknown, Base = unknown> {
  readonly basedOn: Base;
  readonly now: Body;
  readonly undo: readonly Body[];
}

/** The drafts of one kind of thing, by what they are of. */
export type DraftsOfKind = Readonly<Record<string, Draft>>;

interface KeptDrafts {
  /** Whose they are; 0 for nobody. */
  readonly personId: number;
  readonly kinds: Readonly<Record<string, DraftsOfKind>>;
  /** False where the browser did not keep what was last typed. */
  readonly isKept: boolean;
}

/** The form in which drafts are kept; one in another form is not understood and not shown. */
const form = 3;

/**
 * The drafts of the person at the screen, and of nobody else. Each stands in an item of its own in the browser, so that tabs
 * beside one another share them and none erases what another keeps.
 */
export const useKeptDrafts = create<KeptDrafts>(() => ({ personId: 0, kinds: {}, isKept: true }));

const prefixOf = (personId: number) => `wombat-draft/${form}/${personId}/`;
const itemOf = (personId: number, kind: string, key: string) => `${prefixOf(personId)}${kind}/${key}`;

/** Shows the drafts that a person has in this browser; those of 0, who is nobody, are none. */
export function showDraftsOf(personId: number): void {
  if (personId === useKeptDrafts.getState().personId) return;
  useKeptDrafts.setState({ personId, kinds: {} });
  for (const item of itemsOf(personId)) take(item, localStorage.getItem(item));
}

/** Puts a draft in its place, or takes it away, here and in the browser. */
export function keepDraft(kind: string, key: string, draft: Draft | undefined): void {
  const { personId, isKept } = useKeptDrafts.getState();
  put(kind, key, draft);
  const item = itemOf(personId, kind, key);
  try {
    if (draft === undefined) localStorage.removeItem(item);
    else localStorage.setItem(item, JSON.stringify(draft));
    if (!isKept) useKeptDrafts.setState({ isKept: true });
  } catch {
    useKeptDrafts.setState({ isKept: false }); // full, or closed to the site
  }
}

/** Discards every draft of the person at the screen. */
export function discardDrafts(): void {
  for (const item of itemsOf(useKeptDrafts.getState().personId)) localStorage.removeItem(item);
  useKeptDrafts.setState({ kinds: {} });
}

/** How many things the person at the screen has changed and not saved. */
export function countDrafts({ kinds }: KeptDrafts): number {
  return Object.values(kinds).reduce((sum, drafts) => sum + Object.keys(drafts).length, 0);
}

/** Follows what other tabs do to the same drafts, for as long as the page stands. */
export function followOtherTabs(): void {
  window.addEventListener('storage', ({ key, newValue }) => {
    if (key !== null) take(key, newValue);
  });
}

function itemsOf(personId: number): string[] {
  return Object.keys(localStorage).filter((item) => personId !== 0 && item.startsWith(prefixOf(personId)));
}

/** Takes over what stands in an item, if it is a draft of the person at the screen. */
function take(item: string, text: string | null): void {
  const prefix = prefixOf(useKeptDrafts.getState().personId);
  if (!item.startsWith(prefix)) return;
  const [kind = '', ...key] = item.slice(prefix.length).split('/');
  put(kind, key.join('/'), text === null ? undefined : readDraft(text));
}

/** Undefined where it was not written by us. */
function readDraft(text: string): Draft | undefined {
  try {
    const draft = JSON.parse(text) as Draft;
    return Array.isArray(draft.undo) && 'now' in draft && 'basedOn' in draft ? draft : undefined;
  } catch {
    return undefined;
  }
}

function put(kind: string, key: string, draft: Draft | undefined): void {
  useKeptDrafts.setState(({ kinds }) => {
    const { [key]: _, ...others } = kinds[kind] ?? {};
    return { kinds: { ...kinds, [kind]: draft ? { ...others, [key]: draft } : others } };
  });
}
