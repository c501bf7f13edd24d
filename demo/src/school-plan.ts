import type { PeriodKind } from '#core/calendar';
import type { CourseLength, CourseLevel } from '#core/courses';

/** What stands before anything is drawn by lot: the schools, their calendars, scales, items and courses. */
export interface SchoolPlan {
  readonly id: number;
  readonly code: string;
  readonly name: string;
  readonly shortName: string;
  readonly periods: readonly PeriodPlan[];
  readonly scale: { readonly name: string; readonly highestLevel?: string; readonly bands: readonly BandPlan[] };
  readonly item: ItemPlan;
  readonly categories: readonly (readonly [name: string, weight: number])[];
  readonly courses: readonly CoursePlan[];
  readonly students: number;
  readonly teachers: number;
}

export interface PeriodPlan {
  readonly id: number;
  readonly parentId: number | null;
  readonly kind: PeriodKind;
  readonly name: string;
  readonly startsOn: string;
  readonly endsOn: string;
  /** When the school's item is posted for it. */
  readonly window?: readonly [opensAt: string, closesAt: string];
}

/** Label, lowest percent or level, grade points, descriptor; the bottom band fails where `bottomFails`. */
export type BandPlan = readonly [
  label: string,
  lowest: string,
  points: string | null,
  descriptor: string,
  passes: boolean,
];

interface ItemPlan {
  readonly name: string;
  readonly heading: string;
  readonly digits: number;
  readonly periodKind: PeriodKind;
  readonly failingNeedsLastDate: boolean;
  readonly asksHours: boolean;
  readonly onTranscript: boolean;
}

export interface CoursePlan {
  readonly title: string;
  readonly department: string;
  readonly level: CourseLevel;
  readonly length: CourseLength;
  readonly credits: string;
  readonly countsInGpa: boolean;
  /** The year of school it is for; null when anybody may take it. */
  readonly yearGroup: string | null;
}
