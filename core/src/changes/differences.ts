/** A fact of a thing that a change changed, as text. */
export interface Difference {
  /** Where it stands, in words: "additions, honours" or "codes, INC, meaning". */
  readonly field: string;
  /** Empty where there was nothing. */
  readonly before: string;
  readonly after: string;
}

type Json = null | string | number | boolean | readonly Json[] | { readonly [key: string]: Json };

/** By these a member of a list is the same member before and after, wherever it stands. */
const keys = ['id', 'code', 'label', 'name'] as const;

/**
 * What differs between a thing before and after, fact by fact, in the order in which the facts stand. Values are plain JSON, null
 * for a thing that was not or is no more.
 */
export function differences(before: unknown, after: unknown): Difference[] {
  const [old, now] = [facts(before as Json), facts(after as Json)];
  return [...new Set([...old.keys(), ...now.keys()])]
    .map((field) => ({ field, before: old.get(field) ?? '', after: now.get(field) ?? '' }))
    .filter((each) => each.before !== each.after);
}

function facts(value: Json, path: readonly string[] = [], into = new Map<string, string>()): Map<string, string> {
  if (value === null) return into;
  if (Array.isArray(value)) {
    const members = value as readonly Json[];
    for (const [at, member] of members.entries()) facts(member, [...path, keyOf(member) ?? String(at + 1)], into);
  } else if (typeof value === 'object') {
    for (const [key, own] of Object.entries(value)) facts(own, [...path, words(key)], into);
  } else into.set(path.join(', '), typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value));
  return into;
}

function keyOf(member: Json): string | undefined {
  if (member === null || typeof member !== 'object' || Array.isArray(member)) return undefined;
  const own = member as Readonly<Record<string, Json>>;
  for (const key of keys) {
    const value = own[key];
    if (typeof value === 'string' || typeof value === 'number') return String(value);
  }
  return undefined;
}

/** @example words('leastAddedPoints') // 'least added points' */
function words(name: string): string {
  return name.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
}
