import { Injectable } from '@nestjs/common';
import type { StrayGrade, Snapshot } from '#core/audit';
import { localTime } from '#core/calendar';
import type { GradeRow, RowsByItem } from '#core/grade-rows';
import type { CompositeSays } from '#core/posting';
import { AttendanceRepository } from '#server/attendance';
import type { SchoolPeriod } from '#server/calendar';
import { Clock, grouped, type Queries } from '#server/platform';
import { GradeRowsRepository } from '#server/grade-rows';
import { CompositesService } from '#server/posting';
import { PeriodViews, ScaleVersionsRepository, type ReportedItem, type SchoolFacts } from '#server/period-view';
import { byId } from './by-id.js';
import { noScale, type GradedRow } from './grade-fact-of.js';
import { gradesOf, missingVersions, type Grades } from './grades-of.js';
import { emptySnapshot, reportedIn, type Ground } from './ground.js';
import type { PartRead } from './part-read.js';
import { sectionFactsOf } from './section-facts-of.js';
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
    const read = await this.sectionFacts.read(queries, facts, period, ids);
    const { strays, sealed } = read;
    const sections = sectionFactsOf(read, reportedIn(this.views.viewOf(facts, period), ids));
    return { graded, snapshot: { ...snapshot, sections, strays, sealed } };
  }

  /** The same as it is read, for a thread to make a snapshot of. */
  async partOf(queries: Queries, period: SchoolPeriod, ids: readonly number[]): Promise<PartRead> {
    const facts = await this.views.factsOf(queries, period.schoolId);
    const ground = await this.groundOf(queries, facts, period, ids);
    const items = ground.reported.map(({ item }) => item);
    const grades = await this.rows.fieldsOfSections(queries, items, period, ids);
    return { ground, grades, sections: await this.sectionFacts.read(queries, facts, period, ids) };
  }

  async sectionsOf(queries: Queries, period: SchoolPeriod): Promise<SectionsOfPeriod> {
    const facts = await this.views.factsOf(queries, period.schoolId);
    const running = byId(this.views.viewOf(facts, period).sections);
    return {
      running: [...running.keys()],
      elsewhere: facts.sections.map(({ id }) => id).filter((id) => !running.has(id)),
      nothing: emptySnapshot(this.baseOf(facts, period)),
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
    const rowsOf = await this.rows.itemsOfStudent(queries, items, period, studentId);
    const sectionIds = new Set([...rowsOf.values()].flat().map(({ sectionId }) => sectionId));
    const ground = await this.groundOf(queries, facts, period, [...sectionIds]);
    return this.together(facts, period, [await this.gradesOn(queries, ground, rowsOf)]);
  }

  private async ofSections(
    queries: Queries,
    facts: SchoolFacts,
    period: SchoolPeriod,
    ids: readonly number[],
    asIf: (row: GradeRow, itemId: number) => GradeRow = (row) => row,
  ): Promise<PeriodSnapshot> {
    const running = byId(this.views.viewOf(facts, period).sections);
    const parts: Grades[] = [];
    for (const some of stretchesOf(ids.filter((id) => running.has(id)))) {
      const ground = await this.groundOf(queries, facts, period, some);
      const items = ground.reported.map(({ item }) => item);
      const found = await this.rows.itemsOfSections(queries, items, period, some);
      const rowsOf = new Map(Array.from(found, ([itemId, rows]) => [itemId, rows.map((row) => asIf(row, itemId))]));
      parts.push(await this.gradesOn(queries, ground, rowsOf));
    }
    return this.together(facts, period, parts);
  }

  private async gradesOn(queries: Queries, ground: Ground, rowsOf: RowsByItem): Promise<Grades> {
    const missing = await this.scales.byId(queries, missingVersions(ground, rowsOf));
    return gradesOf({ ...ground, versions: new Map([...ground.versions, ...missing]) }, rowsOf);
  }

  /** In the order of the report card, and of an item as they were read. */
  private together(facts: SchoolFacts, period: SchoolPeriod, parts: readonly Grades[]): PeriodSnapshot {
    const pairs = parts.flatMap(({ graded, grades }) => grades.map((grade, at) => ({ grade, row: graded[at]! })));
    const byItem = grouped(pairs, (pair) => [pair.grade.item.id, pair]);
    const all = this.views.viewOf(facts, period).reported.flatMap(({ item }) => byItem.get(item.id) ?? []);
    return {
      graded: all.map(({ row }) => row),
      snapshot: { ...emptySnapshot(this.baseOf(facts, period)), grades: all.map(({ grade }) => grade) },
    };
  }

  /** What is the same for all sections of the period. */
  private baseOf(facts: SchoolFacts, period: SchoolPeriod) {
    const now = this.clock.now();
    const today = localTime(facts.zone, now).day;
    return { period, today, now: now.toISOString(), codes: this.views.viewOf(facts, period).codes };
  }

  private async groundOf(
    queries: Queries,
    facts: SchoolFacts,
    period: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<Ground> {
    const reported = reportedIn(this.views.viewOf(facts, period), sectionIds);
    const takesAttendance = facts.school.takesAttendance && sectionIds.length > 0;
    return {
      ...this.baseOf(facts, period),
      reported,
      versions: byId(facts.versions),
      attendance: takesAttendance ? await this.attendance.summaries(queries, sectionIds, period) : new Map(),
      composites: await this.compositesOf(queries, period, reported),
    };
  }

  private async compositesOf(
    queries: Queries,
    period: SchoolPeriod,
    reported: readonly ReportedItem[],
  ): Promise<Ground['composites']> {
    const found = new Map<number, ReadonlyMap<number, CompositeSays>>();
    for (const { item, sections, scales } of reported) {
      if (item.source !== 'composite') continue;
      const inForce = new Map(sections.map(({ id }) => [id, scales.get(id)?.version ?? noScale]));
      found.set(item.id, await this.composites.ofSections(queries, item, period, inForce));
    }
    return found;
  }
}
