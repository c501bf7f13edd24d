import { Injectable } from '@nestjs/common';
import type { GradeRow } from '#core/grade-rows';
import { formatDecimal } from '#core/numbers';
import { familyValue, laterTime, type FamilyTime, type FamilyValue } from '#core/report-items';
import type { CardCourseReply, CardTime, FamilyValueReply, ReportCardReply } from '#contract/report-cards';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { Readings } from '#server/changes';
import { PeriodViews, ScaleVersionsRepository, type ReportedItem } from '#server/period-view';
import { GradeRowsRepository } from '#server/grade-rows';
import { SheetContextService } from '#server/posting';
import { Transactions, type Actor, type Queries } from '#server/platform';
import { SealsRepository } from '#server/transcripts';

/** A student's report card of a period as families see it: a rule of who sees what is looked at here, and not believed. */
@Injectable()
export class ReportCardService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly rows: GradeRowsRepository,
    private readonly scales: ScaleVersionsRepository,
    private readonly sheets: SheetContextService,
    private readonly students: SealsRepository,
    private readonly readings: Readings,
  ) {}

  /** For somebody who is remembered as having read it. @throws Refusal not-found */
  async readBy(actor: Actor, studentId: number, periodId: number, when: CardTime): Promise<ReportCardReply> {
    const card = await this.transactions.snapshot((queries) => this.read(queries, studentId, periodId, when));
    await this.readings.note(actor, studentId, `report card of ${card.period.name}`, card.student);
    return card;
  }

  private async read(queries: Queries, studentId: number, periodId: number, when: CardTime): Promise<ReportCardReply> {
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const { id, name, studentNumber, school } = await this.students.studentOrThrow(queries, studentId);
    const view = await this.views.of(queries, period);
    const sealedAt = await this.periods.sealedAt(queries, periodId);
    const courses = new Map<number, CardCourseReply>();
    const found: { readonly reported: ReportedItem; readonly rows: readonly GradeRow[] }[] = [];
    const items = view.reported.map(({ item }) => item);
    const rowsOf = await this.rows.itemsOfStudent(queries, items, period, studentId);
    for (const reported of view.reported) {
      const rows = rowsOf.get(reported.item.id) ?? [];
      const own = rows.filter(({ sectionId }) => reported.sections.some(({ id: section }) => section === sectionId));
      if (own.length > 0) found.push({ reported, rows: own });
    }
    const ids = found.flatMap(({ rows }) => rows.flatMap(({ scaleVersionId }) => scaleVersionId ?? []));
    const versions = await this.scales.byId(queries, [...new Set(ids)]);
    for (const { reported, rows } of found)
      for (const row of rows) {
        const moment = this.momentOf(reported, sealedAt, when);
        const bands = versions.get(row.scaleVersionId ?? 0)?.bands ?? [];
        const value = familyValue(reported.item, row.mark, moment, bands, view.codes);
        const before = courses.get(row.sectionId) ?? this.course(reported, row);
        const values = [...before.values, { itemId: reported.item.id, value: this.reply(value, reported) }];
        courses.set(row.sectionId, { ...before, values });
      }
    return {
      student: { id, name, number: studentNumber },
      school,
      period: periodOf(period),
      sealedAt: sealedAt?.toISOString() ?? null,
      items: found.map(({ reported: { item } }) => ({
        itemId: item.id,
        name: item.name,
        heading: item.heading,
        familyView: item.familyView,
        familyTime: item.familyTime,
      })),
      courses: [...courses.values()].toSorted((a, b) => a.course.localeCompare(b.course)),
    };
  }

  private course({ sections }: ReportedItem, { sectionId, withdrawnOn }: GradeRow): CardCourseReply {
    const { course, teacher } = sections.find(({ id }) => id === sectionId)!;
    return { sectionId, course: course.title, teacher, withdrawnOn, values: [] };
  }

  /** How far the period is for an item: at least as far as is asked for. */
  private momentOf(reported: ReportedItem, sealedAt: Date | null, when: CardTime): FamilyTime {
    const state = this.sheets.windowOf(reported)?.state;
    const now: FamilyTime = sealedAt ? 'sealed' : state === 'closed' ? 'closed' : 'posted';
    return when === 'now' ? now : laterTime(when, now);
  }

  private reply(value: FamilyValue, { window }: ReportedItem): FamilyValueReply {
    if (value.kind === 'shown') return { ...value, percent: value.percent && formatDecimal(value.percent) };
    if (value.kind !== 'later') return value;
    return { ...value, at: value.from === 'closed' ? (window?.graceUntil ?? window?.closesAt ?? null) : null };
  }
}

function periodOf({ id, name, startsOn, endsOn }: SchoolPeriod) {
  return { id, name, startsOn, endsOn };
}
