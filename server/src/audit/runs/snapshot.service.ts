import { Injectable } from '@nestjs/common';
import type { AttendanceSummary } from '#core/attendance';
import { itemFactOf, noSections, type GradeFact, type ItemFact, type Snapshot, type StrayGrade } from '#core/audit';
import { dayOrThrow } from '#core/calendar';
import type { SpecialCode } from '#core/codes';
import { formatDecimal } from '#core/numbers';
import { entryRulesFor, type NamedStudent } from '#core/posting';
import { computedOf, proposedMark, type CompositeReply } from '#contract/posting';
import { AttendanceRepository } from '#server/attendance';
import type { SchoolPeriod } from '#server/calendar';
import { Clock, DistrictZone, type Queries } from '#server/platform';
import { CompositesService, computedValue, givenNamesOf, GradeRowsRepository, type GradeRow } from '#server/posting';
import {
  PeriodViews,
  ScaleVersionsRepository,
  type ReportedItem,
  type RunningSection,
  type ScaleVersion,
} from '#server/period-view';
import { sectionsById } from './sections-by-id.js';
import { SectionFactsService } from './section-facts.service.js';
import { stretchesOf } from './stretches-of.js';

/** A period as the audit sees it, and the rows behind its facts. */
export interface PeriodSnapshot {
  readonly snapshot: Snapshot;
  readonly graded: readonly GradedRow[];
}

/** How a period is read part by part. */
export interface PartsOfPeriod {
  /** Sections that are read at once. */
  readonly parts: readonly ReadonlySet<number>[];
  /** Sections that do not run in the period; what is posted in them should not be. */
  readonly elsewhere: readonly (readonly number[])[];
  /** The period without any section, on the day and at the moment of the audit. */
  readonly nothing: Snapshot;
}

export interface GradedRow {
  readonly row: GradeRow;
  readonly section: RunningSection;
  readonly reporting: ReportedItem;
  /** The version the grade was posted under, or the one in force. */
  readonly scale: ScaleVersion;
}

@Injectable()
export class SnapshotService {
  constructor(
    private readonly views: PeriodViews,
    private readonly rows: GradeRowsRepository,
    private readonly scales: ScaleVersionsRepository,
    private readonly composites: CompositesService,
    private readonly attendance: AttendanceRepository,
    private readonly sectionFacts: SectionFactsService,
    private readonly zone: DistrictZone,
    private readonly clock: Clock,
  ) {}

  /** All that an audit looks at in some sections. */
  async ofAudit(queries: Queries, period: SchoolPeriod, only: ReadonlySet<number>): Promise<PeriodSnapshot> {
    const { graded, snapshot } = await this.ofPeriod(queries, period, only);
    return { graded, snapshot: { ...snapshot, ...(await this.sectionFacts.ofSections(queries, period, only)) } };
  }

  /** What an audit of a period looks at in parts. */
  async partsOf(queries: Queries, period: SchoolPeriod): Promise<PartsOfPeriod> {
    const facts = await this.views.factsOf(queries, period.schoolId);
    const running = sectionsById(this.views.viewOf(facts, period).sections);
    const others = facts.sections.map(({ id }) => id).filter((id) => !running.has(id));
    const { snapshot } = await this.ofPeriod(queries, period, new Set());
    return {
      parts: stretchesOf([...running.keys()]).map((part) => new Set(part)),
      elsewhere: stretchesOf(others),
      nothing: snapshot,
    };
  }

  /** What stands in sections that do not run in the period. */
  straysIn(queries: Queries, period: SchoolPeriod, sectionIds: readonly number[]): Promise<StrayGrade[]> {
    return this.sectionFacts.straysIn(queries, period, sectionIds);
  }

  /**
   * The grades alone.
   * @param only the sections that are looked at; without them, all of the period
   * @param asIf a row of an item as it would be, where something is about to change
   */
  ofPeriod(
    queries: Queries,
    period: SchoolPeriod,
    only?: ReadonlySet<number>,
    asIf: (row: GradeRow, itemId: number) => GradeRow = (row) => row,
  ): Promise<PeriodSnapshot> {
    return this.take(queries, period, ({ item, sections }) =>
      stretchesOf([...(only ?? sectionsById(sections).keys())].filter((id) => sectionsById(sections).has(id))).map(
        (some) => async () =>
          (await this.rows.ofSections(queries, item.id, period, some)).map((row) => asIf(row, item.id)),
      ),
    );
  }

  /** The part of the period that concerns one student. */
  ofStudent(queries: Queries, period: SchoolPeriod, studentId: number): Promise<PeriodSnapshot> {
    return this.take(queries, period, ({ item }) => [() => this.rows.ofStudent(queries, item.id, period, studentId)]);
  }

