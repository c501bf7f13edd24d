import { counted, type CountedThing } from './counted.js';
import { listed } from './listed.js';

/** What rests on a thing: how many of each kind, and single things in words. */
export interface Uses {
  readonly counts: Partial<Readonly<Record<CountedThing, number>>>;
  /** Such as "the composite Semester grade". */
  readonly named?: readonly string[];
}

/**
 * What rests on a thing, in words; empty where nothing does.
 *
 * @example usesInWords({ counts: { section: 2, file: 0, run: 1 }, named: ['the item Exam'] }) // '2 sections, 1 run and the item Exam'
 */
export function usesInWords({ counts, named = [] }: Uses): string {
  const words = (Object.entries(counts) as [CountedThing, number][])
    .filter(([, count]) => count > 0)
    .map(([thing, count]) => counted(count, thing));
  return listed([...words, ...named]);
}
