import type { SpecialCode } from '#core/codes';
import { entryOfMark, type TranscriptEntry } from '#core/transcripts';
import type { GradedRow } from '#server/audit';

/** A line that a seal writes, and whose grade it is. */
export interface StudentEntry {
  readonly studentId: number;
  readonly enrollmentId: number;
  readonly itemId: number;
  readonly entry: TranscriptEntry;
}

/** The transcript entries of a period's posted grades. */
export function studentEntries(graded: readonly GradedRow[], codes: ReadonlyMap<string, SpecialCode>): StudentEntry[] {
  return graded.flatMap(({ row, section, reporting, scale }) => {
    if (!reporting.item.onTranscript) return [];
    const entry = entryOfMark(section.course, row.mark, scale.bands, codes, section.credits, row.enrollmentId);
    if (!entry) return [];
    const { id: itemId, countsInGpa } = reporting.item;
    const own = { ...entry, countsInGpa: entry.countsInGpa && countsInGpa };
    return [{ studentId: row.studentId, enrollmentId: row.enrollmentId, itemId, entry: own }];
  });
}
