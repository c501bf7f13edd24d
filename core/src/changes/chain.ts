/** One entry of the log: who did what to which thing, as it was before and after. */
export interface LogEntry {
  /** ISO instant. */
  readonly at: string;
  /** The person's number; null where nobody was signed in. */
  readonly actorId: number | null;
  readonly actor: string;
  readonly action: string;
  readonly thing: string;
  readonly before: unknown;
  readonly after: unknown;
  /** The change that it is a part of; null for what was logged by itself. */
  readonly change?: ChangeOfEntry | null;
}

/** What the entries of one change have in common. */
export interface ChangeOfEntry {
  readonly id: number;
  /** The change that this one undid. */
  readonly undoes: number | null;
  readonly why: string | null;
}

export interface ChainedEntry extends LogEntry {
  readonly id: number;
  readonly previousHash: string;
  readonly hash: string;
}

/** SHA-256 as 64 hexadecimal digits; passed in, as core has no cryptography of its own. */
export type Hash = (text: string) => string;

/** What stands before the first entry. */
export const chainStart = '0'.repeat(64);

/** The hash of an entry covers the hash before it, so that an altered or removed entry breaks every later one. */
export function entryHash(entry: LogEntry, previousHash: string, hash: Hash): string {
  const { at, actorId, actor, action, thing, before, after, change } = entry;
  const own = change ? [change.id, change.undoes, change.why] : [];
  return hash(canonicalJson([previousHash, at, actorId, actor, action, thing, before, after, ...own]));
}

export type ChainFault =
  | { readonly code: 'entry-altered'; readonly id: number }
  | { readonly code: 'entry-missing-before'; readonly id: number };

/** The first place where the chain does not hold, or undefined when all does. Entries come in order. */
export function findChainFault(
  entries: Iterable<ChainedEntry>,
  hash: Hash,
  startsAfter: string = chainStart,
): ChainFault | undefined {
  let previous = startsAfter;
  for (const entry of entries) {
    if (entry.previousHash !== previous) return { code: 'entry-missing-before', id: entry.id };
    if (entryHash(entry, previous, hash) !== entry.hash) return { code: 'entry-altered', id: entry.id };
    previous = entry.hash;
  }
  return undefined;
}

/** JSON with the keys of every object in order, so that what is equal is written alike; undefined fields are left out. */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (value !== null && typeof value === 'object') {
    const present = Object.entries(value).filter(([, field]) => field !== undefined);
    const fields = present.toSorted(([a], [b]) => (a < b ? -1 : 1));
    return `{${fields.map(([key, field]) => `${JSON.stringify(key)}:${canonicalJson(field)}`).join(',')}}`;
  }
  return JSON.stringify(value ?? null);
}
