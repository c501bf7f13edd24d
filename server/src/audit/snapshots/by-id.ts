interface Identified {
  readonly id: number;
}

const known = new WeakMap<readonly Identified[], ReadonlyMap<number, Identified>>();

/** Things of the set-up by their ids: gathered once for a list, however many parts of a period are read. */
export function byId<Thing extends Identified>(things: readonly Thing[]): ReadonlyMap<number, Thing> {
  const kept = known.get(things) ?? new Map(things.map((thing) => [thing.id, thing]));
  known.set(things, kept);
  return kept as ReadonlyMap<number, Thing>;
}
