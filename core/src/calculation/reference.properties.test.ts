import { describe, expect, it } from 'vitest';
import {
  calculateExact,
  calculateGrades,
  noSlot,
  preparePolicy,
  scoreFlags,
  slotOf,
  type BookColumns,
  type CalculationPolicy,
} from './index.js';
import {
  drawing,
  drawPlan,
  ofEvidence,
  policyOf,
  secondOpinion,
  type Plan,
  type Score,
} from '../../test/second-opinion.fixture.js';

function drawScores({ below, oneOf }: ReturnType<typeof drawing>, { method }: Plan): Score[] {
  const readsLevels = ofEvidence.includes(method);
  return Array.from({ length: below(9) }, (): Score => {
    const possible = readsLevels
      ? oneOf([400, 400, 400, 400, 1000, 0])
      : oneOf([500, 1000, 1500, 4000, 10_000, 10_000, 0]);
    return {
      category: below(12) === 0 ? null : 1 + below(5),
      points: below(12) === 0 ? null : BigInt(oneOf([0, below(possible + 1), possible, below(possible * 2 + 2_000)])),
      flag: below(5) === 0 ? below(scoreFlags.length) : null,
      possible: BigInt(possible),
      isExtra: below(9) === 0,
      isCounted: below(20) !== 0,
    };
  });
}

function columnsOf(
  books: readonly { readonly scores: readonly Score[]; readonly policy: CalculationPolicy }[],
): BookColumns {
  const all = books.flatMap(({ scores, policy }) => scores.map((score) => ({ score, policy })));
  const starts = new Int32Array(books.length + 1);
  for (const [at, { scores }] of books.entries()) starts[at + 1] = starts[at]! + scores.length;
  return {
    starts,
    assignment: Int32Array.from(all, (_each, at) => at),
    points: Int32Array.from(all, ({ score }) => Number(score.points ?? -1n)),
    flag: Uint8Array.from(all, ({ score }) => (score.flag === null ? 0 : score.flag + 1)),
    possible: Int32Array.from(all, ({ score }) => Number(score.possible)),
    bits: Uint8Array.from(all, ({ score }) => (score.isExtra ? 1 : 0) | (score.isCounted ? 0 : 2)),
    slot: Uint8Array.from(all, ({ score, policy }) =>
      score.category === null ? noSlot : slotOf(policy, score.category),
    ),
  };
}

describe('a hundred thousand random grade books, beside a second opinion in exact fractions that tries every drop', () => {
  const [batches, together] = [2_500, 40];

  it('come to the same percent in any company, and rounded to the same', () => {
    const draw = drawing(20_261_128);
    let [books, percents, blocked] = [0, 0, 0];
    for (let batch = 0; batch < batches; batch++) {
      const plans = Array.from({ length: 4 }, () => drawPlan(draw));
      const policies = plans.map(policyOf);
      const drawn = Array.from({ length: together }, () => {
        const at = draw.below(plans.length);
        return { at, scores: drawScores(draw, plans[at]!), policy: policies[at]! };
      });
      const columns = columnsOf(drawn);
      const prepared = policies.map(preparePolicy);
      const policyOfStudent = drawn.map(({ at }) => at);
      const exact = calculateExact(columns, prepared, policyOfStudent);
      const rounded = calculateGrades(columns, prepared, policyOfStudent, { digits: 1, rounding: 'halfUp' });
      for (const [student, { at, scores }] of drawn.entries()) {
        const expected = secondOpinion(scores, plans[at]!);
        const found = exact[student]!;
        books++;
        const where = `batch ${batch}, student ${student}, ${plans[at]!.method}`;
        if (expected === 'nothing' || 'blockedBy' in expected) {
          const own = found.blockedBy.map((assignment) => assignment - columns.starts[student]!);
          if (found.percent !== null) throw new Error(`${where}: a percent where there is none`);
          const by = expected === 'nothing' ? [] : expected.blockedBy;
          if (own.join() !== by.join()) throw new Error(`${where}: blocked by ${own.join()}, not ${by.join()}`);
          blocked += by.length > 0 ? 1 : 0;
          continue;
        }
        percents++;
        const [numerator, denominator] = [expected[0] * 100n, expected[1]];
        if (!found.percent || found.percent.numerator * denominator !== numerator * found.percent.denominator)
          throw new Error(`${where}: ${String(found.percent?.numerator)}/${String(found.percent?.denominator)}`);
        const units = (numerator * 20n + denominator) / (denominator * 2n);
        if (BigInt(rounded.percent[student]!) !== units)
          throw new Error(`${where}: rounded ${rounded.percent[student]!}`);
      }
    }
    expect([books, percents > 45_000, blocked > 2_500]).toEqual([batches * together, true, true]);
  });
});
