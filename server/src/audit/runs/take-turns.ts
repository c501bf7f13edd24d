import { setImmediate } from 'node:timers/promises';

/**
 * Takes steps one after the other, others being answered in between.
 * @param between what is done between two steps; what it throws ends them
 */
export async function takeTurns(steps: Iterable<void>, between: () => void = () => undefined): Promise<void> {
  const turns = steps[Symbol.iterator]();
  while (!turns.next().done) {
    await setImmediate();
    between();
  }
}
