import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { auditRules, bareGrade, noSections, runRules, type GradeFact } from '#core/audit';
import { dayOrThrow } from '#core/calendar';
import { formatDecimal, roundDown, roundHalfEven, roundHalfUp } from '#core/numbers';
import {
  enterLabelOrCode,
  enterPercent,
  mostPercent,
  noMark,
  takeComputed,
  type EntryRules,
  type Mark,
} from '#core/posting';
import { newCode } from '#core/codes';
import { checkScale, countByBand, findBand, moveCutOff } from '#core/scales';
import { letterBands } from '../test/letter-scale.fixture.js';

/* What must hold across domains, whatever the values: each property joins two or more of them. */

const seed = { seed: 20_260_121 };
const precisions = fc.record({
  digits: fc.integer({ min: 0, max: 2 }),
  rounding: fc.constantFrom(roundHalfUp, roundHalfEven, roundDown),
});
const percents = fc.integer({ min: 0, max: 12_000 }).map((units) => ({ units: BigInt(units), digits: 2 }));
const computed = fc.integer({ min: 0, max: 1_100_000 }).map((units) => ({ units: BigInt(units), digits: 4 }));
const highest = { highestLevel: null, highestPercent: mostPercent };
const codes = ['INC', 'EXM'].map((code) => newCode(code, code, { triesCredit: true }));

function factOf(mark: Mark, { precision }: EntryRules): GradeFact {
  const comments = { commentRule: 'optional', commentBelow: null, commentLength: 100 } as const;
  const asks = {
    failingNeedsLastDate: false,
    asksHours: false,
    countsInGpa: true,
    onTranscript: true,
    isComposite: false,
    isOfBook: true,
    window: null,
  };
  const item = { id: 1, name: 'Quarter grade', precision, highestPercent: mostPercent, ...comments, ...asks };
  const scale = { name: 'Letter scale', bands: letterBands, highestLevel: null };
  return { ...bareGrade, enrollmentId: 1, mark, item, scale };
}

/** What blocks or warns; a zero is only asked about. */
function findingsOn(mark: Mark, rules: EntryRules): string[] {
  const period = { periodStartsOn: dayOrThrow('2025-11-10'), periodEndsOn: dayOrThrow('2026-01-23') };
  const known = new Map(codes.map((code) => [code.code, code]));
  const at = { today: period.periodEndsOn, now: '2026-01-24T08:00:00Z' };
  const snapshot = { ...noSections, ...period, ...at, codes: known, grades: [factOf(mark, rules)] };
  return runRules(auditRules, snapshot)
    .map(({ ruleId }) => ruleId)
    .filter((id) => id !== 'zero-posted');
}

describe('what a grade sheet lets through, the audit has nothing against', () => {
  it('a typed percent with the label it fills', () => {
    fc.assert(
      fc.property(percents, precisions, (percent, precision) => {
        const rules = { bands: letterBands, precision, codes, ...highest };
        const entered = enterPercent(noMark, formatDecimal(percent), rules);
        expect(entered.kind === 'entered' && findingsOn(entered.mark, rules)).toEqual([]);
      }),
      seed,
    );
  });

  it('a computed percent that is taken', () => {
    fc.assert(
      fc.property(computed, precisions, (percent, precision) => {
        const rules = { bands: letterBands, precision, codes, ...highest };
        expect(findingsOn(takeComputed(noMark, percent, rules), rules)).toEqual([]);
      }),
      seed,
    );
  });

  it('a code over whatever stood there before', () => {
    fc.assert(
      fc.property(percents, fc.constantFrom('INC', 'EXM'), (percent, code) => {
        const rules = { bands: letterBands, precision: { digits: 1, rounding: roundHalfUp }, codes, ...highest };
        const first = enterPercent(noMark, formatDecimal(percent), rules);
        const second = first.kind === 'entered' ? enterLabelOrCode(first.mark, code, rules) : first;
        expect(second.kind === 'entered' && findingsOn(second.mark, rules)).toEqual([]);
      }),
      seed,
    );
  });
});

describe('a cut-off moved anywhere', () => {
  it('leaves a scale that nothing blocks, and every grade in some band', () => {
    const places = fc.nat({ max: letterBands.length - 2 });
    fc.assert(
      fc.property(places, percents, fc.array(percents, { maxLength: 30 }), (index, wanted, grades) => {
        const precision = { digits: 1, rounding: roundHalfUp };
        const moved = moveCutOff(letterBands, index, wanted, 1);
        expect(
          checkScale(moved, precision, { kind: 'percent', highestLevel: null, codes: [] }).filter(
            ({ severity }) => severity === 'blocks',
          ),
        ).toEqual([]);
        const tallies = grades.map((percent) => ({ percent, grades: 1 }));
        expect(countByBand(moved, tallies, precision).reduce((sum, count) => sum + count, 0)).toBe(grades.length);
      }),
      seed,
    );
  });

  it('upwards lifts nobody, downwards drops nobody', () => {
    const rank = (bands: typeof letterBands, label: string | undefined) =>
      bands.findIndex((band) => band.label === label);
    fc.assert(
      fc.property(fc.nat({ max: letterBands.length - 2 }), percents, percents, (index, wanted, grade) => {
        const precision = { digits: 1, rounding: roundHalfUp };
        const moved = moveCutOff(letterBands, index, wanted, 1);
        const isUp = Number(formatDecimal(moved[index]!.lowest)) >= Number(formatDecimal(letterBands[index]!.lowest));
        const before = rank(letterBands, findBand(letterBands, grade, precision).band?.label);
        const after = rank(letterBands, findBand(moved, grade, precision).band?.label);
        return isUp ? after >= before : after <= before;
      }),
      seed,
    );
  });
});
