import type { PeriodKind } from '#core/calendar';
import type { Decimal, Percent, RoundingName } from '#core/numbers';

export const itemKinds = ['progress', 'period', 'exam', 'final', 'standard', 'conduct'] as const;
export type ItemKind = (typeof itemKinds)[number];

/** Where an item's value comes from. */
export const itemSources = ['gradeBook', 'hand', 'composite'] as const;
export type ItemSource = (typeof itemSources)[number];

/** What the parts of a composite are averaged by. */
export const partUnits = ['percent', 'points'] as const;
export type PartUnit = (typeof partUnits)[number];

export const commentRules = ['none', 'optional', 'requiredBelow'] as const;
export type CommentRule = (typeof commentRules)[number];

export const familyViews = ['label', 'percent', 'both', 'descriptor', 'hidden'] as const;
export type FamilyView = (typeof familyViews)[number];

/** From when families see what is posted: at once, when the posting window closes, or when the period is sealed. */
export const familyTimes = ['posted', 'closed', 'sealed'] as const;
export type FamilyTime = (typeof familyTimes)[number];

/** One part of a composite: an item in the nth of its periods inside the composite's own period, from 1. */
export interface CompositePart {
  readonly itemId: number;
  readonly ordinal: number;
  /** Above 0, at most two decimals; the weights of a composite add up to exactly 100. */
  readonly weight: Decimal;
}

/** One thing that a report card shows for a student in a course. */
export interface ReportItem {
  readonly id: number;
  readonly schoolId: number;
  readonly name: string;
  /** The heading of its column. */
  readonly heading: string;
  readonly kind: ItemKind;
  /** The kind of period it is posted in, and which of them in a year, from 1; null means each. */
  readonly periodKind: PeriodKind;
  readonly ordinals: readonly number[] | null;
  /** Its own scale; null for the scale that is in force for the course or section. */
  readonly scaleId: number | null;
  readonly source: ItemSource;
  /** The category or standard of the grade book that the value is taken from; null for the book as a whole. */
  readonly categoryId: number | null;
  readonly countBy: PartUnit;
  readonly parts: readonly CompositePart[];
  readonly digits: number;
  readonly rounding: RoundingName;
  /** The highest percent that is posted, from 100 to 200; where the scale has levels, the one at its top goes instead. */
  readonly highestPercent: Percent;
  readonly commentRule: CommentRule;
  /** The label below which a comment is required; null unless the rule says so. */
  readonly commentBelow: string | null;
  readonly commentLength: number;
  readonly familyView: FamilyView;
  readonly familyTime: FamilyTime;
  readonly failingNeedsLastDate: boolean;
  /** Whether its sheet has a column for the hours attended. */
  readonly asksHours: boolean;
  readonly onTranscript: boolean;
  readonly countsInGpa: boolean;
  readonly position: number;
}
