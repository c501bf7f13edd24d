import { describe, expect, it } from 'vitest';
import { timeLeft } from './use-time-left';

describe('timeLeft', () => {
  it.each([
    [1, 10, 100, null],
    [10, 0, 100, null],
    [10, 20, 100, 'about 50 s'],
    [10, 100, 1, 'about 1 s'],
    [60, 10, 100, 'about 10 min'],
  ])('after %i s with %i done and %i to do is %s', (seconds, done, remaining, words) => {
    expect(timeLeft(seconds, done, remaining)).toBe(words);
  });
});
