import { Injectable } from '@nestjs/common';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { dayOrThrow, type Break } from '#core/calendar';
import type { BreakBody, CalendarReply, PeriodBody, WindowBody } from '#contract/calendar';
import { intArray, Refusal, tables, type Queries } from '#server/platform';

const { breaks, courses, periods, postingWindows, reportItems, schools, sections } = tables;

/** A period that something hangs on, and what: sections, grades and the like. */
export interface PeriodUse extends Record<string, unknown> {
  readonly id: number;
  readonly name: string;
  readonly uses: string;
}

/** Reads and writes a school's calendar as a whole; single periods are read by the PeriodsRepository. */
@Injectable()
export class CalendarRepository {
  /** @throws Refusal not-found */
  async schoolOrThrow(queries: Queries, id: number) {
    const [school] = await queries.select().from(schools).where(eq(schools.id, id));
    if (!school) throw new Refusal('not-found', { what: 'school', id });
    return school;
  }

  async breaksOf(queries: Queries, schoolId: number): Promise<Break[]> {
    const rows = await queries.select().from(breaks).where(eq(breaks.schoolId, schoolId)).orderBy(asc(breaks.startsOn));
    return rows.map(({ id, name, startsOn, endsOn }) => ({
      id,
      name,
      startsOn: dayOrThrow(startsOn),
      endsOn: dayOrThrow(endsOn),
    }));
  }

  async windowsOf(queries: Queries, schoolId: number): Promise<CalendarReply['windows']> {
    const rows = await queries
      .select({ window: postingWindows })
      .from(postingWindows)
      .innerJoin(periods, eq(periods.id, postingWindows.periodId))
      .where(eq(periods.schoolId, schoolId))
      .orderBy(asc(postingWindows.opensAt), asc(postingWindows.id));
    return rows.map(({ window: { createdAt: _createdAt, opensAt, closesAt, graceUntil, ...window } }) => ({
      ...window,
      opensAt: opensAt.toISOString(),
      closesAt: closesAt.toISOString(),
      graceUntil: graceUntil?.toISOString() ?? null,
    }));
  }

  itemsOf(queries: Queries, schoolId: number): Promise<CalendarReply['items'][number][]> {
    const { id, name, periodKind, ordinals } = reportItems;
    return queries
      .select({ id, name, periodKind, ordinals })
      .from(reportItems)
      .where(eq(reportItems.schoolId, schoolId))
      .orderBy(asc(reportItems.position), asc(id));
  }

  /** Sections that have dates of their own. */
  async sectionsOf(queries: Queries, schoolId: number): Promise<CalendarReply['sections']> {
    const rows = await queries
      .select({
        id: sections.id,
        name: sql<string>`${courses.title} || ' ' || ${sections.number}`,
        periodId: sections.periodId,
        startsOn: sql<string>`coalesce(${sections.startsOn}, ${periods.startsOn})::text`,
        endsOn: sql<string>`coalesce(${sections.endsOn}, ${periods.endsOn})::text`,
      })
      .from(sections)
      .innerJoin(courses, eq(courses.id, sections.courseId))
      .innerJoin(periods, eq(periods.id, sections.periodId))
      .where(and(eq(courses.schoolId, schoolId), sql`coalesce(${sections.startsOn}, ${sections.endsOn}) IS NOT NULL`))
      .orderBy(asc(courses.title), asc(sections.number));
    return rows.map((row) => ({ ...row, startsOn: dayOrThrow(row.startsOn), endsOn: dayOrThrow(row.endsOn) }));
  }

  /** Posted grades and sections of each period, and whether it is sealed. */
  async factsOf(queries: Queries, schoolId: number) {
    const { rows } = await queries.execute<{ id: number; grades: number; sections: number; sealed: boolean }>(sql`
      SELECT p.id, (SELECT count(*) FROM grades g WHERE g.period_id = p.id)::int AS grades,
             (SELECT count(*) FROM sections s WHERE s.period_id = p.id)::int AS sections,
             EXISTS (SELECT FROM seals WHERE period_id = p.id) AS sealed
      FROM periods p WHERE p.school_id = ${schoolId}`);
    return new Map(rows.map(({ id, ...facts }) => [id, facts]));
  }

