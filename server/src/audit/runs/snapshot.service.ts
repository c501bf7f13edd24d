import { Injectable } from '@nestjs/common';
import type { AttendanceSummary } from '#core/attendance';
import { itemFactOf, noSections, type GradeFact, type Snapshot, type StrayGrade } from '#core/audit';
import { localTime } from '#core/calendar';
import type { CompositeReply } from '#contract/posting';
import { AttendanceRepository } from '#server/attendance';
import type { SchoolPeriod } from '#server/calendar';
import { Clock, type Queries } from '#server/platform';
import { CompositesService, GradeRowsRepository, type GradeRow, type RowsByItem } from '#server/posting';
import {
  PeriodViews,
  ScaleVersionsRepository,
  type ReportedItem,
  type ScaleVersion,
  type SchoolFacts,
} from '#server/period-view';
import { byId } from './by-id.js';
import {
  gradeFactOf,
  namesIn,
  noScale,
  scaleInWords,
  type GradedRow,
  type Names,
  type ScaleInWords,
} from './grade-fact-of.js';
import { SectionFactsService } from './section-facts.service.js';
import { stretchesOf } from './stretches-of.js';

/** A period as the audit sees it, and the rows behind its facts. */
export interface PeriodSnapshot {
  readonly snapshot: Snapshot;
  readonly graded: readonly GradedRow[];
}

/** What an audit reads of a period, so many sections at a time. */
export interface SectionsOfPeriod {
  readonly running: readonly number[];
  /** Sections that do not run in the period; what is posted in them should not be. */
  readonly elsewhere: readonly number[];
  /** The period without any section, on the day and at the moment of the audit. */
  readonly nothing: Snapshot;
}

