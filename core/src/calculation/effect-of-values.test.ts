import { describe, expect, it } from 'vitest';
import { letterBands } from '../../test/letter-scale.fixture.js';
import { effectOfValues } from './index.js';

const band = (label: string) => letterBands.find((each) => each.label === label);

describe('what a change does to computed values', () => {
  it('counts who rises and falls, who changes the label, and who passes or fails anew', () => {
    const { effect, changed } = effectOfValues([
      { was: 895, will: 900, old: band('B+'), next: band('A-') },
      { was: 900, will: 890, old: band('A-'), next: band('B+') },
      { was: 600, will: 590, old: band('D'), next: band('F') },
      { was: 590, will: 600, old: band('F'), next: band('D') },
      { was: 850, will: 850, old: band('B'), next: band('B') },
    ]);
    expect({ ...effect, moves: effect.moves.length }).toEqual({
      grades: 5,
      changed: 4,
      rise: 2,
      fall: 2,
      moved: 4,
      passAnew: 1,
      failAnew: 1,
      moves: 5,
    });
    expect(changed.map(({ student, from, to }) => `${student} ${from} ${to}`)).toEqual([
      '0 B+ A-',
      '1 A- B+',
      '2 D F',
      '3 F D',
    ]);
  });

  it('counts a value that stays and is labelled otherwise, one that comes and one that goes; nobody else', () => {
    const { effect, changed } = effectOfValues([
      { was: 895, will: 895, old: band('B+'), next: band('A-') },
      { was: -1, will: 895, old: undefined, next: band('B+') },
      { was: 895, will: -1, old: band('B+'), next: undefined },
      { was: -1, will: -1, old: undefined, next: undefined },
      undefined,
    ]);
    expect([effect.grades, effect.changed, effect.rise, effect.fall, effect.moved]).toEqual([3, 3, 1, 1, 3]);
    expect([effect.passAnew, effect.failAnew]).toEqual([0, 0]);
    expect(changed.map(({ student }) => student)).toEqual([0, 1, 2]);
  });
});
