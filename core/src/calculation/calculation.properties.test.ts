import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decimalOrThrow, roundings, roundTo, type RoundingName } from '#core/numbers';
import {
  bestDrop,
  calculateGrades,
  explainGrade,
  noSlot,
  preparePolicy,
  type BookColumns,
  type BookScore,
  type CalculationPolicy,
} from './index.js';
import { levelOfEvidence } from './evidence.js';
import { share, usualLevels, usualPolicy } from '../../test/usual-policy.fixture.js';

/** A random source with a seed, fast enough for a million books; fast-check draws the seed and the policy. */
function drawing(seed: number) {
  let state = seed | 1;
  return (below: number) => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) % below;
  };
}

const booksAtOnce = 5_000;
const possibles = [500, 1000, 1500, 2000, 2500, 5000, 10_000];

/** Books of two to nine scores in three categories and outside them. */
function drawBooks(seed: number): BookColumns {
  const below = drawing(seed);
  const starts = new Int32Array(booksAtOnce + 1);
  for (let book = 0; book < booksAtOnce; book++) starts[book + 1] = starts[book]! + 2 + below(8);
  const scores = starts[booksAtOnce]!;
  const possible = Int32Array.from({ length: scores }, () => possibles[below(possibles.length)]!);
  return {
    starts,
    possible,
    assignment: Int32Array.from({ length: scores }, (_each, at) => at),
    points: Int32Array.from(possible, (outOf) => (below(20) === 0 ? -1 : below(outOf / 50 + 1) * 50)),
    flag: Uint8Array.from({ length: scores }, () => (below(12) === 0 ? 1 + below(6) : 0)),
    bits: Uint8Array.from({ length: scores }, () => (below(15) === 0 ? 1 : below(30) === 0 ? 2 : 0)),
    slot: Uint8Array.from({ length: scores }, () => (below(25) === 0 ? noSlot : below(3))),
  };
}

interface Pot {
  earned: bigint;
  possible: bigint;
  scores: { earned: bigint; possible: bigint }[];
}

/**
 * The same arithmetic written as plainly as can be, over fractions of whole numbers and trying every choice of a dropped
 * score; nothing of the calculation is used.
 */
function plainPercent(
  columns: BookColumns,
  book: number,
  { method, categories, cap }: CalculationPolicy,
): [bigint, bigint] | 'blocked' | undefined {
  const pots = Array.from({ length: 4 }, (): Pot => ({ earned: 0n, possible: 0n, scores: [] }));
  for (let at = columns.starts[book]!; at < columns.starts[book + 1]!; at++) {
    const [flag, bits, slot] = [columns.flag[at]!, columns.bits[at]!, columns.slot[at]!];
    if (bits === 2) continue;
    // what stands outside the categories counts, and so blocks, only where all points go into one pot
    if (flag === 3 && (slot !== noSlot || method === 'totalPoints')) return 'blocked';
    if (flag === 3) continue;
    if (flag >= 4 || (columns.points[at]! < 0 && flag !== 1)) continue;
    const earned = flag === 1 ? 0n : BigInt(columns.points[at]!);
    const pot = pots[slot === noSlot ? 3 : slot]!;
    if (bits === 1) pot.earned += earned;
    else pot.scores.push({ earned, possible: BigInt(columns.possible[at]!) });
  }
  for (const [slot, pot] of pots.entries()) {
    const all = pot.scores.reduce((a, b) => ({ earned: a.earned + b.earned, possible: a.possible + b.possible }), {
      earned: 0n,
      possible: 0n,
    });
    const extra = pot.earned;
    const choices =
      categories[slot]?.dropLowest === 1 && pot.scores.length > 1 ? pot.scores : [{ earned: 0n, possible: 0n }];
    for (const out of choices) {
      const [earned, possible] = [extra + all.earned - out.earned, all.possible - out.possible];
      if (pot.possible === 0n || earned * pot.possible > pot.earned * possible)
        Object.assign(pot, { earned, possible });
    }
  }
  let [numerator, denominator] = [0n, 0n];
  if (method === 'totalPoints') {
    numerator = pots.reduce((sum, pot) => sum + pot.earned, 0n);
    denominator = pots.reduce((sum, pot) => sum + pot.possible, 0n);
  } else {
    let weights = 0n;
    let common = 1n;
    for (const [slot, { weight }] of categories.entries()) {
      const { earned, possible } = pots[slot]!;
      if (possible === 0n) continue;
      numerator = numerator * possible + weight.units * earned * common;
      common *= possible;
      weights += weight.units;
    }
    denominator = common * weights;
  }
  if (denominator === 0n) return undefined;
  const limited = cap && numerator * 100n > cap.units * denominator;
  return limited ? [cap.units, 1n] : [numerator * 100n, denominator];
}

