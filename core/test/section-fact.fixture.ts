import { plainPolicy, type CalculationPolicy } from '#core/calculation';
import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow } from '#core/numbers';
import type { AssignmentFact, GradeFact, SectionFact, SheetFact, Snapshot } from '#core/audit';
import { grade, snapshot } from './grade-fact.fixture.js';
import { letterBands } from './letter-scale.fixture.js';

const day = dayOrThrow;
export const { item } = grade({});
export const letters = { name: 'Letter scale', kind: 'percent', bands: letterBands, highestLevel: null } as const;

export const sheet = (
  more: Partial<Omit<SheetFact, 'item'>> & { readonly item?: Partial<SheetFact['item']> } = {},
) => ({
  scale: letters,
  isSignedOff: true,
  ...more,
  item: { ...item, ...more.item },
});

/** Weights by the numbers of categories, the rest as plain as may be. */
export const weighed = (weights: Readonly<Record<number, string>>, more: Partial<CalculationPolicy> = {}) => ({
  ...plainPolicy,
  method: 'categoryPoints' as const,
  categories: Object.entries(weights).map(([categoryId, weight]) => ({
    categoryId: Number(categoryId),
    weight: decimalOrThrow(weight),
    dropLowest: 0,
    cap: null,
  })),
  ...more,
});

export const seat = (more: Partial<SectionFact['students'][number]> = {}) => ({
  enrollmentId: 1,
  studentId: 501,
  enteredOn: day('2025-11-10'),
  withdrawnOn: null,
  creditsBefore: decimalOrThrow('0'),
  ...more,
});

export const assignment = (more: Partial<AssignmentFact> = {}): AssignmentFact => ({
  name: 'Knots',
  category: 'Work',
  categoryId: 1,
  possible: decimalOrThrow('10'),
  dueOn: day('2025-12-01'),
  isExtra: false,
  isCounted: true,
  isPublished: true,
  scored: 20,
  highest: decimalOrThrow('10'),
  ...more,
});

/** A section that no rule has anything against, changed as the case says. */
export const section = (more: Partial<SectionFact> = {}): SectionFact => ({
  id: 31,
  name: 'Weaving 1',
  course: { id: 5, title: 'Weaving', department: 'Crafts', onTranscript: true, mostCredits: null },
  credits: decimalOrThrow('0.25'),
  students: [seat()],
  sheets: [sheet()],
  policy: weighed({ 1: '60', 2: '40' }),
  bookProblem: null,
  unmatched: [],
  assignments: [
    assignment(),
    assignment({ name: 'Bends' }),
    assignment({ name: 'Test', category: 'Tests', categoryId: 2, possible: decimalOrThrow('50'), highest: null }),
    assignment({ name: 'Test 2', category: 'Tests', categoryId: 2, possible: decimalOrThrow('50') }),
  ],
  ...more,
});

/** A period of these sections and grades. */
export const periodOf = (
  sections: readonly SectionFact[],
  grades: readonly GradeFact[] = [],
  more: Partial<Snapshot> = {},
): Snapshot => ({ ...snapshot(...grades), sections, ...more });
