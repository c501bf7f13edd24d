import { compareDecimals, sumOfDecimals, type Decimal } from '#core/numbers';

/** A group of a platform's class: the category of ours that it feeds, and its weight there, in percent. */
export interface GroupWeight {
  /** Null where nobody joined it, or it is ignored. */
  readonly categoryId: number | null;
  /** Null where the platform weighs nothing. */
  readonly weight: Decimal | null;
  readonly isIgnored: boolean;
}

export interface WeightRow {
  readonly categoryId: number;
  /** Sum of the weights of all groups that feed the category; null where none that is weighed does. */
  readonly theirs: Decimal | null;
  /** Null where our policy does not weigh the category. */
  readonly ours: Decimal | null;
  readonly groups: number;
}

/**
 * "same" and "differ" compare category by category. "unweighed" where one of the two sides weighs nothing; "open" while
 * a group that is weighed feeds none of our categories, so that nothing can be said yet.
 */
export type WeightState = 'same' | 'differ' | 'unweighed' | 'open';

export interface ComparedWeights {
  readonly state: WeightState;
  readonly rows: readonly WeightRow[];
  /** What the weights there come to, in percent. */
  readonly theirSum: Decimal;
}

const nothing: Decimal = { units: 0n, digits: 0 };

/** Compares how a platform and we weigh the categories of one section. */
export function compareWeights(
  groups: readonly GroupWeight[],
  ours: readonly { readonly categoryId: number; readonly weight: Decimal }[],
): ComparedWeights {
  const feeding = groups.filter(({ isIgnored }) => !isIgnored);
  const weighed = feeding.filter(({ weight }) => weight !== null && weight.units > 0n);
  const ourWeights = new Map(ours.map(({ categoryId, weight }) => [categoryId, weight]));
  const ids = new Set([
    ...ourWeights.keys(),
    ...feeding.flatMap(({ categoryId }) => (categoryId === null ? [] : [categoryId])),
  ]);
  const rows = [...ids].map((categoryId): WeightRow => {
    const own = feeding.filter((group) => group.categoryId === categoryId);
    const weights = own.flatMap(({ weight }) => (weight === null ? [] : [weight]));
    return {
      categoryId,
      theirs: weights.length === 0 ? null : sumOfDecimals(weights),
      ours: ourWeights.get(categoryId) ?? null,
      groups: own.length,
    };
  });
  return { state: stateOf(rows, weighed), rows, theirSum: sumOfDecimals(weighed.map(({ weight }) => weight!)) };
}

function stateOf(rows: readonly WeightRow[], weighed: readonly GroupWeight[]): WeightState {
  if (weighed.length === 0 || rows.every(({ ours }) => ours === null)) return 'unweighed';
  if (weighed.some(({ categoryId }) => categoryId === null)) return 'open';
  const isSame = rows.every(({ theirs, ours }) => compareDecimals(theirs ?? nothing, ours ?? nothing) === 0);
  return isSame ? 'same' : 'differ';
}
