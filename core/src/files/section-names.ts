import { foldKey } from './roster.js';

/** A section as a file may have to name it. */
export interface NamedSection {
  readonly id: number;
  readonly courseCode: string;
  readonly courseTitle: string;
  readonly number: number;
  /** Its id in another system, where one is known. */
  readonly sourcedId: string | null;
  /** What a roster calls it: the title and the code of its class. */
  readonly rosterNames: readonly string[];
}

/**
 * Sections by every way that files name them, folded: "Tidal Ecology 3", "TEC101 3", "TEC101-3", as rosters call them, by their ids elsewhere. A
 * name that fits two of them fits neither.
 */
export function sectionsByName(sections: readonly NamedSection[]): ReadonlyMap<string, number> {
  const byName = new Map<string, number>();
  const ambiguous = new Set<string>();
  for (const section of sections) {
    for (const name of new Set(namesOf(section).map(foldKey))) {
      if (byName.has(name)) ambiguous.add(name);
      byName.set(name, section.id);
    }
  }
  for (const name of ambiguous) byName.delete(name);
  return byName;
}

function namesOf({ courseCode, courseTitle, number, sourcedId, rosterNames }: NamedSection): string[] {
  const signs = [' ', '-', '.', '/', ''];
  return [
    `${courseTitle} ${number}`,
    ...(courseCode === '' ? [] : signs.map((sign) => `${courseCode}${sign}${number}`)),
    ...(sourcedId === null ? [] : [sourcedId]),
    ...rosterNames,
  ];
}
