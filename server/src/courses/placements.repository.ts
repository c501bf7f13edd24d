import { Injectable } from '@nestjs/common';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { dayOrThrow } from '#core/calendar';
import { countedPlacements } from '#core/period-view';
import type { DatedPlacement, ScalePlacement } from '#core/scales';
import { Refusal, tables, type Queries } from '#server/platform';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';

const { courses, periods, scalePlacements, scales, scaleVersions, sections } = tables;

/** Where which scale is put in force. */
@Injectable()
export class PlacementsRepository {
  /** The placements that can speak of a school's courses, those of the whole system among them, of all periods. */
  async ofSchool(queries: Queries, schoolId: number): Promise<DatedPlacement[]> {
    const rows = await queries
      .select({ placement: scalePlacements, fromDay: periods.startsOn })
      .from(scalePlacements)
      .leftJoin(periods, eq(periods.id, scalePlacements.fromPeriodId))
      .where(sql`${scalePlacements.schoolId} = ${schoolId} OR ${scalePlacements.schoolId} IS NULL`)
      .orderBy(asc(scalePlacements.id));
    return rows.map(({ placement: { createdAt: _createdAt, ...placement }, fromDay }) => ({
      ...placement,
      fromDay: fromDay === null ? null : dayOrThrow(fromDay),
    }));
  }

  /** Those that count in a period. @throws Refusal not-found */
  async inPeriod(queries: Queries, schoolId: number, periodId: number): Promise<ScalePlacement[]> {
    const [period] = await queries.select({ startsOn: periods.startsOn }).from(periods).where(eq(periods.id, periodId));
    if (!period) throw new Refusal('not-found', { what: 'period', id: periodId });
    const versions = await queries
      .select({ scaleId: scaleVersions.scaleId, number: scaleVersions.number, fromDay: periods.startsOn })
      .from(scaleVersions)
      .innerJoin(periods, eq(periods.id, scaleVersions.fromPeriodId));
    const dated = versions.map(({ fromDay, ...version }) => ({ ...version, fromDay: dayOrThrow(fromDay) }));
    return countedPlacements(await this.ofSchool(queries, schoolId), dated, { startsOn: dayOrThrow(period.startsOn) });
  }

  /** The names of all scales, by number. */
  async scaleNames(queries: Queries): Promise<ReadonlyMap<number, string>> {
    const rows = await queries.select({ id: scales.id, name: scales.name }).from(scales);
    return new Map(rows.map(({ id, name }) => [id, name]));
  }

  /** The names of a school's sections, by number: "Tidal Ecology 3". */
  async sectionNames(queries: Queries, schoolId: number): Promise<ReadonlyMap<number, string>> {
    const rows = await queries
      .select({ id: sections.id, name: sql<string>`${courses.title} || ' ' || ${sections.number}` })
      .from(sections)
      .innerJoin(courses, eq(courses.id, sections.courseId))
      .where(eq(courses.schoolId, schoolId));
    return new Map(rows.map(({ id, name }) => [id, name]));
  }

  async coursesOfSections(queries: Queries, schoolId: number): Promise<ReadonlyMap<number, number>> {
    const rows = await queries
      .select({ id: sections.id, courseId: sections.courseId })
      .from(sections)
      .innerJoin(courses, eq(courses.id, sections.courseId))
      .where(eq(courses.schoolId, schoolId));
    return new Map(rows.map(({ id, courseId }) => [id, courseId]));
  }

  /**
   * Lets a scale be used at a place from a period on, or with null lets the place inherit from then on. What began with the
   * same period goes; what began earlier stays for the periods before.
   */
  async put(
    queries: Queries,
    place: Omit<ScalePlacement, 'id' | 'scaleId' | 'isLocked'>,
    placed: { readonly scaleId: number | null; readonly isLocked: boolean; readonly fromPeriodId: number | null },
  ): Promise<void> {
    const { kind, schoolId, department, level, courseId, sectionId } = place;
    const { scalePlacements: table } = tables;
    const same = (column: AnyPgColumn, value: number | string | null) =>
      value === null ? isNull(column) : eq(column, value);
    await queries
      .delete(table)
      .where(
        and(
          eq(table.kind, kind),
          same(table.schoolId, schoolId),
          same(table.department, department),
          same(table.level, level),
          same(table.courseId, courseId),
          same(table.sectionId, sectionId),
          same(table.fromPeriodId, placed.fromPeriodId),
        ),
      );
    await queries.insert(table).values({ ...place, ...placed });
  }
}
