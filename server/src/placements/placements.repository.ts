import { Injectable } from '@nestjs/common';
import { and, asc, eq, isNull, sql, type SQL } from 'drizzle-orm';
import { dayOrThrow } from '#core/calendar';
import { countedPlacements } from '#core/period-view';
import { placeKey, type DatedPlacement, type ScalePlace, type ScalePlacement } from '#core/scales';
import { Refusal, tables, type Queries, sectionName } from '#server/platform';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import { missingFrom, type PlacedScale } from './scale-place.js';

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
      .select({ id: sections.id, name: sectionName })
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

  /** What is placed at a place, in the order in which it begins. */
  async atPlace(queries: Queries, place: ScalePlace): Promise<PlacedScale[]> {
    return queries
      .select({
        fromPeriodId: scalePlacements.fromPeriodId,
        scaleId: scalePlacements.scaleId,
        isLocked: scalePlacements.isLocked,
      })
      .from(scalePlacements)
      .leftJoin(periods, eq(periods.id, scalePlacements.fromPeriodId))
      .where(isAt(place))
      .orderBy(sql`${periods.startsOn} NULLS FIRST`, asc(scalePlacements.fromPeriodId));
  }

  /** All that is placed in a school and in the whole system, by the place, each in the order in which it begins. */
  async byPlace(queries: Queries, schoolId: number): Promise<ReadonlyMap<string, readonly PlacedScale[]>> {
    const found = new Map<string, PlacedScale[]>();
    const inOrder = (await this.ofSchool(queries, schoolId)).toSorted(
      (a, b) => (a.fromDay ?? '').localeCompare(b.fromDay ?? '') || Number(a.fromPeriodId) - Number(b.fromPeriodId),
    );
    for (const { fromPeriodId, scaleId, isLocked, ...place } of inOrder) {
      const key = placeKey(place);
      found.set(key, [...(found.get(key) ?? []), { fromPeriodId, scaleId, isLocked }]);
    }
    return found;
  }

  /** In the order in which they begin. */
  async inOrder(queries: Queries, placed: readonly PlacedScale[]): Promise<PlacedScale[]> {
    const rows = await queries.select({ id: periods.id, startsOn: periods.startsOn }).from(periods);
    const days = new Map(rows.map(({ id, startsOn }) => [id, startsOn]));
    const beginning = ({ fromPeriodId }: PlacedScale) => (fromPeriodId === null ? '' : (days.get(fromPeriodId) ?? ''));
    return placed.toSorted((a, b) => (beginning(a) < beginning(b) ? -1 : beginning(a) > beginning(b) ? 1 : 0));
  }

  /** Placements that stay keep their numbers. */
  async replace(queries: Queries, place: ScalePlace, placed: readonly PlacedScale[]): Promise<void> {
    const before = await this.atPlace(queries, place);
    for (const { fromPeriodId } of missingFrom(before, placed))
      await queries
        .delete(scalePlacements)
        .where(and(isAt(place), sql`${scalePlacements.fromPeriodId} IS NOT DISTINCT FROM ${fromPeriodId}`));
    const added = missingFrom(placed, before);
    if (added.length > 0) await queries.insert(scalePlacements).values(added.map((each) => ({ ...place, ...each })));
  }
}

function isAt({ kind, schoolId, department, level, courseId, sectionId }: ScalePlace): SQL | undefined {
  const same = (column: AnyPgColumn, value: number | string | null) =>
    value === null ? isNull(column) : eq(column, value);
  return and(
    eq(scalePlacements.kind, kind),
    same(scalePlacements.schoolId, schoolId),
    same(scalePlacements.department, department),
    same(scalePlacements.level, level),
    same(scalePlacements.courseId, courseId),
    same(scalePlacements.sectionId, sectionId),
  );
}
