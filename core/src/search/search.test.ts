import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findIn, foldWords, indexOf, lettersApart, type Entry } from './index.js';

const entries: Entry[] = [
  { names: ['Reed, Tamsin'], codes: ['S10028', 'tamsin.reed@port.example'] },
  { names: ['Reed, Tam'], codes: ['S10035'] },
  { names: ['Read, Tamsin'], codes: ['S1002'] },
  { names: ["O'Neil-Brandt, Zoë"], codes: ['K-4711'] },
  { names: ['Tidal Ecology 3'], codes: ['TE-301'] },
  { names: ['Featherstone, Bartholomew'], codes: ['S9'] },
];
const index = indexOf(entries);
const found = (text: string) => findIn(index, text).map(({ at }) => at);

describe('finding', () => {
  it.each([
    ['by family and given name', 'reed, tamsin', [0, 2]],
    ['the other way round', 'Tamsin Reed', [0, 2]],
    ['by either alone, a whole word before a beginning', 'tam', [1, 0, 2]],
    ['with two letters swapped', 'tasmin reed', [0, 2]],
    ['with a letter left out', 'tasin read', [2, 0]],
    ['with a letter too many', 'reeed', [0, 1]],
    ['without the accent and the apostrophe', 'zoe oneil', [3]],
    ['by half of a double name', 'brandt', [3]],
    ['by a number, to its end before by its beginning', 's1002', [2, 0]],
    ['by an address', 'tamsin.reed@port', [0]],
    ['by a number with its dash', 'k-4711', [3]],
    ['a section by words in any order', '3 ecol tidal', [4]],
    ['with two letters wrong in a long word', 'bartolomev', [5]],
    ['while it is being typed, misspelled', 'fetherst', [5]],
  ])('%s: %s', (_what, text, expected) => expect(found(text)).toEqual(expected));

  it.each([
    ['a word that nobody bears', 'reed quill'],
    ['nothing', '  , '],
    ['a short word one letter off', 'tim'],
    ['a code one letter off', 'k-4712'],
    ['a percent sign', '%'],
    ['a quotation mark', `' OR true --`],
  ])('nobody by %s', (_what, text) => expect(found(text)).toEqual([]));
});

/** By its definition, letter by letter: another way than the table. */
function apartByDefinition(one: string, other: string): number {
  if (one === '' || other === '') return one.length + other.length;
  const [a, b] = [one.slice(1), other.slice(1)];
  const same = one[0] === other[0] ? apartByDefinition(a, b) : Infinity;
  const swapped =
    one[0] === other[1] && one[1] === other[0] && one.length > 1 && other.length > 1
      ? 1 + apartByDefinition(one.slice(2), other.slice(2))
      : Infinity;
  return Math.min(
    same,
    swapped,
    1 + Math.min(apartByDefinition(a, other), apartByDefinition(one, b), apartByDefinition(a, b)),
  );
}

const word = fc.stringMatching(/^[abc]{0,5}$/);

describe('always', () => {
  it('letters are counted as the definition has them', () => {
    fc.assert(
      fc.property(word, word, fc.integer({ min: 0, max: 3 }), (one, other, most) => {
        const apart = apartByDefinition(one, other);
        expect(lettersApart(one, other, most)).toBe(apart <= most ? apart : undefined);
      }),
    );
  });

  it('what an entry is called finds it, and with nothing nearer before it', () => {
    const names = fc.array(fc.stringMatching(/^[a-e]{1,6}( [a-e]{1,6})?$/), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(names, fc.nat(), (all, pick) => {
        const own = pick % all.length;
        const hits = findIn(indexOf(all.map((name) => ({ names: [name], codes: [] }))), all[own]!);
        expect(hits.find(({ at }) => at === own)).toEqual({ at: own, distance: 0 });
      }),
    );
  });

  it('every word of a hit is named: begun, or forgiven', () => {
    const names = fc.array(fc.stringMatching(/^[a-c]{1,9}$/), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(names, fc.stringMatching(/^[a-c]{1,9}$/), (all, text) => {
        for (const { at } of findIn(indexOf(all.map((name) => ({ names: [name], codes: [] }))), text)) {
          const [name] = foldWords(all[at]!);
          const most = text.length >= 8 ? 2 : text.length >= 4 ? 1 : 0;
          const beginnings = [name!, name!.slice(0, text.length)];
          expect(name!.startsWith(text) || beginnings.some((each) => apartByDefinition(text, each) <= most)).toBe(true);
        }
      }),
    );
  });
});
