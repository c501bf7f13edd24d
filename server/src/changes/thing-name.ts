/** How the log names a thing: its kind, a space, and its number or name among its kind. */
export function thingName(kind: string, id: string | number): string {
  return `${kind} ${id}`;
}

/** @example kindAndId('report-item 102') // ['report-item', '102'] */
export function kindAndId(thing: string): readonly [kind: string, id: string] {
  const at = thing.lastIndexOf(' ');
  return [thing.slice(0, Math.max(0, at)), thing.slice(at + 1)];
}
