import { counted, listed, type CountedThing } from '#contract/messages';
import type { RowChange } from '#contract/cell-tables';

/**
 * What a save of rows does, in words: "change Knots", "add 3 courses and delete 1 course".
 * @param nameOf of a row that is kept, by its number
 * @param titleOf of a row that is new
 */
export function actionOfRows<Field extends string>(
  thing: CountedThing,
  { changes, removed }: { readonly changes: readonly RowChange<Field>[]; readonly removed: readonly number[] },
  nameOf: (id: number) => string,
  titleOf: (change: RowChange<Field>) => string,
): string {
  const [added, changed] = [changes.filter(({ id }) => id === null), changes.filter(({ id }) => id !== null)];
  const parts: readonly (readonly [does: string, names: readonly string[]])[] = [
    ['add', added.map(titleOf)],
    ['change', changed.map(({ id }) => nameOf(id!))],
    ['delete', removed.map(nameOf)],
  ];
  const said = parts.flatMap(([does, names]) =>
    names.length === 0 ? [] : [`${does} ${names.length === 1 ? names[0]! : counted(names.length, thing)}`],
  );
  return listed(said);
}