/** The grades of an item, row by row and as rules see them. */
interface OfItem {
  readonly graded: GradedRow[];
  readonly grades: GradeFact[];
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
    private readonly clock: Clock,
  ) {}

  /** All that an audit looks at in some sections. */
  async ofAudit(queries: Queries, period: SchoolPeriod, only: Iterable<number>): Promise<PeriodSnapshot> {
    const ids = [...only];
    const facts = await this.views.factsOf(queries, period.schoolId);
    const { graded, snapshot } = await this.ofSections(queries, facts, period, ids);
    return { graded, snapshot: { ...snapshot, ...(await this.sectionFacts.ofSections(queries, facts, period, ids)) } };
  }

  async sectionsOf(queries: Queries, period: SchoolPeriod): Promise<SectionsOfPeriod> {
    const facts = await this.views.factsOf(queries, period.schoolId);
    const running = byId(this.views.viewOf(facts, period).sections);
    const { snapshot } = await this.ofSections(queries, facts, period, []);
    return {
      running: [...running.keys()],
      elsewhere: facts.sections.map(({ id }) => id).filter((id) => !running.has(id)),
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
  async ofPeriod(
    queries: Queries,
    period: SchoolPeriod,
    only?: Iterable<number>,
    asIf?: (row: GradeRow, itemId: number) => GradeRow,
  ): Promise<PeriodSnapshot> {
    const facts = await this.views.factsOf(queries, period.schoolId);
    const all = byId(this.views.viewOf(facts, period).sections).keys();
    return this.ofSections(queries, facts, period, [...(only ?? all)], asIf);
  }

  /** The part of the period that concerns one student. */
  async ofStudent(queries: Queries, period: SchoolPeriod, studentId: number): Promise<PeriodSnapshot> {
    const facts = await this.views.factsOf(queries, period.schoolId);
    const items = this.views.viewOf(facts, period).reported.map(({ item }) => item);
    return this.take(queries, facts, period, [() => this.rows.itemsOfStudent(queries, items, period, studentId)]);
  }

  private ofSections(
    queries: Queries,
    facts: SchoolFacts,
    period: SchoolPeriod,
    ids: readonly number[],
    asIf: (row: GradeRow, itemId: number) => GradeRow = (row) => row,
  ): Promise<PeriodSnapshot> {
    const { sections, reported } = this.views.viewOf(facts, period);
    const read = async (some: readonly number[]) => {
      const theirs = reported.filter((each) => some.some((id) => byId(each.sections).has(id)));
      const items = theirs.map(({ item }) => item);
      const found = await this.rows.itemsOfSections(queries, items, period, some);
      return new Map(Array.from(found, ([itemId, rows]) => [itemId, rows.map((row) => asIf(row, itemId))]));
    };
    const running = ids.filter((id) => byId(sections).has(id));
    const reads = stretchesOf(running).map((some) => () => read(some));
    return this.take(queries, facts, period, reads);
  }

  /** @param reads how the rows of all items are read, one part after the other */
  private async take(
    queries: Queries,
    facts: SchoolFacts,
    period: SchoolPeriod,
    reads: readonly (() => Promise<RowsByItem>)[],
  ): Promise<PeriodSnapshot> {
    const { reported, codes } = this.views.viewOf(facts, period);
    const found = new Map<ReportedItem, OfItem>(reported.map((reporting) => [reporting, { graded: [], grades: [] }]));
    for (const read of reads) {
      const rowsOf = await read();
      const around = await this.aroundOf(queries, facts, period, [...rowsOf.values()].flat());
      for (const [reporting, { graded, grades }] of found) {
        const own = await this.withSections(queries, facts, reporting, rowsOf.get(reporting.item.id) ?? []);
        const composites = await this.compositesOf(queries, reporting, period, own);
        graded.push(...own);
        grades.push(...factsOf(reporting, own, around, composites, codes));
      }
    }
    const now = this.clock.now();
    const today = localTime(facts.zone, now).day;
    const { startsOn: periodStartsOn, endsOn: periodEndsOn } = period;
    const all = [...found.values()];
    return {
      graded: all.flatMap(({ graded }) => graded),
      snapshot: {
        ...noSections,
        periodStartsOn,
        periodEndsOn,
        today,
        now: now.toISOString(),
        codes,
        grades: all.flatMap(({ grades }) => grades),
      },
    };
  }

  /** What is the same for all grades of a student. */
  private async aroundOf(
    queries: Queries,
    { school }: SchoolFacts,
    period: SchoolPeriod,
    rows: readonly GradeRow[],
  ): Promise<Around> {
    const sectionIds = [...new Set(rows.map(({ sectionId }) => sectionId))];
    const takesAttendance = school.takesAttendance && sectionIds.length > 0;
    return {
      names: namesIn(rows),
      attendance: takesAttendance ? await this.attendance.summaries(queries, sectionIds, period) : new Map(),
    };
  }

  private compositesOf(
    queries: Queries,
    { item }: ReportedItem,
    period: SchoolPeriod,
    rows: readonly GradedRow[],
  ): Promise<ReadonlyMap<number, CompositeReply>> {
    const scales = new Map(rows.map(({ section, scale }) => [section.id, scale]));
    return this.composites.ofSections(queries, item, period, scales);
  }

  /** Rows of sections that do not report the item are left out. */
  private async withSections(
    queries: Queries,
    facts: SchoolFacts,
    reporting: ReportedItem,
    rows: readonly GradeRow[],
  ): Promise<GradedRow[]> {
    const sections = byId(reporting.sections);
    const own = rows.filter(({ sectionId }) => sections.has(sectionId));
    const usable = byId(facts.versions);
    // None as a rule: these are of scales that the school does not have.
    const others = own.flatMap(({ scaleVersionId: id }) => (id === null || usable.has(id) ? [] : id));
    const versions = await this.scales.byId(queries, [...new Set(others)]);
    return own.map((row) => {
      const section = sections.get(row.sectionId)!;
      const id = row.scaleVersionId ?? 0;
      const posted: ScaleVersion | undefined = usable.get(id) ?? versions.get(id);
      return { row, reporting, section, scale: posted ?? reporting.scales.get(section.id)?.version ?? noScale };
    });
  }
}

/** What is known around the grades of some sections. */
interface Around {
  readonly names: Names;
  /** By enrollment; empty where no attendance is taken. */
  readonly attendance: ReadonlyMap<number, AttendanceSummary>;
}

/** The grades of one item as rules see them. */
function factsOf(
  { item, window }: ReportedItem,
  rows: readonly GradedRow[],
  { names, attendance }: Around,
  composites: ReadonlyMap<number, CompositeReply>,
  codes: Snapshot['codes'],
): GradeFact[] {
  const fact = itemFactOf(item, window);
  const inWords = new Map<ScaleVersion, ScaleInWords>();
  return rows.map((each) => {
    const { enrollmentId } = each.row;
    const scale = inWords.get(each.scale) ?? scaleInWords(each.scale, item, [...codes.values()]);
    inWords.set(each.scale, scale);
    return gradeFactOf(each, {
      item: fact,
      scale,
      composite: composites.get(enrollmentId) ?? null,
      attendance: attendance.get(enrollmentId) ?? null,
      named: names.byEnrollment.get(enrollmentId)!,
      classmates: names.bySection.get(each.section.id)!,
    });
  });
}
