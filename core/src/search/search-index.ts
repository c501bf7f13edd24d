import { foldCode, foldWords } from './fold-words.js';
import { lettersApart } from './letters-apart.js';

/** Something that can be found. */
export interface Entry {
  /** What people call it: "Reed, Tamsin". Forgiven a misspelling. */
  readonly names: readonly string[];
  /** Numbers, addresses and ids: found by how they begin. */
  readonly codes: readonly string[];
}

/** Words, each once and in their order, with the positions of the entries that bear them: plain, to be handed to another thread. */
export interface WordList {
  readonly words: readonly string[];
  /** Where the bearers of each word begin among `bearers`; one more at the end. */
  readonly starts: Int32Array;
  readonly bearers: Int32Array;
}

/** All words of many entries. */
export interface SearchIndex {
  readonly names: WordList;
  readonly codes: WordList;
}

/** An entry that was found. */
export interface Hit {
  /** Its position among the entries. */
  readonly at: number;
  /** How far it is from what was typed; 0 where every word is one of its own. */
  readonly distance: number;
}

const mostWords = 6;
/** What a beginning counts, and a letter of misspelling. */
const [beginning, perLetter] = [1, 4];

/** Words of names by their length: as many letters of each may be wrong. */
const forgiven = (word: string) => (word.length >= 8 ? 2 : word.length >= 4 ? 1 : 0);

export function indexOf(entries: readonly Entry[]): SearchIndex {
  return {
    names: listOf(entries.map(({ names }) => names.flatMap(foldWords))),
    codes: listOf(entries.map(({ codes }) => codes.map(foldCode).filter(Boolean))),
  };
}

function listOf(wordsOfEntries: readonly (readonly string[])[]): WordList {
  const bearersOf = new Map<string, number[]>();
  wordsOfEntries.forEach((words, at) => {
    for (const word of new Set(words)) {
      const own = bearersOf.get(word);
      if (own) own.push(at);
      else bearersOf.set(word, [at]);
    }
  });
  const words = [...bearersOf.keys()].toSorted();
  const starts = new Int32Array(words.length + 1);
  words.forEach((word, at) => (starts[at + 1] = starts[at]! + bearersOf.get(word)!.length));
  const bearers = new Int32Array(starts[words.length]!);
  words.forEach((word, at) => bearers.set(bearersOf.get(word)!, starts[at]));
  return { words, starts, bearers };
}

/**
 * The entries that every word of a text names, the nearest first, and among equals in their own order. None for a text
 * without a word.
 */
export function findIn(index: SearchIndex, text: string): Hit[] {
  const wanted = wantedIn(text);
  if (wanted.length === 0) return [];
  let found: Map<number, number> | undefined;
  for (const each of wanted) {
    const near = nearTo(index, each);
    const kept = new Map<number, number>();
    for (const [at, distance] of near) {
      const before = found ? found.get(at) : 0;
      if (before !== undefined) kept.set(at, before + distance);
    }
    found = kept;
  }
  return [...found!]
    .map(([at, distance]) => ({ at, distance }))
    .toSorted((a, b) => a.distance - b.distance || a.at - b.at);
}

interface Wanted {
  /** As a code would be typed. */
  readonly code: string;
  /** As words of a name: "O'Neil-Reed" are two; an address has none. */
  readonly words: readonly string[];
}

function wantedIn(text: string): Wanted[] {
  return text
    .split(/[\s,;]+/)
    .map((part) => ({ code: foldCode(part), words: part.includes('@') ? [] : foldWords(part) }))
    .filter(({ code }) => code !== '')
    .slice(0, mostWords);
}

/** Every entry that a part of what was typed may mean, with the least distance of it. */
function nearTo({ names, codes }: SearchIndex, { code, words }: Wanted): Map<number, number> {
  const near = new Map<number, number>();
  keepBeginning(near, codes, code);
  const [first, ...rest] = words.map((word) => nearWord(names, word));
  for (const [entry, distance] of first ?? []) {
    const others = rest.map((each) => each.get(entry));
    if (!others.includes(undefined))
      keepLeast(
        near,
        entry,
        others.reduce((sum: number, each) => sum + each!, distance),
      );
  }
  return near;
}

function nearWord(names: WordList, word: string): Map<number, number> {
  const near = new Map<number, number>();
  keepBeginning(near, names, word);
  const most = forgiven(word);
  if (most > 0)
    names.words.forEach((known, at) => {
      const apart = misspelled(word, known, most);
      if (apart !== undefined && apart > 0) keep(near, names, at, apart * perLetter);
    });
  return near;
}

/** Keeps who bears a word that begins so, a whole one as the nearest. */
function keepBeginning(near: Map<number, number>, list: WordList, start: string): void {
  const { words } = list;
  for (let at = firstFrom(words, start); at < words.length && words[at]!.startsWith(start); at += 1)
    keep(near, list, at, words[at] === start ? 0 : beginning);
}

function keep(near: Map<number, number>, { starts, bearers }: WordList, at: number, distance: number): void {
  for (let each = starts[at]!; each < starts[at + 1]!; each += 1) keepLeast(near, bearers[each]!, distance);
}

function keepLeast(near: Map<number, number>, entry: number, distance: number): void {
  const before = near.get(entry);
  if (before === undefined || distance < before) near.set(entry, distance);
}

/** Of a word that is still being typed only the beginning is compared. A misspelling seldom begins with another letter. */
function misspelled(word: string, known: string, most: number): number | undefined {
  if (word[0] !== known[0] && word[0] !== known[1] && word[1] !== known[0]) return undefined;
  const whole = lettersApart(word, known, most);
  if (whole !== undefined || known.length <= word.length + most) return whole;
  return lettersApart(word, known.slice(0, word.length), most);
}

/** The first of sorted texts that does not come before another. */
function firstFrom(sorted: readonly string[], text: string): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]! < text) low = middle + 1;
    else high = middle;
  }
  return low;
}
