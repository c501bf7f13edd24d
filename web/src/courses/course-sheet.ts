import {
  cellFault,
  courseFields,
  tidyCell,
  type CourseCells,
  type CourseField,
  type InheritableFact,
} from '#core/courses';
import {
  cellFaultSentences,
  type CourseImportReply,
  type CourseReply,
  type CoursesReply,
  type SaveCoursesRequest,
} from '#contract/courses';
import type { CourseChanges } from './course-drafts';

/** A row of the spreadsheet: a saved course as it is drafted, or a new one. */
export interface CourseRow {
  readonly key: string;
  /** Undefined for a new course. */
  readonly reply: CourseReply | undefined;
  readonly cells: CourseCells;
  readonly changed: ReadonlySet<CourseField>;
  readonly faults: Readonly<Partial<Record<CourseField, string>>>;
}

const emptyCells = Object.fromEntries(courseFields.map((field) => [field, ''])) as CourseCells;

/** The rows of a school: saved courses without those taken out, then the new ones. */
export function courseRows({ courses }: CoursesReply, changes: CourseChanges): CourseRow[] {
  const saved = courses
    .filter(({ id }) => !changes.removed.includes(id))
    .map((reply) => ({ key: String(reply.id), reply, cells: changes.cells[reply.id] ?? reply.cells }));
  const added = Object.entries(changes.cells)
    .filter(([key]) => key.startsWith('new'))
    .map(([key, cells]) => ({ key, reply: undefined, cells }));
  const all = [...saved, ...added];
  const codes = new Map<string, number>();
  for (const { cells } of all) codes.set(fold(cells.code), (codes.get(fold(cells.code)) ?? 0) + 1);
  return all.map((row) => {
    const before = row.reply?.cells ?? emptyCells;
    const faults: Partial<Record<CourseField, string>> = {};
    for (const field of courseFields) {
      const fault = cellFault(field, row.cells[field]);
      if (fault) faults[field] = cellFaultSentences[fault];
    }
    if (!faults.code && (codes.get(fold(row.cells.code)) ?? 0) > 1) faults.code = 'another course has this code too';
    return { ...row, changed: new Set(courseFields.filter((field) => row.cells[field] !== before[field])), faults };
  });
}

/** What stands behind a fact: why it cannot be taken, or who says what is inherited; undefined for one of its own. */
export function reasonOf(row: CourseRow, field: CourseField): string | undefined {
  const inherited = row.cells[field] === '' ? row.reply?.inherited[field as InheritableFact] : undefined;
  const source =
    inherited &&
    { department: 'the department says so', school: 'the school says so', course: '', nowhere: 'no default is set' }[
      inherited.from
    ];
  return row.faults[field] ?? source;
}

export type CellEdit = readonly [row: CourseRow, field: CourseField, text: string];

/** The changes with some cells set. A row that is again as it was saved is no change any more. */
export function withEdits(changes: CourseChanges, edits: readonly CellEdit[]): CourseChanges {
  const cells: Record<string, CourseCells> = { ...changes.cells };
  const revisions: Record<string, string> = { ...changes.revisions };
  for (const [row, field, text] of edits) {
    const next = { ...(cells[row.key] ?? row.cells), [field]: tidyCell(field, text) };
    const isSaved = row.reply !== undefined && courseFields.every((each) => next[each] === row.reply!.cells[each]);
    if (isSaved) {
      delete cells[row.key];
      delete revisions[row.key];
    } else {
      cells[row.key] = next;
      if (row.reply) revisions[row.key] ??= row.reply.revision;
    }
  }
  return { ...changes, cells, revisions };
}

/** A new course, in the department of the row it comes after. */
export function withNewRow(changes: CourseChanges, beside: CourseRow | undefined): CourseChanges {
  const numbers = Object.keys(changes.cells).map((key) => Number(key.replace('new ', '')) || 0);
  const key = `new ${Math.max(0, ...numbers.filter((number) => changes.cells[`new ${number}`])) + 1}`;
  const { department = '', kind = '', level = 'regular', length = 'year' } = beside?.cells ?? {};
  return { ...changes, cells: { ...changes.cells, [key]: { ...emptyCells, department, kind, level, length } } };
}

export function withoutRows(changes: CourseChanges, rows: readonly CourseRow[]): CourseChanges {
  const keys = new Set(rows.map(({ key }) => key));
  const kept = <Value>(record: Readonly<Record<string, Value>>) =>
    Object.fromEntries(Object.entries(record).filter(([key]) => !keys.has(key)));
  const removed = rows.flatMap(({ reply }) => reply?.id ?? []);
  return { cells: kept(changes.cells), revisions: kept(changes.revisions), removed: [...changes.removed, ...removed] };
}

export function requestOf(changes: CourseChanges): SaveCoursesRequest {
  return {
    changes: Object.entries(changes.cells).map(([key, cells]) => ({
      id: key.startsWith('new') ? null : Number(key),
      revision: changes.revisions[key] ?? '',
      cells,
    })),
    removed: [...changes.removed],
  };
}

function fold(code: string): string {
  return code.trim().toLowerCase();
}

/** What a file would bring, as changes that are not saved yet; what is the same or refused is not touched. */
export function withPlan(changes: CourseChanges, plan: CourseImportReply, rows: readonly CourseRow[]): CourseChanges {
  return plan.rows
    .filter(({ outcome }) => outcome === 'new' || outcome === 'changed')
    .reduce((next: CourseChanges, { courseId, cells }) => {
      const row = courseId === null ? undefined : rows.find(({ key }) => key === String(courseId));
      if (row?.reply)
        return {
          ...next,
          cells: { ...next.cells, [row.key]: cells },
          revisions: { ...next.revisions, [row.key]: row.reply.revision },
        };
      const withRow = withNewRow(next, undefined);
      const added = Object.keys(withRow.cells).find((key) => !(key in next.cells))!;
      return { ...withRow, cells: { ...withRow.cells, [added]: cells } };
    }, changes);
}
