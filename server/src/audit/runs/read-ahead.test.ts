import { expect, it } from 'vitest';
import { readAhead } from './read-ahead.js';

it('reads each part once and in order, the next one while somebody looks at the one before, and no further', async () => {
  const told: string[] = [];
  const read = async (part: string) => {
    told.push(`read ${part}`);
    return part.toUpperCase();
  };
  for await (const each of readAhead(['a', 'b', 'c'], read)) told.push(`look at ${each}`);
  expect(told).toEqual(['read a', 'read b', 'look at A', 'read c', 'look at B', 'look at C']);
});

it('reads nothing of nothing', async () => {
  const seen: number[] = [];
  for await (const each of readAhead([], async (part: number) => part)) seen.push(each);
  expect(seen).toEqual([]);
});

it('tells what went wrong with a part when its turn comes, and not at all where nobody gets so far', async () => {
  const read = async (part: number) => {
    if (part === 2) throw new Error('no such part');
    return part;
  };
  const seen: number[] = [];
  const look = async (until: number) => {
    for await (const each of readAhead([1, 2, 3], read)) {
      seen.push(each);
      if (each === until) return;
    }
  };
  await look(1);
  await expect(look(3)).rejects.toThrow('no such part');
  expect(seen).toEqual([1, 1]);
});
