/** What a school has on its way from nothing to its first posted grade. */
export interface SetUpCounts {
  readonly students: number;
  readonly staff: number;
  readonly courses: number;
  /** Of the year, as the two that follow. */
  readonly sections: number;
  readonly enrollments: number;
  /** Its own, and those of the whole district. */
  readonly scales: number;
  readonly items: number;
  /** By which courses report items. */
  readonly rules: number;
  readonly grades: number;
}

/** The places of the first steps, in the order in which each needs those before it. */
export const firstStepPlaces = [
  'people',
  'courses',
  'sections',
  'enrollments',
  'scales',
  'report-items',
  'grade-sheets',
] as const;
export type FirstStepPlace = (typeof firstStepPlaces)[number];

export interface FirstStep {
  readonly place: FirstStepPlace;
  readonly isDone: boolean;
}

const isDoneAt: Readonly<Record<FirstStepPlace, (counts: SetUpCounts) => boolean>> = {
  people: ({ students, staff }) => students > 0 && staff > 0,
  courses: ({ courses }) => courses > 0,
  sections: ({ sections }) => sections > 0,
  enrollments: ({ enrollments }) => enrollments > 0,
  scales: ({ scales }) => scales > 0,
  'report-items': ({ items, rules }) => items > 0 && rules > 0,
  'grade-sheets': ({ grades }) => grades > 0,
};

/** Whether a school has no posted grade yet; with the first one it is under way. */
export function isBeingSetUp({ grades }: SetUpCounts): boolean {
  return grades === 0;
}

/**
 * The first steps of a school, each done or not; none once it is under way.
 * @example firstSteps({ students: 30, staff: 2, courses: 0, sections: 0, enrollments: 0, scales: 0, items: 0, rules: 0, grades: 0 })[1] // { place: 'courses', isDone: false }
 */
export function firstSteps(counts: SetUpCounts): readonly FirstStep[] {
  if (!isBeingSetUp(counts)) return [];
  return firstStepPlaces.map((place) => ({ place, isDone: isDoneAt[place](counts) }));
}
