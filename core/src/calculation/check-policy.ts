import { compareDecimals, formatAtLeast, unitsAt, type Decimal } from '#core/numbers';
import { isOfEvidence, type CalculationPolicy } from './policy.js';

export type PolicyFaultCode =
  | 'weights-not-100'
  | 'weights-all-zero'
  | 'weight-negative'
  | 'category-unknown'
  | 'category-twice'
  | 'category-without-weight'
  | 'category-inactive'
  | 'drop-negative'
  | 'cap-not-positive'
  | 'newest-share-out-of-range'
  | 'levels-missing'
  | 'levels-out-of-order'
  | 'evidence-not-positive';

/** What is wrong with a policy. `blocks` keeps it from being saved; `warns` is for the registrar to judge. */
export interface PolicyFault {
  readonly code: PolicyFaultCode;
  readonly severity: 'blocks' | 'warns';
  /** The category it is about, or null. */
  readonly categoryId: number | null;
  readonly data: Readonly<Record<string, string>>;
}

/** A category as far as a policy is checked against it. */
export interface KnownCategory {
  readonly id: number;
  readonly name: string;
  readonly isActive: boolean;
}

const hundred: Decimal = { units: 100n, digits: 0 };

/** The faults of a policy whose section has the given categories. */
export function checkPolicy(policy: CalculationPolicy, known: readonly KnownCategory[]): PolicyFault[] {
  return [...checkCategories(policy, known), ...checkWeights(policy, known), ...checkNumbers(policy)];
}

/** The sum of the weights of a policy. */
export function sumOfCategoryWeights({ categories }: Pick<CalculationPolicy, 'categories'>): Decimal {
  return { units: categories.reduce((sum, { weight }) => sum + unitsAt(weight, 2), 0n), digits: 2 };
}

function checkCategories({ categories, method }: CalculationPolicy, known: readonly KnownCategory[]): PolicyFault[] {
  const faults: PolicyFault[] = [];
  for (const [at, { categoryId, weight, dropLowest, cap }] of categories.entries()) {
    const category = known.find(({ id }) => id === categoryId);
    const data = { category: category?.name ?? String(categoryId) };
    const add = (code: PolicyFaultCode, severity: PolicyFault['severity'], more: Record<string, string> = {}) =>
      faults.push({ code, severity, categoryId, data: { ...data, ...more } });
    if (!category) add('category-unknown', 'blocks');
    if (categories.findIndex((each) => each.categoryId === categoryId) < at) add('category-twice', 'blocks');
    if (category && !category.isActive && weight.units > 0n) add('category-inactive', 'warns');
    if (weight.units < 0n) add('weight-negative', 'blocks', { weight: formatAtLeast(weight, 0) });
    if (dropLowest < 0) add('drop-negative', 'blocks', { drop: String(dropLowest) });
    if (cap && cap.units <= 0n) add('cap-not-positive', 'blocks', { cap: formatAtLeast(cap, 0) });
  }
  if (method === 'totalPoints') return faults;
  for (const { id, name, isActive } of known) {
    if (isActive && !categories.some(({ categoryId }) => categoryId === id))
      faults.push({ code: 'category-without-weight', severity: 'warns', categoryId: id, data: { category: name } });
  }
  return faults;
}

function checkWeights(policy: CalculationPolicy, known: readonly KnownCategory[]): PolicyFault[] {
  if (policy.method === 'totalPoints') return [];
  const total = sumOfCategoryWeights(policy);
  if (total.units <= 0n) {
    const data = { categories: String(known.length) };
    return [{ code: 'weights-all-zero', severity: 'blocks', categoryId: null, data }];
  }
  if (compareDecimals(total, hundred) === 0) return [];
  return [{ code: 'weights-not-100', severity: 'warns', categoryId: null, data: { total: formatAtLeast(total, 0) } }];
}

function checkNumbers({ method, cap, newestShare, levels }: CalculationPolicy): PolicyFault[] {
  const faults: PolicyFault[] = [];
  const add = (code: PolicyFaultCode, data: Record<string, string> = {}) =>
    faults.push({ code, severity: 'blocks', categoryId: null, data });
  if (cap && cap.units <= 0n) add('cap-not-positive', { cap: formatAtLeast(cap, 0) });
  if (newestShare.units <= 0n || compareDecimals(newestShare, hundred) > 0)
    add('newest-share-out-of-range', { share: formatAtLeast(newestShare, 0) });
  if (!isOfEvidence(method)) return faults;
  if (!levels) add('levels-missing');
  else {
    const { most, meets, exceeds, evidence } = levels;
    const isOrdered = meets.units > 0n && compareDecimals(meets, exceeds) <= 0 && compareDecimals(exceeds, most) <= 0;
    if (!isOrdered)
      add('levels-out-of-order', {
        meets: formatAtLeast(meets, 0),
        exceeds: formatAtLeast(exceeds, 0),
        most: formatAtLeast(most, 0),
      });
    if (evidence < 1) add('evidence-not-positive', { evidence: String(evidence) });
  }
  return faults;
}
