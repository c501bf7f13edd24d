import type { AttendanceSummary } from '#core/attendance';
import type { GradeFact, ItemFact, ScaleFact } from '#core/audit';
import { dayOrThrow } from '#core/calendar';
import type { SpecialCode } from '#core/codes';
import { formatDecimal } from '#core/numbers';
import { computedValue, type GradeRow } from '#core/grade-rows';
import { givenNamesOf } from '#core/people';
import {
  computedOf,
  entryRulesFor,
  proposedMark,
  type CompositeSays,
  type EntryRules,
  type NamedStudent,
} from '#core/posting';
import type { ReportedItem, RunningSection, ScaleVersion } from '#server/period-view';

/** A row of a grade with what it is posted under. */
export interface GradedRow {
  readonly row: GradeRow;
  readonly section: RunningSection;
  readonly reporting: ReportedItem;
  /** The version the grade was posted under, or the one in force. */
  readonly scale: ScaleVersion;
}

/** What is known beside the row of a grade. */
export interface Beside {
  readonly item: ItemFact;
  readonly scale: ScaleInWords;
  readonly composite: CompositeSays | null;
  readonly attendance: AttendanceSummary | null;
  readonly named: NamedStudent;
  readonly classmates: GradeFact['classmates'];
}

/** A scale as rules see it, and how an item takes its labels. */
export interface ScaleInWords {
  readonly fact: ScaleFact;
  readonly rules: EntryRules;
}

export function scaleInWords(
  { scaleName: name, bands: all, highestLevel }: ScaleVersion,
  item: ReportedItem['item'],
  codes: readonly SpecialCode[],
): ScaleInWords {
  const bands = all.filter(({ isOff }) => !isOff);
  return { fact: { name, bands, highestLevel }, rules: entryRulesFor({ bands, highestLevel }, item, codes) };
}

export function gradeFactOf({ row, section, scale }: GradedRow, beside: Beside): GradeFact {
  const { enrollmentId, mark, enteredOn, withdrawnOn, computedThen, postedAt } = row;
  const computed = computedValue(row, scale);
  const source = { computed: computed && { percent: formatDecimal(computed) }, composite: beside.composite };
  return {
    enrollmentId,
    sectionId: section.id,
    mark,
    enteredOn,
    withdrawnOn,
    computed: computedOf(source),
    computedThen,
    proposal: proposedMark(source, mark, beside.scale.rules),
    postedAt: postedAt?.toISOString() ?? null,
    attendance: beside.attendance,
    named: beside.named,
    classmates: beside.classmates,
    allowsExempt: section.course.allowsExempt,
    item: beside.item,
    scale: beside.scale.fact,
  };
}

/** Students as comments may name them: by enrollment, and those of each section together. */
export interface Names {
  readonly byEnrollment: ReadonlyMap<number, NamedStudent>;
  readonly bySection: ReadonlyMap<number, readonly NamedStudent[]>;
}

/** @param rows each student once */
export function namesIn(rows: readonly GradeRow[]): Names {
  const byEnrollment = new Map<number, NamedStudent>();
  const bySection = new Map<number, NamedStudent[]>();
  for (const { enrollmentId, sectionId, student } of rows) {
    const named = { givenNames: givenNamesOf(student) };
    byEnrollment.set(enrollmentId, named);
    const own = bySection.get(sectionId);
    if (own) own.push(named);
    else bySection.set(sectionId, [named]);
  }
  return { byEnrollment, bySection };
}

/** Where no scale is in force no label fits; the check of the set-up says so. */
export const noScale: ScaleVersion = {
  id: 0,
  scaleId: 0,
  scaleName: 'no scale',
  kind: 'percent',
  highestLevel: null,
  number: 0,
  fromPeriodId: 0,
  fromDay: dayOrThrow('0001-01-01'),
  bands: [],
};
