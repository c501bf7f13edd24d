import type { ExchangeRow } from './exchange-format.js';

/** The ids from a row's own up to its last ancestor's; a ring of parents, which nothing should have, ends where it began. */
export function climbOf(rows: readonly ExchangeRow[]): (id: string) => string[] {
  const parents = new Map(rows.map((row) => [row['sourcedId']!, row['parentSourcedId'] ?? '']));
  return (id) => {
    const line: string[] = [];
    for (let at = id; at !== '' && !line.includes(at); at = parents.get(at) ?? '') line.push(at);
    return line;
  };
}
