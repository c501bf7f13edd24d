import { readCopyLines } from '#core/formats';
import { indexOf, type SearchIndex } from '#core/search';

/** What stands behind the entries of an index, position by position. */
export interface FoundPlaces {
  /** `searchKinds` by number. */
  readonly kinds: Uint8Array;
  readonly ids: Int32Array;
  /** 0 for what belongs to no school. */
  readonly schools: Int32Array;
  /** Who teach a section; none for what nobody teaches. */
  readonly teachers: readonly (readonly number[])[];
}

export interface BuiltIndex {
  readonly index: SearchIndex;
  readonly places: FoundPlaces;
}

/** Between the names, and between the codes, of one line. */
export const separator = '\u001f';

/** Runs in a thread: the words of a hundred thousand people take longer to sort than a request may wait. */
export default function buildIndex({ text }: { readonly text: Uint8Array }): BuiltIndex {
  const lines = readCopyLines(new TextDecoder().decode(text));
  const whole = (column: number) => Int32Array.from(lines, (line) => Number(line[column]));
  const split = (part: string | null | undefined) => (part ? part.split(separator) : []);
  return {
    index: indexOf(lines.map(([, , , , names, codes]) => ({ names: split(names), codes: split(codes) }))),
    places: {
      kinds: Uint8Array.from(whole(0)),
      ids: whole(1),
      schools: whole(2),
      teachers: lines.map((line) => split(line[3]).map(Number)),
    },
  };
}
