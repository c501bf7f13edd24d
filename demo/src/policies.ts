import { plainPolicy, type CalculationPolicy } from '#core/calculation';
import { decimalOrThrow, formatDecimal, type Decimal } from '#core/numbers';
import type { District, SectionRow } from './district.js';
import type { SchoolPlan } from './school-plan.js';
import { college, planOf, primary, schoolPlans, upper } from './schools.js';
import { spindleRockPlaces } from './spindle-rock/places.js';
import { spindleRock } from './spindle-rock/spindle-rock.js';

/** Where something else holds than in the rest of the school: in a department or, by its name, in a section. */
export interface OwnPlace {
  readonly schoolId: number;
  readonly department: string | null;
  readonly section: string | null;
  readonly change: (policy: CalculationPolicy) => CalculationPolicy;
}

const ownPlaces: readonly OwnPlace[] = [
  {
    schoolId: upper.id,
    department: 'Numbers and Charts',
    section: null,
    change: (policy) => ({
      ...policy,
      categories: policy.categories.map((share, at) => (at === 1 ? { ...share, dropLowest: 1 } : share)),
      cap: decimalOrThrow('100'),
    }),
  },
  {
    schoolId: upper.id,
    department: null,
    section: 'Reading the Coast 3',
    change: (policy) => ({
      ...policy,
      categories: policy.categories.map((share, at) => ({
        ...share,
        weight: decimalOrThrow(['40', '20', '20', '20'][at]!),
      })),
    }),
  },
];

/** The policies of the demo: one for each school, and the places that have their own. */
export function writePolicies(district: District): void {
  for (const plan of schoolPlans) {
    const place = { schoolId: plan.id, department: null, sectionId: null, periodId: null };
    district.calculationPolicies.push({ ...place, id: plan.id, body: bodyOf(schoolPolicy(plan)) });
  }
  writeOwnPlaces(district, ownPlaces);
}

/** Policies of departments and sections alone. */
export function writeOwnPlaces(district: District, places: readonly OwnPlace[]): void {
  for (const { schoolId, department, section, change } of places) {
    const plan = [...schoolPlans, spindleRock].find(({ id }) => id === schoolId)!;
    const sectionId =
      section === null ? null : district.sections.find((each) => nameOf(district, each) === section)!.id;
    const id = district.calculationPolicies.length + 1;
    district.calculationPolicies.push({
      id,
      schoolId,
      department,
      sectionId,
      periodId: null,
      body: bodyOf(change(schoolPolicy(plan))),
    });
  }
}

/** The policy that holds for a section; where nobody set one, points are added up. */
export function policyOf(district: District, section: SectionRow): CalculationPolicy {
  const course = district.courses.find(({ id }) => id === section.courseId)!;
  const plan = planOf(section);
  const places = [...ownPlaces, ...spindleRockPlaces].filter(({ schoolId }) => schoolId === plan.id);
  const own =
    places.find((each) => each.section === nameOf(district, section)) ??
    places.find((each) => each.section === null && each.department === course.department);
  if (own) return own.change(schoolPolicy(plan));
  return plan === spindleRock ? plainPolicy : schoolPolicy(plan);
}

/** Weighted points; the primary school reads levels, the newest of them counting 75 %; the college lets nobody above 100. */
function schoolPolicy({ id, categories }: SchoolPlan): CalculationPolicy {
  const shares = categories.map(([, weight], at) => ({
    categoryId: id * 10 + at,
    weight: decimalOrThrow(String(weight)),
    dropLowest: 0,
    cap: null,
  }));
  const policy: CalculationPolicy = { ...plainPolicy, method: 'categoryPoints', categories: shares };
  if (id === college.id) return { ...policy, cap: decimalOrThrow('100') };
  if (id !== primary.id) return policy;
  const [most, meets] = [decimalOrThrow('4'), decimalOrThrow('3')];
  return { ...policy, method: 'decaying', levels: { most, meets, exceeds: most, evidence: 2 } };
}

/** As its course and its number say. */
export function nameOf(district: District, { courseId, number }: SectionRow): string {
  return `${district.courses.find(({ id }) => id === courseId)!.title} ${number}`;
}

/** As it is kept: decimals as text. */
function bodyOf(policy: CalculationPolicy): unknown {
  const asText = (_key: string, value: unknown) => (isDecimal(value) ? formatDecimal(value) : value);
  return JSON.parse(JSON.stringify(policy, asText)) as unknown;
}

function isDecimal(value: unknown): value is Decimal {
  return typeof value === 'object' && value !== null && 'units' in value && 'digits' in value;
}
