import type { GradeFact, SectionFact, SheetFact, Snapshot } from './snapshot.js';

/** A sheet with its section and the grades of those who are still in it. */
export interface SheetOfSection extends SheetFact {
  readonly section: SectionFact;
  readonly grades: readonly GradeFact[];
}

const known = new WeakMap<Snapshot, readonly SheetOfSection[]>();

/** The sheets of a snapshot with their grades; put together once, however many rules ask. */
export function sheetsOf(snapshot: Snapshot): readonly SheetOfSection[] {
  const kept = known.get(snapshot) ?? putTogether(snapshot);
  known.set(snapshot, kept);
  return kept;
}

function putTogether({ sections, grades }: Snapshot): SheetOfSection[] {
  const bySheet = new Map<string, GradeFact[]>();
  for (const grade of grades) {
    if (grade.withdrawnOn !== null) continue;
    const key = `${grade.sectionId}/${grade.item.id}`;
    const own = bySheet.get(key);
    if (own) own.push(grade);
    else bySheet.set(key, [grade]);
  }
  return sections.flatMap((section) =>
    section.sheets.map((sheet) => ({
      ...sheet,
      section,
      grades: bySheet.get(`${section.id}/${sheet.item.id}`) ?? [],
    })),
  );
}
