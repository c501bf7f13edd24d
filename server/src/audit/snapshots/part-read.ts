import type { Snapshot } from '#core/audit';
import { gradeRowsOf, type GradeFields } from '#core/grade-rows';
import { gradesOf, missingVersions } from './grades-of.js';
import { emptySnapshot, type Ground } from './ground.js';
import { sectionFactsOf, type SectionsRead } from './section-facts-of.js';

/** Some sections of a period as they were read, as plain data: a thread can make a snapshot of it. */
export interface PartRead {
  readonly ground: Ground;
  readonly grades: GradeFields;
  readonly sections: SectionsRead;
}

/** What rules see of a part; or, where something is posted under versions of scales that are not at hand, which. */
export function snapshotOf({ ground, grades, sections }: PartRead): Snapshot | { readonly missing: readonly number[] } {
  const { reported, period } = ground;
  const items = reported.map(({ item }) => item);
  const rowsOf = gradeRowsOf(items, period, grades);
  const missing = missingVersions(ground, rowsOf);
  if (missing.length > 0) return { missing };
  const { strays, sealed } = sections;
  return {
    ...emptySnapshot(ground),
    grades: gradesOf(ground, rowsOf).grades,
    sections: sectionFactsOf(sections, reported),
    strays,
    sealed,
  };
}
