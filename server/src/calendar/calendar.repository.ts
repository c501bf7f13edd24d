import { Injectable } from '@nestjs/common';
import { and, asc, eq, sql } from 'drizzle-orm';
import { dayOrThrow, type Break } from '#core/calendar';
import type { CalendarReply } from '#contract/calendar';
import { intArray, Refusal, sectionName, tables, type Queries, type UseBy } from '#server/platform';
import { valueOfCalendar, type CalendarBody } from './calendar-value.js';

const { breaks, courses, periods, postingWindows, reportItems, schools, sections } = tables;

/** What keeps a period from being removed. */
export const periodUses: readonly UseBy[] = [
  ['sections', 'period_id', 'section'],
  ['grades', 'period_id', 'posted grade'],
  ['scale_versions', 'from_period_id', 'version of a scale'],
  ['scale_placements', 'from_period_id', 'place where a scale begins'],
  ['calculation_policies', 'period_id', 'calculation of its own'],
  ['file_imports', 'period_id', 'file'],
  ['runs', 'period_id', 'run'],
  ['assignments', 'period_id', 'assignment'],
  ['audit_runs', 'period_id', 'audit'],
  ['audit_tasks', 'period_id', 'audit'],
  ['audit_certificates', 'period_id', 'certificate'],
  ['waivers', 'period_id', 'waiver'],
  ['finding_notices', 'period_id', 'message'],
  ['finding_notes', 'period_id', 'note'],
  ['receipts', 'period_id', 'receipt'],
  ['sign_offs', 'period_id', 'sign-off'],
  ['reminders', 'period_id', 'reminder'],
  ['posting_requests', 'period_id', 'request'],
];

/** Reads and writes a school's calendar as a whole; single periods are read by the PeriodsRepository. */
@Injectable()
export class CalendarRepository {
  /** Those of the numbers that schools have. */
  async known(queries: Queries, ids: readonly number[]): Promise<number[]> {
    const rows = await queries
      .select({ id: schools.id })
      .from(schools)
      .where(sql`${schools.id} = ANY(${intArray(ids)})`);
    return rows.map(({ id }) => id);
  }

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
        name: sectionName,
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

  async sealedOf(queries: Queries, schoolId: number): Promise<ReadonlySet<number>> {
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT p.id FROM periods p JOIN seals s ON s.period_id = p.id WHERE p.school_id = ${schoolId}`);
    return new Set(rows.map(({ id }) => id));
  }

  /** The calendar as a whole, as it is compared and changed. @throws Refusal not-found */
  async valueOf(queries: Queries, schoolId: number): Promise<CalendarBody> {
    const { weekdays } = await this.schoolOrThrow(queries, schoolId);
    const own = await queries.select().from(periods).where(eq(periods.schoolId, schoolId));
    return valueOfCalendar({
      weekdays,
      periods: own.map((period) => ({
        ...period,
        startsOn: dayOrThrow(period.startsOn),
        endsOn: dayOrThrow(period.endsOn),
      })),
      breaks: await this.breaksOf(queries, schoolId),
      windows: await this.windowsOf(queries, schoolId),
    });
  }

  /** Puts a calendar in the place of the one before; all its periods have their numbers. */
  async put(queries: Queries, schoolId: number, body: CalendarBody): Promise<void> {
    await queries
      .update(schools)
      .set({ weekdays: [...body.weekdays] })
      .where(eq(schools.id, schoolId));
    await queries.execute(sql`
      DELETE FROM posting_windows WHERE period_id IN (SELECT id FROM periods WHERE school_id = ${schoolId})`);
    const gone = sql`school_id = ${schoolId} AND id <> ALL(${intArray(body.periods.map(({ id }) => id))})`;
    // What was worked out in a period that nothing hangs on is nothing.
    for (const table of ['stale_books', 'calculated_grades'])
      await queries.execute(sql`
        DELETE FROM ${sql.identifier(table)} WHERE period_id IN (SELECT id FROM periods WHERE ${gone})`);
    await queries.execute(sql`DELETE FROM periods WHERE ${gone}`);
    if (body.periods.length > 0)
      await queries
        .insert(periods)
        .values(body.periods.map((period) => ({ ...period, schoolId })))
        .onConflictDoUpdate({
          target: periods.id,
          set: {
            parentId: sql`excluded.parent_id`,
            kind: sql`excluded.kind`,
            name: sql`excluded.name`,
            startsOn: sql`excluded.starts_on`,
            endsOn: sql`excluded.ends_on`,
          },
          setWhere: sql`(periods.parent_id, periods.kind, periods.name, periods.starts_on, periods.ends_on) IS DISTINCT FROM
            (excluded.parent_id, excluded.kind, excluded.name, excluded.starts_on, excluded.ends_on)`,
        });
    await queries.delete(breaks).where(eq(breaks.schoolId, schoolId));
    if (body.breaks.length > 0) await queries.insert(breaks).values(body.breaks.map((each) => ({ ...each, schoolId })));
    if (body.windows.length > 0)
      await queries.insert(postingWindows).values(
        body.windows.map(({ opensAt, closesAt, graceUntil, ...window }) => ({
          ...window,
          opensAt: new Date(opensAt),
          closesAt: new Date(closesAt),
          graceUntil: graceUntil === null ? null : new Date(graceUntil),
        })),
      );
  }
}
