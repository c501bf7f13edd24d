import { foldCell, type CellFault } from '#core/cell-tables';

/** Something that the cells of others name, such as the course of a section. */
export interface NamedThing {
  readonly id: number;
  /** What it is called, the usual name first; each may be another's too. */
  readonly names: readonly string[];
  /** What tells it from another one of the same name, such as a number or an address; empty where nothing does. */
  readonly apart: string;
  /** Of a person, the name as lists have it, with the one that they go by. */
  readonly listed?: string;
}

/** How things are called in cells, each by a text that is its alone. */
export interface NameBook {
  /** Empty for what the book does not have. */
  readonly textOf: (id: number) => string;
  /** The number of what a text names; "several" where it names more than one, undefined where it names none. */
  readonly read: (text: string) => number | 'several' | undefined;
  /** All texts, in the order of the things. */
  readonly texts: readonly string[];
  /** A text of the book for the eye, with the listed name as somebody likes it; any other text as it is. */
  readonly shown: (text: string, as: (listed: string) => string) => string;
}

/**
 * A book of names. Things of one name are told apart by what stands in brackets behind it.
 * @example nameBook([{ id: 7, names: ['Reed, Tamsin', 'Tamsin Reed'], apart: 'T7' }]).read('tamsin reed') // 7
 */
export function nameBook(things: readonly NamedThing[]): NameBook {
  const ids = new Map<string, number | 'several'>();
  const note = (text: string, id: number) => {
    const key = foldName(text);
    if (key !== '') ids.set(key, ids.has(key) && ids.get(key) !== id ? 'several' : id);
  };
  for (const { id, names, apart } of things) for (const name of [...names, apart]) note(name, id);
  const texts = new Map<number, string>();
  const persons = new Map<string, { readonly listed: string; readonly told: string }>();
  for (const { id, names, apart, listed } of things) {
    const [usual = ''] = names;
    const isAlone = (text: string) => text !== '' && ids.get(foldName(text)) === id;
    const told = `${usual} (${apart})`;
    const text = isAlone(usual) ? usual : isAlone(apart) && !ids.has(foldName(told)) ? told : `${usual} (no. ${id})`;
    texts.set(id, text);
    ids.set(foldName(text), id);
    if (listed !== undefined) persons.set(text, { listed, told: text.slice(usual.length) });
  }
  return {
    textOf: (id) => texts.get(id) ?? '',
    read: (text) => ids.get(foldName(text)),
    texts: [...texts.values()],
    shown: (text, as) => {
      const person = persons.get(text);
      return person ? as(person.listed) + person.told : text;
    },
  };
}

/** What is wrong with a text that is to name one thing of a book. @param unknown the fault where it names none */
export function faultOfName(book: NameBook, text: string, unknown: CellFault): CellFault | undefined {
  const named = book.read(text);
  return named === 'several' ? 'name-of-several' : named === undefined ? unknown : undefined;
}

/** Spreadsheets break the lines of a cell, and people put two spaces. */
function foldName(text: string): string {
  return foldCell(text).replaceAll(/\s+/g, ' ');
}
