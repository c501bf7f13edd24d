import type { FileReading } from './file-reading.js';
import { foldKey, placeOf, type Directory } from './roster.js';

/** Whom a row is about: their place on the roster, or why there is none. */
export type FoundPlace = number | 'unknown' | 'unknown section' | 'not in section';

export function findPlace(
  cells: readonly string[],
  { idColumn, section }: FileReading,
  directory: Directory,
): FoundPlace {
  const studentId = directory.students.get(foldKey(cells[idColumn] ?? ''));
  if (studentId === undefined) return 'unknown';
  const sectionId = 'id' in section ? section.id : directory.sections.get(foldKey(cells[section.column] ?? ''));
  if (sectionId === undefined) return 'unknown section';
  const place = placeOf(directory.roster, studentId, sectionId);
  return place === -1 ? 'not in section' : place;
}

/** The rows of a file by the place on the roster that they are about, kept in full only where there are several. */
export class RowsByPlace {
  private readonly first: Int32Array;
  private readonly several = new Map<number, number[]>();

  constructor(places: number) {
    this.first = new Int32Array(places);
  }

  /** @param row counted from 1 */
  note(place: number, row: number): void {
    const first = this.first[place]!;
    if (first === 0) this.first[place] = row;
    else if (this.several.has(place)) this.several.get(place)!.push(row);
    else this.several.set(place, [first, row]);
  }

  /** The other rows that are about the same student in the same section. */
  others(place: number, row: number): readonly number[] {
    return this.several.get(place)?.filter((each) => each !== row) ?? [];
  }

  /** Whether any row is about that place. */
  has(place: number): boolean {
    return this.first[place] !== 0;
  }
}