function plainRounding(numerator: bigint, denominator: bigint, digits: number, rounding: RoundingName): number {
  const scaled = numerator * 10n ** BigInt(digits);
  const [floor, rest] = [scaled / denominator, (scaled % denominator) * 2n];
  if (rounding === 'down' || rest < denominator) return Number(floor);
  if (rest > denominator || rounding === 'halfUp') return Number(floor) + 1;
  return Number(floor % 2n === 0n ? floor : floor + 1n);
}

describe('a million random grade books', () => {
  it('give the exact percent, rounded, in every single case', () => {
    let books = 0;
    const policies = fc.record({
      seed: fc.integer(),
      method: fc.constantFrom('totalPoints' as const, 'categoryPoints' as const),
      weights: fc.constantFrom(['50', '30', '20'], ['33.33', '33.33', '33.34'], ['1', '2', '4'], ['60', '40', '10']),
      drop: fc.constantFrom(0, 1),
      cap: fc.constantFrom(null, '100', '95.5'),
      digits: fc.constantFrom(0, 1, 2),
      rounding: fc.constantFrom(...(Object.keys(roundings) as RoundingName[])),
    });
    fc.assert(
      fc.property(policies, ({ seed, method, weights, drop, cap, digits, rounding }) => {
        // In one pot a drop may depend on the other categories; trying every choice there has a test of its own.
        const dropLowest = method === 'totalPoints' ? 0 : drop;
        const policy: CalculationPolicy = {
          ...usualPolicy,
          method,
          categories: weights.map((weight, at) => share(at, weight, { dropLowest })),
          cap: cap === null ? null : decimalOrThrow(cap),
        };
        const exact = { ...policy, cap: policy.cap && { units: BigInt(Number(cap) * 100) / 100n, digits: 0 } };
        const columns = drawBooks(seed);
        const found = calculateGrades(columns, [preparePolicy(policy)], new Uint8Array(booksAtOnce), {
          digits,
          rounding,
        });
        for (let book = 0; book < booksAtOnce; book++) {
          const plain = plainPercent(columns, book, cap === '95.5' ? { ...policy, cap: null } : exact);
          const percent = limited(plain, cap);
          const expected = Array.isArray(percent) ? plainRounding(...percent, digits, rounding) : -1;
          const state = percent === 'blocked' ? 2 : percent === undefined ? 1 : 0;
          if (found.percent[book] !== expected || found.state[book] !== state)
            throw new Error(`book ${book} of seed ${seed}: ${found.percent[book]}, not ${expected}`);
        }
        books += booksAtOnce;
      }),
      { seed: 4, numRuns: 200 },
    );
    expect(books).toBe(1_000_000);
  });
});

function limited(plain: ReturnType<typeof plainPercent>, cap: string | null): ReturnType<typeof plainPercent> {
  if (cap !== '95.5' || !Array.isArray(plain)) return plain;
  return plain[0] * 2n > 191n * plain[1] ? [191n, 2n] : plain;
}

