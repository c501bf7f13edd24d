import { describe, expect, it } from 'vitest';
import { Pace } from './pace.js';

/** The sizes of the parts where a section takes so long to read, each time as long as said at its place, then as the last one. */
async function sizes(sections: number, ...millisecondsEach: number[]): Promise<number[]> {
  let now = 0;
  const pace = new Pace(() => now);
  const ids = Array.from({ length: sections }, (_each, at) => at);
  const dealt: number[][] = [];
  for (const part of pace.deal(ids)) {
    const each = millisecondsEach[dealt.length] ?? millisecondsEach.at(-1)!;
    await pace.timed(part, async () => (now += part.length * each));
    dealt.push([...part]);
  }
  expect(dealt.flat()).toEqual(ids);
  return dealt.map(({ length }) => length);
}

describe('sections are dealt out', () => {
  it.each([
    ['four at a time at least, however long each takes', [30], [4, 4, 4, 1]],
    ['as many as fit', [4], [4, 6, 6, 3]],
    ['twice as many at most, and no more than sixteen', [0], [4, 8, 16, 16, 3]],
    ['fewer after a slow part, and then again more', [2, 2, 20, 2], [4, 8, 12, 4, 8, 12]],
  ])('%s', async (_what, milliseconds, expected) => {
    const count = expected.reduce((sum, each) => sum + each, 0);
    expect(await sizes(count, ...milliseconds)).toEqual(expected);
  });

  it('none of none', async () => expect(await sizes(0, 1)).toEqual([]));
});

it('a reading that fails says so, and the pace stays', async () => {
  const pace = new Pace();
  const failing = async () => Promise.reject(new Error('no such section'));
  await expect(pace.timed([1], failing)).rejects.toThrow('no such section');
  expect([...pace.deal([1, 2, 3, 4, 5])]).toEqual([[1, 2, 3, 4], [5]]);
});
