import { Injectable } from '@nestjs/common';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import type { ScalePlacement } from '#core/scales';
import { tables, type Queries } from '#server/platform';

const { courses, scalePlacements, scales, sections } = tables;

/** Where which scale is put in force. */
@Injectable()
export class PlacementsRepository {
  /** The placements that can speak of a school's courses, those of the whole system among them. */
  async ofSchool(queries: Queries, schoolId: number): Promise<ScalePlacement[]> {
    const rows = await queries
      .select()
      .from(scalePlacements)
      .where(sql`${scalePlacements.schoolId} = ${schoolId} OR ${scalePlacements.schoolId} IS NULL`)
      .orderBy(asc(scalePlacements.id));
    return rows.map(({ createdAt: _createdAt, ...placement }) => placement);
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

  /** Puts a scale in force at a place in the stead of whatever was, or, with null, nothing. */
  async put(
    queries: Queries,
    place: Omit<ScalePlacement, 'id' | 'scaleId' | 'isLocked'>,
    placed: { readonly scaleId: number; readonly isLocked: boolean } | null,
  ): Promise<void> {
    const { kind, schoolId, department, level, courseId, sectionId } = place;
    const { scalePlacements: table } = tables;
    await queries
      .delete(table)
      .where(
        and(
          eq(table.kind, kind),
          schoolId === null ? isNull(table.schoolId) : eq(table.schoolId, schoolId),
          department === null ? isNull(table.department) : eq(table.department, department),
          level === null ? isNull(table.level) : eq(table.level, level),
          courseId === null ? isNull(table.courseId) : eq(table.courseId, courseId),
          sectionId === null ? isNull(table.sectionId) : eq(table.sectionId, sectionId),
        ),
      );
    if (placed) await queries.insert(table).values({ ...place, ...placed });
  }
}
