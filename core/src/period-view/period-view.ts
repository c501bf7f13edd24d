import { policyInForce, type PolicyPlace } from '#core/calculation';
import type { Day, LatePosters, Period, PostingWindow } from '#core/calendar';
import { sectionName, type Course } from '#core/courses';
import type { Credits } from '#core/numbers';
import type { SpecialCode } from '#core/codes';
import { coverage, isPostedIn, reportsItem, type Assignment, type ReportItem } from '#core/report-items';
import { scaleInForce, type DatedPlacement, type ScalePlacement } from '#core/scales';
import { periodShare } from '#core/transcripts';
import { isRunning } from './is-running.js';
import { countedPlacements, versionsInForce, type DatedVersion } from './version-in-force.js';

/** A section as it is kept. */
export interface SectionFact {
  readonly id: number;
  readonly courseId: number;
  readonly number: number;
  readonly teacherId: number;
  /** Who teach it too. */
  readonly coTeacherIds: readonly number[];
  /** Family name first. */
  readonly teacher: string;
  /** The period through which it runs. */
  readonly term: { readonly startsOn: Day; readonly endsOn: Day };
  /** Its own first and last day; those of its period where it has none. */
  readonly runs: { readonly startsOn: Day; readonly endsOn: Day };
}

/** When an item may be posted for a period. */
export interface ItemWindow extends PostingWindow {
  readonly itemId: number;
  readonly periodId: number;
  readonly graceUntil: string | null;
  readonly latePosters: LatePosters;
}

/** Everything of a school that says what counts when. Of all periods, so that each is asked of the same facts. */
export interface SchoolFacts<Item extends ReportItem, Version extends DatedVersion, Policy extends PolicyPlace> {
  readonly periods: readonly Period[];
  readonly items: readonly Item[];
  readonly assignment: Assignment;
  readonly courses: readonly Course[];
  readonly sections: readonly SectionFact[];
  readonly placements: readonly DatedPlacement[];
  readonly versions: readonly Version[];
  readonly policies: readonly Policy[];
  readonly windows: readonly ItemWindow[];
  readonly codes: ReadonlyMap<string, SpecialCode>;
}

/** A section that runs in the period. */
export interface RunningSection<Policy> {
  readonly id: number;
  readonly course: Course;
  /** Title of the course and number of the section: "Tidal Ecology 3". */
  readonly name: string;
  readonly teacherId: number;
  readonly coTeacherIds: readonly number[];
  readonly teacher: string;
  readonly runs: SectionFact['runs'];
  /** The part of the course's credits that falls to the period. */
  readonly credits: Credits;
  /** How its grade book is calculated; undefined where nobody set it. */
  readonly policy: Policy | undefined;
}

/** A version of a scale in use, and what says so: the item, or the place where the scale is used. */
export interface ScaleInUse<Version> {
  readonly version: Version;
  readonly placement: ScalePlacement | null;
}

/** An item that is reported in the period. */
export interface ReportedItem<Item, Version, Policy> {
  readonly item: Item;
  readonly sections: readonly RunningSection<Policy>[];
  readonly window: ItemWindow | null;
  /** By section; a section without a scale is not there. */
  readonly scales: ReadonlyMap<number, ScaleInUse<Version>>;
}

/**
 * What counts in a period: which sections run in it, with which credits and policy, which items each reports and under
 * which scale. Whoever shows or computes a number of the period asks this and nothing else.
 */
export interface PeriodView<Item extends ReportItem, Version extends DatedVersion, Policy extends PolicyPlace> {
  readonly period: Period;
  readonly sections: readonly RunningSection<Policy>[];
  /** In the order of the report card; an item that no course reports is not there. */
  readonly reported: readonly ReportedItem<Item, Version, Policy>[];
  readonly codes: ReadonlyMap<string, SpecialCode>;
}

/** Looks at one period of a school. A placed scale whose first version begins later does not count yet. */
export function periodView<Item extends ReportItem, Version extends DatedVersion, Policy extends PolicyPlace>(
  facts: SchoolFacts<Item, Version, Policy>,
  period: Period,
): PeriodView<Item, Version, Policy> {
  const sections = runningSections(facts, period);
  const versions = versionsInForce(facts.versions, period);
  const placements = countedPlacements(facts.placements, facts.versions, period);
  const covered = coverage(facts.courses, facts.assignment);
  const items = facts.items.filter((item) => isPostedIn(item, facts.periods, period));
  return {
    period,
    sections,
    codes: facts.codes,
    reported: items.flatMap((item) => {
      const courses = new Set(covered.filter((course) => reportsItem(course, item.id)).map(({ course }) => course.id));
      if (courses.size === 0) return [];
      const own = sections.filter(({ course }) => courses.has(course.id));
      const window = facts.windows.find(({ itemId, periodId }) => itemId === item.id && periodId === period.id) ?? null;
      return [{ item, sections: own, window, scales: scalesOf(item, own, placements, versions) }];
    }),
  };
}

function runningSections<Item extends ReportItem, Version extends DatedVersion, Policy extends PolicyPlace>(
  { periods, courses, sections, policies }: SchoolFacts<Item, Version, Policy>,
  period: Period,
): RunningSection<Policy>[] {
  const byId = new Map(courses.map((course) => [course.id, course]));
  const siblings = periods.filter(({ kind }) => kind === period.kind);
  return sections
    .filter((section) => isRunning(section, period))
    .flatMap((section) => {
      const { id, courseId, number, teacherId, coTeacherIds, teacher, runs } = section;
      const course = byId.get(courseId);
      if (!course) return [];
      const own = siblings.filter((sibling) => isRunning(section, sibling));
      return [
        {
          id,
          course,
          name: sectionName(course.title, number),
          teacherId,
          coTeacherIds,
          teacher,
          runs,
          credits: periodShare(course.credits, runs, period, own),
          policy: policyInForce(policies, { id, department: course.department }, period.id),
        },
      ];
    });
}

/** The item's own scale, or the one that is used at the place of each section. */
function scalesOf<Version extends DatedVersion, Policy>(
  { scaleId }: Pick<ReportItem, 'scaleId'>,
  sections: readonly RunningSection<Policy>[],
  placements: readonly ScalePlacement[],
  versions: ReadonlyMap<number, Version>,
): ReadonlyMap<number, ScaleInUse<Version>> {
  return new Map(
    sections.flatMap(({ id, course }) => {
      const { schoolId, department, level, id: courseId } = course;
      const seeker = { schoolId, department, level, courseId, sectionId: id };
      const placement = scaleId === null ? (scaleInForce(placements, seeker)?.placement ?? null) : null;
      const version = versions.get(scaleId ?? placement?.scaleId ?? 0);
      return version ? [[id, { version, placement }] as const] : [];
    }),
  );
}