  /** Which of these periods something hangs on that would be lost with them. */
  async usesOf(queries: Queries, ids: readonly number[]): Promise<PeriodUse[]> {
    if (ids.length === 0) return [];
    const { rows } = await queries.execute<PeriodUse>(sql`
      SELECT p.id, p.name, concat_ws(' and ', CASE WHEN s.n > 0 THEN s.n || ' sections' END,
        CASE WHEN g.n > 0 THEN g.n || ' posted grades' END, CASE WHEN v.n > 0 THEN v.n || ' versions of scales' END,
        CASE WHEN f.n > 0 THEN f.n || ' files' END, CASE WHEN a.n > 0 THEN a.n || ' assignments' END,
        CASE WHEN r.n > 0 THEN r.n || ' audits' END) AS uses
      FROM periods p,
        LATERAL (SELECT count(*) AS n FROM sections WHERE period_id = p.id) s,
        LATERAL (SELECT count(*) AS n FROM grades WHERE period_id = p.id) g,
        LATERAL (SELECT count(*) AS n FROM scale_versions WHERE from_period_id = p.id) v,
        LATERAL (SELECT count(*) AS n FROM file_imports WHERE period_id = p.id) f,
        LATERAL (SELECT count(*) AS n FROM assignments WHERE period_id = p.id) a,
        LATERAL (SELECT count(*) AS n FROM audit_runs WHERE period_id = p.id) r
      WHERE p.id = ANY(${intArray(ids)}) AND s.n + g.n + v.n + f.n + a.n + r.n > 0`);
    return rows;
  }

  /** Raises the version if it still is the one expected, and tells whether it was. */
  async raiseVersion(queries: Queries, schoolId: number, version: number, weekdays: number[]): Promise<boolean> {
    const raised = await queries
      .update(schools)
      .set({ calendarVersion: version + 1, weekdays })
      .where(and(eq(schools.id, schoolId), eq(schools.calendarVersion, version)))
      .returning({ id: schools.id });
    return raised.length === 1;
  }

  async removePeriods(queries: Queries, ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return;
    await queries.delete(postingWindows).where(inArray(postingWindows.periodId, [...ids]));
    await queries
      .update(periods)
      .set({ parentId: null })
      .where(inArray(periods.id, [...ids]));
    await queries.delete(periods).where(inArray(periods.id, [...ids]));
  }

  /** Writes periods, new ones among them, parents before children. @returns the number each period has now */
  async writePeriods(queries: Queries, schoolId: number, bodies: readonly PeriodBody[]): Promise<Map<number, number>> {
    const numbers = new Map(bodies.filter(({ id }) => id > 0).map(({ id }) => [id, id]));
    for (const { id, parentId, kind, name, startsOn, endsOn } of parentsFirst(bodies)) {
      const row = { kind, name, startsOn, endsOn, parentId: parentId === null ? null : numbers.get(parentId)! };
      if (id > 0) await queries.update(periods).set(row).where(eq(periods.id, id));
      else {
        const [added] = await queries
          .insert(periods)
          .values({ ...row, schoolId })
          .returning({ id: periods.id });
        numbers.set(id, added!.id);
      }
    }
    return numbers;
  }

  async replaceBreaks(queries: Queries, schoolId: number, bodies: readonly BreakBody[]): Promise<void> {
    await queries.delete(breaks).where(eq(breaks.schoolId, schoolId));
    const rows = bodies.map(({ name, startsOn, endsOn }) => ({ schoolId, name, startsOn, endsOn }));
    if (rows.length > 0) await queries.insert(breaks).values(rows);
  }

  async replaceWindows(queries: Queries, periodIds: readonly number[], bodies: readonly WindowBody[]): Promise<void> {
    if (periodIds.length > 0) {
      await queries.delete(postingWindows).where(inArray(postingWindows.periodId, [...periodIds]));
    }
    const rows = bodies.map(({ itemId, periodId, opensAt, closesAt, graceUntil, latePosters, earlyReason }) => ({
      itemId,
      periodId,
      latePosters,
      earlyReason,
      opensAt: new Date(opensAt),
      closesAt: new Date(closesAt),
      graceUntil: graceUntil === null ? null : new Date(graceUntil),
    }));
    if (rows.length > 0) await queries.insert(postingWindows).values(rows);
  }
}

/** So that a new parent has its number before its children name it. */
function parentsFirst(bodies: readonly PeriodBody[]): PeriodBody[] {
  const depth = (body: PeriodBody): number => {
    const parent = bodies.find(({ id }) => id === body.parentId);
    return parent && parent !== body ? depth(parent) + 1 : 0;
  };
  return bodies.toSorted((a, b) => depth(a) - depth(b));
}
