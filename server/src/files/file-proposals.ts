import {
  foldKey,
  proposeGradeColumns,
  proposeIdColumn,
  proposeSectionColumn,
  tellsSectionsApart,
  type ColumnProposal,
  type FileChoice,
  type FileProposals,
  type NamedPeriods,
} from '#core/files';
import type { Queries } from '#server/platform';
import type { ReportedItem } from '#server/period-view';
import type { FileDirectoryService } from './file-directory.service.js';
import type { EarlierReading } from './file-imports.repository.js';

/** In percent: a choice that somebody accepted says more than any likeness. */
const confidenceInEarlier = 99;

/**
 * What the columns of a file mean, most likely, by its first rows; and by how such a file was read before. Not inside a
 * transaction.
 */
export async function proposeColumns(
  queries: Queries,
  directories: FileDirectoryService,
  students: ReadonlyMap<string, number>,
  header: readonly string[],
  rows: readonly (readonly string[])[],
  items: readonly ReportedItem[],
  periods: NamedPeriods,
  earlier: EarlierReading | undefined,
): Promise<FileProposals> {
  const filled = rows.filter((row) => row.some((cell) => cell.trim() !== ''));
  const names = await directories.sectionNames(queries, items, earlier?.namedSections ?? {});
  const asBefore = (column: number): ColumnProposal => ({
    column,
    confidence: confidenceInEarlier,
    reason: { code: 'earlier', fileName: earlier!.fileName },
  });
  const itemIds = new Set(items.map(({ item }) => item.id));
  const kept = earlier?.grades.filter(({ itemId }) => itemIds.has(itemId)) ?? [];
  const id =
    earlier?.idColumn != null
      ? asBefore(earlier.idColumn)
      : (proposeIdColumn(header, filled, (key) => students.has(key)) ?? null);
  const sectionColumn =
    earlier?.sectionColumn != null
      ? asBefore(earlier.sectionColumn)
      : earlier
        ? null
        : (proposeSectionColumn(header, filled, names) ?? null);
  const { grades, doubts } =
    kept.length > 0
      ? { grades: kept.map(({ column, itemId }) => ({ itemId, proposal: asBefore(column) })), doubts: [] }
      : proposeGradeColumns(
          header,
          filled,
          [id?.column, sectionColumn?.column],
          items.map(({ item, scales }) => ({ ...item, highestLevel: highestLevelOf(scales) })),
          periods,
        );
  const known = id ? filled.flatMap((row) => students.get(foldKey(row[id.column] ?? '')) ?? []) : [];
  const isForSeveral = sectionColumn !== null || tellsSectionsApart(header, filled);
  const section = isForSeveral ? null : await likeliestSection(queries, directories, known, filled.length, items);
  return { id, sectionColumn, section, grades, doubts };
}

export function choiceOf({ id, sectionColumn, section, grades }: FileProposals): FileChoice {
  return {
    idColumn: id?.column ?? null,
    sectionColumn: sectionColumn?.column ?? null,
    sectionId: section?.sectionId ?? null,
    grades: grades.map(({ itemId, proposal }) => ({ itemId, column: proposal.column })),
  };
}

/** Null where any of the scales takes percentages. */
function highestLevelOf(scales: ReportedItem['scales']): number | null {
  const levels = [...scales.values()].map(({ version }) => version.highestLevel);
  const numbers = levels.flatMap((level) => (level ? [Number(level.units) / 10 ** level.digits] : []));
  return numbers.length > 0 && numbers.length === levels.length ? Math.max(...numbers) : null;
}

/** The section that most of the file's people are in. Undecided between two, none is proposed. */
async function likeliestSection(
  queries: Queries,
  directories: FileDirectoryService,
  studentIds: readonly number[],
  rows: number,
  items: readonly ReportedItem[],
): Promise<FileProposals['section']> {
  const sectionIds = new Set(items.flatMap(({ sections }) => sections.map(({ id }) => id)));
  const [best, second] = await directories.membership(queries, [...new Set(studentIds)], [...sectionIds]);
  if (!best || best.known === second?.known) return null;
  return { ...best, confidence: Math.floor((100 * best.known) / rows) };
}
