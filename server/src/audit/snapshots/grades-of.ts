import { itemFactOf, type GradeFact } from '#core/audit';
import type { RowsByItem } from '#core/grade-rows';
import type { ScaleVersion } from '#server/period-view';
import { byId } from './by-id.js';
import { gradeFactOf, namesIn, noScale, scaleInWords, type GradedRow, type ScaleInWords } from './grade-fact-of.js';
import type { Ground } from './ground.js';

/** The grades of some sections: each as a row and, at the same place of the other list, as rules see it. */
export interface Grades {
  readonly graded: readonly GradedRow[];
  readonly grades: readonly GradeFact[];
}

/** Versions under which something is posted and which are not at hand: as a rule none, else of scales that the school does not have. */
export function missingVersions({ versions }: Ground, rowsOf: RowsByItem): number[] {
  const missing = new Set<number>();
  for (const rows of rowsOf.values())
    for (const { scaleVersionId: id } of rows) if (id !== null && !versions.has(id)) missing.add(id);
  return [...missing];
}

/** In the order of the items, and then of the rows. Rows of sections that do not report the item are left out. */
export function gradesOf(ground: Ground, rowsOf: RowsByItem): Grades {
  // Every item has a row of every student.
  const [seats = []] = rowsOf.values();
  const names = namesIn(seats);
  const codes = [...ground.codes.values()];
  const graded: GradedRow[] = [];
  const grades: GradeFact[] = [];
  for (const reporting of ground.reported) {
    const item = itemFactOf(reporting.item, reporting.window);
    const composites = ground.composites.get(reporting.item.id);
    const sections = byId(reporting.sections);
    const inWords = new Map<ScaleVersion, ScaleInWords>();
    const wordsOf = (version: ScaleVersion) => {
      const words = inWords.get(version) ?? scaleInWords(version, reporting.item, codes);
      inWords.set(version, words);
      return words;
    };
    for (const row of rowsOf.get(reporting.item.id) ?? []) {
      const section = sections.get(row.sectionId);
      if (!section) continue;
      const posted = ground.versions.get(row.scaleVersionId ?? 0);
      const scale = posted ?? reporting.scales.get(section.id)?.version ?? noScale;
      const own = { row, reporting, section, scale };
      graded.push(own);
      grades.push(
        gradeFactOf(own, {
          item,
          scale: wordsOf(scale),
          composite: composites?.get(row.enrollmentId) ?? null,
          attendance: ground.attendance.get(row.enrollmentId) ?? null,
          named: names.byEnrollment.get(row.enrollmentId)!,
          classmates: names.bySection.get(section.id)!,
        }),
      );
    }
  }
  return { graded, grades };
}
