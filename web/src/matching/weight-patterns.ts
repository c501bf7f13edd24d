import type { WeightState } from '#core/matching';
import type { ClassWeightsReply } from '#contract/matching';

/** Classes that a platform weighs alike and that we weigh alike: what is decided for one holds for all. */
export interface WeightPattern {
  readonly key: string;
  readonly state: WeightState;
  readonly rows: ClassWeightsReply['rows'];
  readonly theirSum: string;
  readonly from: string;
  readonly classes: readonly ClassWeightsReply[];
}

const order: readonly WeightState[] = ['differ', 'open', 'unweighed', 'same'];

/** What differs comes first, and of it what concerns most classes. */
export function weightPatterns(classes: readonly ClassWeightsReply[]): WeightPattern[] {
  const patterns = new Map<string, ClassWeightsReply[]>();
  for (const each of classes) {
    const weights = each.rows
      .map(({ categoryId, theirs, ours, groups }) => `${categoryId}:${theirs}:${ours}:${groups}`)
      .toSorted();
    const key = [each.state, each.from, ...weights].join('|');
    patterns.set(key, [...(patterns.get(key) ?? []), each]);
  }
  return [...patterns]
    .map(([key, own]) => ({ ...own[0]!, key, classes: own }))
    .toSorted((a, b) => order.indexOf(a.state) - order.indexOf(b.state) || b.classes.length - a.classes.length);
}