  /** @param reads how the rows of an item are read, one part after the other */
  private async take(
    queries: Queries,
    period: SchoolPeriod,
    reads: (reporting: ReportedItem) => readonly (() => Promise<GradeRow[]>)[],
  ): Promise<PeriodSnapshot> {
    const graded: GradedRow[] = [];
    const grades: GradeFact[] = [];
    const facts = await this.views.factsOf(queries, period.schoolId);
    const { reported, codes } = this.views.viewOf(facts, period);
    const attendance = facts.school.takesAttendance ? new Map<number, AttendanceSummary>() : undefined;
    for (const reporting of reported) {
      const item = itemFactOf(reporting.item, reporting.window);
      for (const read of reads(reporting)) {
        const own = await this.withSections(queries, reporting, await read());
        const composites = await this.compositesOf(queries, reporting, period, own);
        if (attendance) await this.addAttendance(queries, attendance, own, period);
        const named = namesBySection(own);
        for (const each of own) {
          graded.push(each);
          grades.push(
            gradeFact(each, {
              item,
              codes,
              composite: composites.get(each.row.enrollmentId) ?? null,
              attendance: attendance?.get(each.row.enrollmentId) ?? null,
              classmates: named.get(each.section.id)!,
            }),
          );
        }
      }
    }
    const today = await this.zone.today(queries);
    const { startsOn: periodStartsOn, endsOn: periodEndsOn } = period;
    const dates = { periodStartsOn, periodEndsOn, today, now: this.clock.now().toISOString() };
    return { graded, snapshot: { ...noSections, ...dates, codes, grades } };
  }

  private compositesOf(
    queries: Queries,
    { item }: ReportedItem,
    period: SchoolPeriod,
    rows: readonly GradedRow[],
  ): Promise<ReadonlyMap<number, CompositeReply>> {
    return this.composites.ofSections(
      queries,
      item,
      period,
      new Map(rows.map(({ section, scale }) => [section.id, scale])),
    );
  }

  /** What registers tell of sections that are not looked up yet. */
  private async addAttendance(
    queries: Queries,
    known: Map<number, AttendanceSummary>,
    rows: readonly GradedRow[],
    period: SchoolPeriod,
  ): Promise<void> {
    const open = rows.filter(({ row }) => !known.has(row.enrollmentId)).map(({ section }) => section.id);
    const found = await this.attendance.summaries(queries, [...new Set(open)], period);
    for (const [enrollmentId, summary] of found) known.set(enrollmentId, summary);
  }

  /** Rows of sections that do not report the item are left out. */
  private async withSections(
    queries: Queries,
    reporting: ReportedItem,
    rows: readonly GradeRow[],
  ): Promise<GradedRow[]> {
    const sections = sectionsById(reporting.sections);
    const ids = rows.flatMap(({ scaleVersionId }) => scaleVersionId ?? []);
    const versions = await this.scales.byId(queries, [...new Set(ids)]);
    return rows.flatMap((row) => {
      const section = sections.get(row.sectionId);
      if (!section) return [];
      const posted = row.scaleVersionId === null ? undefined : versions.get(row.scaleVersionId);
      return [{ row, reporting, section, scale: posted ?? reporting.scales.get(section.id)?.version ?? noScale }];
    });
  }
}

/** Those of each section as comments may name them. */
function namesBySection(rows: readonly GradedRow[]): ReadonlyMap<number, NamedStudent[]> {
  const found = new Map<number, NamedStudent[]>();
  for (const { row, section } of rows) {
    const own = found.get(section.id) ?? [];
    own.push({ givenNames: givenNamesOf(row.student) });
    found.set(section.id, own);
  }
  return found;
}

interface Beside {
  readonly item: ItemFact;
  readonly codes: ReadonlyMap<string, SpecialCode>;
  readonly composite: CompositeReply | null;
  readonly attendance: AttendanceSummary | null;
  readonly classmates: GradeFact['classmates'];
}

function gradeFact({ row, section, reporting, scale }: GradedRow, beside: Beside): GradeFact {
  const { enrollmentId, mark, enteredOn, withdrawnOn, computedThen, postedAt } = row;
  const bands = scale.bands.filter(({ isOff }) => !isOff);
  const { highestLevel } = scale;
  const computed = computedValue(row, scale);
  const rules = entryRulesFor({ bands, highestLevel }, reporting.item, [...beside.codes.values()]);
  const source = { computed: computed && { percent: formatDecimal(computed) }, composite: beside.composite };
  return {
    enrollmentId,
    sectionId: section.id,
    mark,
    enteredOn,
    withdrawnOn,
    computed: computedOf(source),
    computedThen,
    proposal: proposedMark(source, mark, rules),
    postedAt: postedAt?.toISOString() ?? null,
    attendance: beside.attendance,
    named: { givenNames: givenNamesOf(row.student) },
    classmates: beside.classmates,
    allowsExempt: section.course.allowsExempt,
    item: beside.item,
    scale: { name: scale.scaleName, bands, highestLevel },
  };
}

/** Where no scale is in force no label fits; the check of the set-up says so. */
const noScale: ScaleVersion = {
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
