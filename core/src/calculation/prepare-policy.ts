import { unitsAt, type Decimal } from '#core/numbers';
import { isOfEvidence, type CalculationPolicy } from './policy.js';
import { effectTable, levelsOutOf, treatmentTable, type TreatmentTable } from './treat-score.js';

/** A policy as the calculation reads it: whole numbers by the position of the category, made once for many students. */
export interface PreparedPolicy {
  readonly policy: CalculationPolicy;
  readonly isTotal: boolean;
  readonly isEqual: boolean;
  readonly isOfEvidence: boolean;
  readonly treatments: TreatmentTable;
  readonly outOf: number;
  /** In hundredths. */
  readonly weights: Float64Array;
  /** In hundredths of a percent, Infinity for no limit. */
  readonly caps: Float64Array;
  readonly drops: Int32Array;
  readonly hasDrops: boolean;
  /** By position, `noSlot` included: 1 where a score can block the grade, as its category counts for something. */
  readonly canBlock: Uint8Array;
  readonly cap: number;
  /** Whether sums of points are all it takes: no score is dropped, weighed by itself or read in its order. */
  readonly isOfSums: boolean;
}

/** The position of a category that a policy does not speak of. */
export const noSlot = 255;

export function preparePolicy(policy: CalculationPolicy): PreparedPolicy {
  const { method, categories, flags, levels, cap } = policy;
  const ofEvidence = isOfEvidence(method);
  const outOf = ofEvidence ? levelsOutOf(levels) : 0;
  const hasDrops = !ofEvidence && categories.some(({ dropLowest }) => dropLowest > 0);
  return {
    policy,
    isTotal: method === 'totalPoints',
    isEqual: method === 'categoryEqual',
    isOfEvidence: ofEvidence,
    treatments: treatmentTable(effectTable(flags), outOf, method === 'totalPoints'),
    outOf,
    weights: Float64Array.from(categories, ({ weight }) => Number(unitsAt(weight, 2))),
    caps: Float64Array.from(categories, (category) => limit(category.cap)),
    drops: Int32Array.from(categories, ({ dropLowest }) => (ofEvidence ? 0 : dropLowest)),
    hasDrops,
    canBlock: blockingSlots(policy),
    cap: limit(cap),
    isOfSums: !ofEvidence && !hasDrops && method !== 'categoryEqual',
  };
}

/** The position of a category in a policy, or `noSlot`. At most 255 categories are looked at. */
export function slotOf({ categories }: Pick<CalculationPolicy, 'categories'>, categoryId: number): number {
  const at = categories.findIndex((each) => each.categoryId === categoryId);
  return at === -1 ? noSlot : Math.min(at, noSlot);
}

/** In one pot everything counts; elsewhere only what has a category with a weight. */
function blockingSlots({ method, categories }: CalculationPolicy): Uint8Array {
  if (method === 'totalPoints') return new Uint8Array(noSlot + 1).fill(1);
  const slots = new Uint8Array(noSlot + 1);
  for (const [slot, { weight }] of categories.entries()) if (slot < noSlot && weight.units > 0n) slots[slot] = 1;
  return slots;
}

function limit(cap: Decimal | null): number {
  return cap ? Number(unitsAt(cap, 2)) : Infinity;
}
