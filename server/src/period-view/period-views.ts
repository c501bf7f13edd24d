import { Injectable } from '@nestjs/common';
import {
  periodView,
  type PeriodView as View,
  type ReportedItem as Reported,
  type RunningSection as Running,
  type SchoolFacts as Facts,
} from '#core/period-view';
import type { Period } from '#core/calendar';
import type { SchoolReply } from '#contract/calendar';
import type { ReportItem } from '#core/report-items';
import { CodesRepository } from '#server/codes';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { CoursesRepository } from '#server/courses';
import { PlacementsRepository, placeName } from '#server/placements';
import { DistrictZone, Refusal, Transactions, type Queries } from '#server/platform';
import { ReportItemsRepository } from '#server/report-items';
import { PoliciesRepository, type KeptPolicy } from './policies.repository.js';
import { ScaleVersionsRepository, type ScaleVersion } from './scale-versions.repository.js';
import { SectionsRepository } from './sections.repository.js';
import { SetUpMark } from './set-up-mark.js';

export type PeriodView = View<ReportItem, ScaleVersion, KeptPolicy>;
export type ReportedItem = Reported<ReportItem, ScaleVersion, KeptPolicy>;
export type RunningSection = Running<KeptPolicy>;
export type SchoolFacts = Facts<ReportItem, ScaleVersion, KeptPolicy> & {
  readonly school: SchoolReply;
  readonly periods: readonly SchoolPeriod[];
  /** The district's time zone. */
  readonly zone: string;
};

/** A version of a scale in use for a section, and what says so in words. */
export interface SectionScale extends ScaleVersion {
  readonly from: string;
}

/** Says what counts in a period: every screen and every computation that works on one asks here. */
@Injectable()
export class PeriodViews {
  /** By school, as last read, with the mark of the set-up it was read under. */
  private readonly kept = new Map<number, { readonly mark: string; readonly facts: SchoolFacts }>();

  private readonly views = new WeakMap<SchoolFacts, Map<string, PeriodView>>();

  constructor(
    private readonly transactions: Transactions,
    private readonly setUpMark: SetUpMark,
    private readonly zone: DistrictZone,
    private readonly periods: PeriodsRepository,
    private readonly items: ReportItemsRepository,
    private readonly courses: CoursesRepository,
    private readonly placements: PlacementsRepository,
    private readonly sections: SectionsRepository,
    private readonly versions: ScaleVersionsRepository,
    private readonly policies: PoliciesRepository,
    private readonly specialCodes: CodesRepository,
  ) {}

  /**
   * Everything that says what counts when in a school; `periodView` looks at one period of it. Read anew only when the
   * set-up was written since.
   * @throws Refusal not-found
   */
  async factsOf(queries: Queries, schoolId: number): Promise<SchoolFacts> {
    const mark = await this.setUpMark.now(queries);
    const kept = this.kept.get(schoolId);
    // A transaction that wrote some of it sees a mark of its own, beyond whatever others have committed.
    if (kept?.mark === mark) return kept.facts;
    const facts = await this.readFacts(queries, schoolId);
    const isCommitted = this.transactions.onlyRead(queries);
    if (isCommitted && (await this.setUpMark.now(queries)) === mark) this.kept.set(schoolId, { mark, facts });
    return facts;
  }

  private async readFacts(queries: Queries, schoolId: number): Promise<SchoolFacts> {
    return {
      school: await this.periods.schoolOrThrow(queries, schoolId),
      zone: await this.zone.name(queries),
      periods: await this.periods.ofSchool(queries, schoolId),
      items: await this.items.ofSchool(queries, schoolId),
      assignment: {
        rules: await this.items.rulesOfSchool(queries, schoolId),
        exceptions: await this.items.exceptionsOfSchool(queries, schoolId),
      },
      courses: await this.courses.ofSchool(queries, schoolId),
      sections: await this.sections.ofSchool(queries, schoolId),
      placements: await this.placements.ofSchool(queries, schoolId),
      versions: await this.versions.ofSchool(queries, schoolId),
      policies: await this.policies.ofSchool(queries, schoolId),
      windows: await this.sections.windowsOf(queries, schoolId),
      codes: new Map((await this.specialCodes.all(queries)).map((code) => [code.code, code])),
    };
  }

  async of(queries: Queries, period: SchoolPeriod): Promise<PeriodView> {
    return this.viewOf(await this.factsOf(queries, period.schoolId), period);
  }

  /** What counts in a period by facts that were read; worked out once for the same facts. */
  viewOf(facts: SchoolFacts, period: Period): PeriodView {
    const known = this.views.get(facts) ?? new Map<string, PeriodView>();
    this.views.set(facts, known);
    const key = JSON.stringify(period);
    const view = known.get(key) ?? periodView(facts, period);
    known.set(key, view);
    return view;
  }
}

/** @throws Refusal not-found where the item is not reported in the period */
export function reportedOrThrow({ reported, period }: PeriodView, itemId: number): ReportedItem {
  const found = reported.find(({ item }) => item.id === itemId);
  if (!found) throw new Refusal('not-found', { what: `report item in ${period.name}`, id: itemId });
  return found;
}

/** The scale that an item of a section is posted under. */
export function scaleOf({ scales }: ReportedItem, sectionId: number): SectionScale | undefined {
  const inUse = scales.get(sectionId);
  return inUse && { ...inUse.version, from: inUse.placement ? placeName(inUse.placement) : 'the report item' };
}
