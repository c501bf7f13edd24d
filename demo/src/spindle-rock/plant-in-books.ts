import type { District, SectionRow } from '../district.js';

/** Puts faults into grade books, and what looks like them. @returns the sections whose books come to something else now */
export function plantInBooks({ assignments, scores }: District, named: (name: string) => SectionRow): SectionRow[] {
  const of = (name: string, category?: string) =>
    assignments.filter(
      (each) => each.sectionId === named(name).id && (category === undefined || each.name.startsWith(category)),
    );
  const countOnly = (name: string, category: string, most: number) =>
    of(name, category).forEach((assignment, at) => {
      assignment.isCounted = at < most;
    });
  // One test is seven tenths of the grade; in Harbour Talk the only one is half of it.
  countOnly('Charts of the Rock 1', 'Tests', 1);
  countOnly('Harbour Talk 1', 'Tests', 1);
  // Field notes weigh nothing in both; here nobody means them to count.
  countOnly('Cloud Names 1', 'Field notes', 0);
  const [counted] = of('Gull Counting 1');
  const typed = scores.find(({ assignmentId, points }) => assignmentId === counted!.id && points !== null)!;
  typed.points = String(Number(counted!.possible) * 3);
  const [extra] = of('Knife and Grain 1');
  const beyond = scores.find(({ assignmentId, points }) => assignmentId === extra!.id && points !== null)!;
  beyond.points = String(Number(extra!.possible) + 1);
  return ['Charts of the Rock 1', 'Harbour Talk 1', 'Cloud Names 1', 'Gull Counting 1', 'Knife and Grain 1'].map(named);
}
