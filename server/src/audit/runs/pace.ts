import { performance } from 'node:perf_hooks';

/** How long the reading of a part should take, in milliseconds: whoever else asks the embedded database waits as long. */
const aim = 25;
/** Sections that are read at once: of fewer, asking takes longer than reading; and all of a part is in memory. */
const [fewest, most] = [4, 16];

/** Deals out sections, at a time as many as are read in the time that others may well wait. */
export class Pace {
  private count = fewest;

  /** @param now milliseconds that only grow */
  constructor(private readonly now: () => number = () => performance.now()) {}

  /** Each id once and in order, as many at a time as the last reading before suggests. */
  *deal(ids: readonly number[]): Generator<readonly number[], void> {
    for (let at = 0; at < ids.length;) {
      const part = ids.slice(at, at + this.count);
      yield part;
      at += part.length;
    }
  }

  /** Reads a part that was dealt out; the next ones are smaller if it took long, and grow to twice as many at most. */
  async timed<Read>(part: readonly number[], read: () => Promise<Read>): Promise<Read> {
    const begun = this.now();
    const found = await read();
    const fits = Math.floor((part.length * aim) / Math.max(this.now() - begun, 1));
    this.count = Math.max(fewest, Math.min(fits, 2 * this.count, most));
    return found;
  }
}
