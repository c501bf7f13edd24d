/** What the columns of a file mean. Columns are counted from the left, 0 for the first. */
export interface FileReading {
  readonly idColumn: number;
  /** The one section that the file is for, or the column that names the section of each row. */
  readonly section: { readonly id: number } | { readonly column: number };
  readonly grades: readonly GradeColumn[];
}

/** A column of percents, and the report item that they are for. */
export interface GradeColumn {
  readonly column: number;
  readonly itemId: number;
}

/** As it is chosen piece by piece, until all of it is. */
export interface FileChoice {
  readonly idColumn: number | null;
  readonly sectionId: number | null;
  readonly sectionColumn: number | null;
  readonly grades: readonly GradeColumn[];
}

/** Null while something is still to choose. A column that names the section goes before a section. */
export function readingOf({ idColumn, sectionId, sectionColumn, grades }: FileChoice): FileReading | null {
  const section =
    sectionColumn !== null ? { column: sectionColumn } : sectionId !== null ? { id: sectionId } : undefined;
  return idColumn === null || !section || grades.length === 0 ? null : { idColumn, section, grades };
}

export interface ChoiceFault {
  readonly field: 'idColumn' | 'sectionColumn' | 'grades';
  readonly detail: string;
}

/** What is wrong with a choice for a file of so many columns: one that is not there, or means two things. */
export function checkChoice(
  { idColumn, sectionColumn, grades }: FileChoice,
  columns: number,
  itemIds: ReadonlySet<number>,
): ChoiceFault[] {
  const faults: ChoiceFault[] = [];
  const taken = new Set<number>();
  const take = (field: ChoiceFault['field'], column: number | null, other: string) => {
    if (column === null) return;
    if (column < 0 || column >= columns) faults.push({ field, detail: `a column from 0 to ${columns - 1}` });
    else if (taken.has(column)) faults.push({ field, detail: `another column than ${other}` });
    taken.add(column);
  };
  take('idColumn', idColumn, '');
  take('sectionColumn', sectionColumn, 'the one with the ids');
  for (const { column } of grades) take('grades', column, 'those that mean something else already');
  if (grades.some(({ itemId }) => !itemIds.has(itemId)))
    faults.push({ field: 'grades', detail: 'a report item of the period' });
  if (new Set(grades.map(({ itemId }) => itemId)).size < grades.length)
    faults.push({ field: 'grades', detail: 'one column for each report item' });
  return faults;
}