describe('the best drop', () => {
  const scores = fc.array(
    fc.tuple(fc.constantFrom(1, 5, 10, 20, 50, 100), fc.integer({ min: 0, max: 100 })).map(([possible, part]) => ({
      possible,
      earned: Math.round((possible * part) / 100),
    })),
    { minLength: 1, maxLength: 12 },
  );
  const dropOf = (
    drawn: readonly { earned: number; possible: number }[],
    drop: number,
    extra: number,
    beside: number,
  ) => {
    const dropped = new Uint8Array(drawn.length);
    const group = {
      earned: drawn.map(({ earned }) => earned),
      possible: drawn.map(({ possible }) => possible),
      count: drawn.length,
      drop,
      dropped,
    };
    bestDrop([group], extra, beside);
    return dropped;
  };
  const ratio = (
    drawn: readonly { earned: number; possible: number }[],
    isOut: (at: number) => boolean,
    extra: number,
    beside: number,
  ) => {
    const kept = drawn.filter((_each, at) => !isOut(at));
    return [
      kept.reduce((sum, { earned }) => sum + earned, extra),
      kept.reduce((sum, { possible }) => sum + possible, beside),
    ] as const;
  };

  it('is no worse than any other choice, whatever stands beside it', () => {
    fc.assert(
      fc.property(
        scores,
        fc.integer({ min: 0, max: 11 }),
        fc.nat(20),
        fc.constantFrom(0, 0, 100),
        (drawn, drop, extra, beside) => {
          const dropped = dropOf(drawn, drop, extra, beside);
          const [earned, possible] = ratio(drawn, (at) => dropped[at] === 1, extra, beside);
          const most = Math.min(drop, drawn.length - 1);
          expect(dropped.reduce((sum, each) => sum + each, 0)).toBeLessThanOrEqual(Math.max(0, most));
          for (let choice = 0; choice < 2 ** drawn.length; choice++) {
            if (bitsOf(choice) > most) continue;
            const [other, of] = ratio(drawn, (at) => (choice & (1 << at)) !== 0, extra, beside);
            if (other * possible > earned * of) throw new Error(`${choice.toString(2)} is better`);
          }
        },
      ),
      { seed: 6, numRuns: 300 },
    );
  });

  it('takes few steps with two hundred scores and twenty drops', () => {
    const below = drawing(9);
    const drawn = Array.from({ length: 200 }, () => {
      const possible = possibles[below(possibles.length)]!;
      return { possible, earned: below(possible + 1) };
    });
    // Each look at a score is counted; one step looks at each of them five times at most.
    let looks = 0;
    const counting = (values: number[]) =>
      new Proxy(values, { get: (target, key) => (looks++, Reflect.get(target, key) as unknown) });
    const dropped = new Uint8Array(200);
    const [earned, possible] = [drawn.map((each) => each.earned), drawn.map((each) => each.possible)];
    bestDrop([{ earned: counting(earned), possible: counting(possible), count: 200, drop: 20, dropped }], 0, 0);
    expect(dropped.reduce((sum, each) => sum + each, 0)).toBe(20);
    expect(looks).toBeLessThan(200 * 5 * 10);
  });
});

function bitsOf(choice: number): number {
  let [rest, bits] = [choice, 0];
  for (; rest > 0; rest >>= 1) bits += rest & 1;
  return bits;
}

