import {
  cellFault,
  courseFields,
  courseHeadings,
  tidyCell,
  type CellFault,
  type CourseCells,
  type CourseField,
} from './course-cells.js';

export type CourseRowOutcome = 'new' | 'changed' | 'same' | 'faulty' | 'twice';

/** What taking in one row of a file would do. */
export interface CourseRowPlan {
  /** In the file, counted from 1. */
  readonly row: number;
  readonly outcome: CourseRowOutcome;
  readonly cells: CourseCells;
  /** The number of the course it changes; null for a new one. */
  readonly courseId: number | null;
  readonly changed: readonly CourseField[];
  readonly faults: readonly { readonly field: CourseField; readonly fault: CellFault }[];
}

export interface CourseImportPlan {
  readonly headerRow: number;
  /** The column of each field that the file has. */
  readonly columns: Readonly<Partial<Record<CourseField, number>>>;
  readonly rows: readonly CourseRowPlan[];
}

const emptyCells = Object.fromEntries(courseFields.map((field) => [field, ''])) as CourseCells;

/**
 * Plans the import of courses from a table: the first row that names a code column is the heading; a row changes the
 * course of its code or makes a new one. A column that the file lacks leaves that fact as it is. Undefined where no row
 * names a code.
 */
export function planCourseImport(
  table: readonly (readonly string[])[],
  existing: readonly { readonly id: number; readonly cells: CourseCells }[],
): CourseImportPlan | undefined {
  const headerAt = table.findIndex((cells) => fieldAt(cells, 'code') !== -1);
  if (headerAt === -1) return undefined;
  const header = table[headerAt]!;
  const columns = Object.fromEntries(
    courseFields.map((field) => [field, fieldAt(header, field)] as const).filter(([, column]) => column !== -1),
  );
  const byCode = new Map(existing.map((course) => [fold(course.cells.code), course]));
  const seen = new Set<string>();
  const rows = table.slice(headerAt + 1).flatMap((cells, index): CourseRowPlan[] => {
    if (cells.every((cell) => cell.trim() === '')) return [];
    const code = fold(cells[columns['code']!] ?? '');
    const plan = planRow(headerAt + 2 + index, cells, columns, byCode.get(code));
    const isTwice = code !== '' && seen.has(code);
    seen.add(code);
    return [isTwice ? { ...plan, outcome: 'twice' } : plan];
  });
  return { headerRow: headerAt + 1, columns, rows };
}

function planRow(
  row: number,
  cells: readonly string[],
  columns: CourseImportPlan['columns'],
  course: { readonly id: number; readonly cells: CourseCells } | undefined,
): CourseRowPlan {
  const before = course?.cells ?? emptyCells;
  const read = Object.fromEntries(
    courseFields.map((field) => {
      const column = columns[field];
      return [field, column === undefined ? before[field] : tidyCell(field, cells[column] ?? '')];
    }),
  ) as CourseCells;
  const faults = courseFields.flatMap((field) => {
    const fault = cellFault(field, read[field]);
    return fault ? [{ field, fault }] : [];
  });
  const changed = courseFields.filter((field) => read[field] !== before[field]);
  const outcome = faults.length > 0 ? 'faulty' : !course ? 'new' : changed.length > 0 ? 'changed' : 'same';
  return { row, outcome, cells: read, courseId: course?.id ?? null, changed, faults };
}

function fieldAt(header: readonly string[], field: CourseField): number {
  const wanted = new Set([fold(courseHeadings[field]), fold(field), ...(otherHeadings[field] ?? []).map(fold)]);
  return header.findIndex((cell) => wanted.has(fold(cell)));
}

/** What else such columns are called. */
const otherHeadings: Readonly<Partial<Record<CourseField, readonly string[]>>> = {
  code: ['Course code', 'Course number', 'Course'],
  title: ['Course title', 'Name', 'Course name'],
  department: ['Subject', 'Dept'],
  kind: ['Course kind', 'Type'],
  credits: ['Credit', 'Credit value'],
  mostCredits: ['Most credits', 'Most credits when repeated'],
  onTranscript: ['Transcript'],
  countsInGpa: ['GPA', 'Counts in GPA'],
};

function fold(text: string): string {
  return text
    .trim()
    .toLowerCase()
    .replace(/[\s_-]+/g, ' ');
}
