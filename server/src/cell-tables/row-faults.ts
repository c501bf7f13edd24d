import { faultsOfRow, foldCell, type Cells, type CellTable } from '#core/cell-tables';
import { cellFaultSentences, type RowChange } from '#contract/cell-tables';
import { Refusal, type FieldFault } from '#server/platform';

/**
 * What is wrong with rows that are to be saved: cells that cannot be taken, and what no two may share.
 * @param taken what other rows than the changed ones have in the column that no two may share
 * @param sharing what would be right there
 */
export function rowFaults<Field extends string>(
  table: CellTable<Field>,
  changes: readonly RowChange<Field>[],
  taken: readonly string[],
  sharing: string,
): FieldFault[] {
  const { unique } = table;
  const known = new Set(taken.map(foldCell));
  return changes.flatMap(({ cells }, index) => {
    const faults = faultsOfRow(table, cells).map(({ field, fault }): FieldFault => ({
      field: `changes.${index}.cells.${field}`,
      detail: cellFaultSentences[fault],
    }));
    const own = foldCell(unique.keyOf(cells));
    if (own !== '' && known.has(own)) faults.push({ field: `changes.${index}.cells.${unique.field}`, detail: sharing });
    known.add(own);
    return faults;
  });
}

/** @throws Refusal not-found where a change or a removal speaks of what is not there */
export function refuseUnknownRows<Field extends string>(
  what: string,
  own: readonly { readonly id: number; readonly cells?: Cells<Field> }[],
  changes: readonly RowChange<Field>[],
  removed: readonly number[],
): void {
  const known = new Set(own.map(({ id }) => id));
  const unknown = [...removed, ...changes.flatMap(({ id }) => id ?? [])].find((id) => !known.has(id));
  if (unknown !== undefined) throw new Refusal('not-found', { what, id: unknown });
}
