import { scoreFlags, type CalculationPolicy, type FlagEffect, type Method } from '../src/calculation/index.js';

/*
 * A second opinion that shares nothing with the calculation: exact fractions of whole numbers, every choice of dropped
 * scores tried, one student at a time. It is written after what the help of each option says, not after the code. The
 * calculation gets the same books in batches, so that each student is calculated beside others with other policies.
 */

export interface Score {
  readonly category: number | null;
  /** Hundredths; null for none. */
  readonly points: bigint | null;
  /** Position in the list of flags; null for none. */
  readonly flag: number | null;
  readonly possible: bigint;
  readonly isExtra: boolean;
  readonly isCounted: boolean;
}

export interface Plan {
  readonly method: Method;
  readonly effects: readonly FlagEffect[];
  readonly categories: readonly { id: number; weight: bigint; drop: number; limit: bigint | null }[];
  readonly limit: bigint | null;
  readonly newest: bigint;
  readonly most: bigint;
  readonly evidence: number;
}

type Fraction = readonly [numerator: bigint, denominator: bigint];
type Found = Fraction | 'nothing' | { readonly blockedBy: readonly number[] };

const less = ([a, b]: Fraction, [c, d]: Fraction) => a * d < c * b;
const lower = (one: Fraction, other: Fraction) => (less(other, one) ? other : one);
const plus = ([a, b]: Fraction, [c, d]: Fraction): Fraction => [a * d + c * b, b * d];
export const ofEvidence: readonly Method[] = ['decaying', 'powerLaw', 'mostRecent', 'highest', 'mode', 'mean'];

export function secondOpinion(scores: readonly Score[], plan: Plan): Found {
  const isTotal = plan.method === 'totalPoints';
  const readsLevels = ofEvidence.includes(plan.method);
  const pots = new Map<number | null, { kept: { earned: bigint; possible: bigint }[]; extra: bigint }>();
  const blockedBy: number[] = [];
  for (const [at, score] of scores.entries()) {
    if (!score.isCounted) continue;
    const category = plan.categories.find(({ id }) => id === score.category);
    if (!isTotal && (!category || category.weight === 0n)) continue;
    const onlyAdds = score.isExtra || score.possible === 0n;
    if (readsLevels && (onlyAdds || score.possible !== plan.most)) continue;
    const effect = score.flag === null ? 'counts' : plan.effects[score.flag]!;
    if (effect === 'blocks') blockedBy.push(at);
    if (effect === 'blocks' || effect === 'leaves') continue;
    const key = category?.id ?? null;
    const pot = pots.get(key) ?? { kept: [], extra: 0n };
    pots.set(key, pot);
    if (effect === 'zero') {
      if (!onlyAdds) pot.kept.push({ earned: 0n, possible: score.possible });
    } else if (score.points !== null) {
      if (onlyAdds) pot.extra += score.points;
      else pot.kept.push({ earned: score.points, possible: score.possible });
    }
  }
  if (blockedBy.length > 0) return { blockedBy };
  const found = isTotal ? onePot(pots, plan) : byCategory(pots, plan, readsLevels);
  if (found === 'nothing') return found;
  return plan.limit === null ? found : lower(found, [plan.limit, 10_000n]);
}

type Pots = ReadonlyMap<number | null, { kept: { earned: bigint; possible: bigint }[]; extra: bigint }>;

/** Every way to leave out as many as may be, the last one never. */
function* waysToKeep<Each>(all: readonly Each[], drop: number): Generator<Each[]> {
  const most = Math.min(drop, all.length - 1);
  for (let choice = 0; choice < 2 ** all.length; choice++) {
    const kept = all.filter((_each, at) => (choice & (1 << at)) === 0);
    if (all.length - kept.length <= Math.max(0, most)) yield kept;
  }
}

function onePot(pots: Pots, plan: Plan): Fraction | 'nothing' {
  let ways: { earned: bigint; possible: bigint }[] = [{ earned: 0n, possible: 0n }];
  for (const [key, { kept, extra }] of pots) {
    const category = plan.categories.find(({ id }) => id === key);
    const own = [...waysToKeep(kept, category?.drop ?? 0)].map((way) => {
      const possible = way.reduce((sum, each) => sum + each.possible, 0n);
      const earned = way.reduce((sum, each) => sum + each.earned, extra) * 10_000n;
      const most = (category?.limit ?? null) === null ? null : category!.limit! * possible;
      return { earned: most !== null && most < earned ? most : earned, possible };
    });
    ways = ways.flatMap((way) =>
      own.map(({ earned, possible }) => ({ earned: way.earned + earned, possible: way.possible + possible })),
    );
  }
  const fractions = ways
    .filter(({ possible }) => possible > 0n)
    .map(({ earned, possible }): Fraction => [earned, possible * 10_000n]);
  if (fractions.length === 0) return 'nothing';
  return fractions.reduce((best, each) => (less(best, each) ? each : best));
}