describe('a grade', () => {
  const drawnScore = fc
    .record({
      possible: fc.constantFrom(5, 10, 20, 100),
      part: fc.integer({ min: 0, max: 100 }),
      categoryId: fc.constantFrom(1, 2, 3),
    })
    .map(({ possible, part, categoryId }): BookScore => ({
      assignmentId: 1,
      categoryId,
      points: decimalOrThrow(String(Math.round((possible * part) / 100))),
      possible: decimalOrThrow(String(possible)),
      flag: null,
      isExtra: false,
      isCounted: true,
    }));
  const books = fc.array(drawnScore, { minLength: 1, maxLength: 10 });
  const methods = fc.constantFrom('totalPoints' as const, 'categoryPoints' as const, 'categoryEqual' as const);
  const dropping = { ...usualPolicy, categories: usualPolicy.categories.map((each) => ({ ...each, dropLowest: 1 })) };
  const percentOf = (scores: readonly BookScore[], policy: CalculationPolicy) => {
    const { percent } = explainGrade(scores, policy);
    return percent && roundTo(percent, 8, roundings.halfUp).units;
  };

  it('does not depend on the order of the scores, where order is not what the method is about', () => {
    fc.assert(
      fc.property(books, methods, (book, method) => {
        expect(percentOf(book.toReversed(), { ...dropping, method })).toBe(percentOf(book, { ...dropping, method }));
      }),
      { seed: 7 },
    );
  });

  it('is never lowered by one more score of 100 %, in a category that has scores, when nothing is dropped', () => {
    fc.assert(
      fc.property(books, methods, (book, method) => {
        const policy = { ...usualPolicy, method };
        const full = { ...book[0]!, points: book[0]!.possible };
        expect(percentOf([...book, full], policy)! >= percentOf(book, policy)!).toBe(true);
      }),
      { seed: 8 },
    );
  });

  it('is the same for one student and for a district, at any precision', () => {
    const policy = { ...dropping, method: 'mean' as const, levels: usualLevels };
    for (const each of [policy, { ...dropping, method: 'categoryEqual' as const }]) {
      fc.assert(
        fc.property(fc.nat(), fc.constantFrom(0, 1, 2), (seed, digits) => {
          const columns = { ...drawBooks(seed), possible: new Int32Array(booksAtOnce * 10).fill(400) };
          const own = { ...columns, points: columns.points.map((points) => Math.min(points, 400)) };
          const slots = [1, 2, 3];
          const found = calculateGrades(own, [preparePolicy(each)], new Uint8Array(booksAtOnce), {
            digits,
            rounding: 'halfUp',
          });
          for (let book = 0; book < 50; book++) {
            const scores = scoresOf(own, book, slots);
            const { percent } = explainGrade(scores, each);
            const rounded = percent ? Number(roundTo(percent, digits, roundings.halfUp).units) : -1;
            expect(found.percent[book]).toBe(rounded);
          }
        }),
        { seed: 10, numRuns: 5 },
      );
    }
  });
});

function scoresOf(columns: BookColumns, book: number, ids: readonly number[]): BookScore[] {
  const flags = [null, 'missing', 'late', 'incomplete', 'exempt', 'absent', 'collected'] as const;
  return Array.from({ length: columns.starts[book + 1]! - columns.starts[book]! }, (_each, offset): BookScore => {
    const at = columns.starts[book]! + offset;
    return {
      assignmentId: at,
      categoryId: columns.slot[at] === noSlot ? null : ids[columns.slot[at]!]!,
      points: columns.points[at]! < 0 ? null : { units: BigInt(columns.points[at]!), digits: 2 },
      flag: flags[columns.flag[at]!]!,
      possible: { units: BigInt(columns.possible[at]!), digits: 2 },
      isExtra: (columns.bits[at]! & 1) !== 0,
      isCounted: (columns.bits[at]! & 2) === 0,
    };
  });
}

describe('the power law', () => {
  it('agrees with the same fit in binary fractions to nine digits', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 400 }), { minLength: 1, maxLength: 15 }), (levels) => {
        const xs = levels.map((_level, at) => Math.log(at + 1));
        const ys = levels.map((level) => Math.log(level / 100));
        const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
        const [x, y] = [mean(xs), mean(ys)];
        const spread = xs.reduce((sum, each) => sum + (each - x) ** 2, 0);
        const slope = spread === 0 ? 0 : xs.reduce((sum, each, at) => sum + (each - x) * (ys[at]! - y), 0) / spread;
        const expected = Math.exp(y - slope * x + slope * Math.log(levels.length));
        const { numerator, denominator } = levelOfEvidence('powerLaw', levels, 7500, 1_000_000_000)!;
        expect(Math.abs(Number(numerator) / Number(denominator) / expected - 1)).toBeLessThan(1e-9);
      }),
      { seed: 11 },
    );
  });
});