function byCategory(pots: Pots, plan: Plan, readsLevels: boolean): Fraction | 'nothing' {
  let [sum, weights]: [Fraction, bigint] = [[0n, 1n], 0n];
  for (const { id, weight, drop, limit } of plan.categories) {
    const { kept, extra } = pots.get(id) ?? { kept: [], extra: 0n };
    if (kept.length === 0 || weight === 0n || (readsLevels && kept.length < plan.evidence)) continue;
    const share = readsLevels
      ? levelShare(
          kept.map(({ earned }) => earned),
          plan,
        )
      : [...waysToKeep(kept, drop)]
          .map((way): Fraction => (plan.method === 'categoryEqual' ? equalShare(way, extra) : pointShare(way, extra)))
          .reduce((best, each) => (less(best, each) ? each : best));
    const limited = limit === null ? share : lower(share, [limit, 10_000n]);
    sum = plus(sum, [limited[0] * weight, limited[1]]);
    weights += weight;
  }
  return weights === 0n ? 'nothing' : [sum[0], sum[1] * weights];
}

function pointShare(way: readonly { earned: bigint; possible: bigint }[], extra: bigint): Fraction {
  return [way.reduce((sum, { earned }) => sum + earned, extra), way.reduce((sum, { possible }) => sum + possible, 0n)];
}

/** Each assignment the same; an extra point is a hundredth of one assignment. */
function equalShare(way: readonly { earned: bigint; possible: bigint }[], extra: bigint): Fraction {
  const [numerator, denominator] = way
    .map(({ earned, possible }): Fraction => [earned, possible])
    .reduce(plus, [extra, 10_000n]);
  return [numerator, denominator * BigInt(way.length)];
}

function levelShare(levels: readonly bigint[], { method, newest, most }: Plan): Fraction {
  const of = (numerator: bigint, denominator = 1n): Fraction => [numerator, denominator * most];
  if (method === 'mostRecent') return of(levels.at(-1)!);
  if (method === 'highest') return of(levels.reduce((a, b) => (a > b ? a : b)));
  if (method === 'mean')
    return of(
      levels.reduce((a, b) => a + b),
      BigInt(levels.length),
    );
  if (method === 'mode') {
    const times = (level: bigint) => levels.filter((each) => each === level).length;
    return of(levels.reduce((best, level) => (times(level) >= times(best) ? level : best)));
  }
  return levels
    .slice(1)
    .reduce<Fraction>(
      (before, level) => plus([before[0] * (10_000n - newest), before[1] * 10_000n], of(level * newest, 10_000n)),
      of(levels[0]!),
    );
}

const decimal = (units: bigint | null, digits = 2) => (units === null ? null : { units, digits });

export function policyOf(plan: Plan): CalculationPolicy {
  return {
    method: plan.method,
    categories: plan.categories.map(({ id, weight, drop, limit }) => ({
      categoryId: id,
      weight: decimal(weight)!,
      dropLowest: drop,
      cap: decimal(limit),
    })),
    flags: Object.fromEntries(scoreFlags.map((flag, at) => [flag, plan.effects[at]!])) as CalculationPolicy['flags'],
    cap: decimal(plan.limit),
    newestShare: decimal(plan.newest)!,
    levels: ofEvidence.includes(plan.method)
      ? { most: decimal(plan.most)!, meets: decimal(300n)!, exceeds: decimal(400n)!, evidence: plan.evidence }
      : null,
  };
}

export function drawing(seed: number) {
  let state = seed;
  const below = (limit: number) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 2 ** 32) * limit);
  };
  const oneOf = <Each>(all: readonly Each[]): Each => all[below(all.length)]!;
  return { below, oneOf };
}

const methods = ['totalPoints', 'totalPoints', 'categoryPoints', 'categoryEqual', 'decaying', 'mostRecent', 'highest', 'mode', 'mean'] as const; // prettier-ignore
const effects = ['counts', 'zero', 'leaves', 'blocks'] as const;

export function drawPlan({ below, oneOf }: ReturnType<typeof drawing>): Plan {
  return {
    method: oneOf(methods),
    effects: scoreFlags.map(() => oneOf(effects.slice(0, below(3) === 0 ? 4 : 3))),
    categories: Array.from({ length: 1 + below(4) }, (_each, at) => ({
      id: at + 1,
      weight: BigInt(oneOf([0, 1000, 2500, 3333, 4000, 10_000])),
      drop: oneOf([0, 0, 1, 2, 3]),
      limit: oneOf([null, null, 10_000n, 9_525n, 11_000n]),
    })),
    limit: oneOf([null, null, 10_000n, 9_550n]),
    newest: oneOf([7_500n, 5_000n, 10_000n, 3_333n]),
    most: 400n,
    evidence: oneOf([1, 1, 2]),
  };
}
