import { Injectable } from '@nestjs/common';
import { asc, eq, sql } from 'drizzle-orm';
import { dayOrThrow, liesIn, yearOf, type Period } from '#core/calendar';
import { Refusal, tables, type Queries } from '#server/platform';

export interface SchoolPeriod extends Period {
  readonly schoolId: number;
}

export interface School {
  readonly id: number;
  readonly name: string;
  readonly shortName: string;
  readonly takesAttendance: boolean;
}

@Injectable()
export class PeriodsRepository {
  async ofSchool(queries: Queries, schoolId: number): Promise<SchoolPeriod[]> {
    const { periods } = tables;
    const rows = await queries
      .select()
      .from(periods)
      .where(eq(periods.schoolId, schoolId))
      .orderBy(asc(periods.startsOn), asc(periods.id));
    return rows.map(periodOfRow);
  }

  /** The year of a school that a period lies in, and its periods, the year among them. @throws Refusal not-found */
  async yearOfOrThrow(
    queries: Queries,
    schoolId: number,
    periodId: number,
  ): Promise<{ readonly year: SchoolPeriod; readonly periods: readonly SchoolPeriod[] }> {
    const all = await this.ofSchool(queries, schoolId);
    const period = all.find(({ id }) => id === periodId);
    if (!period) throw new Refusal('not-found', { what: 'period', id: periodId });
    const year = yearOf(all, period);
    return { year, periods: all.filter((each) => liesIn(all, each, year)) };
  }

  /** @throws Refusal not-found */
  async byIdOrThrow(queries: Queries, id: number): Promise<SchoolPeriod> {
    const [row] = await queries.select().from(tables.periods).where(eq(tables.periods.id, id));
    if (!row) throw new Refusal('not-found', { what: 'period', id });
    return periodOfRow(row);
  }

  /** Whether it is sealed or not, it stays so until the transaction ends. */
  async holdAsItIs(queries: Queries, id: number): Promise<void> {
    await queries.execute(sql`SELECT id FROM periods WHERE id = ${id} FOR SHARE`);
  }

  /** Keeps the period from being sealed until the transaction ends. @throws Refusal period-sealed */
  async holdUnsealedOrThrow(queries: Queries, { id, name }: Pick<SchoolPeriod, 'id' | 'name'>): Promise<void> {
    await this.holdAsItIs(queries, id);
    if (await this.sealedAt(queries, id)) throw new Refusal('period-sealed', { period: name });
  }

  /**
   * What begins with a period holds in all that start no earlier. Refused where one of these is sealed: in the school, or in
   * any where it is for the whole district. @throws Refusal period-sealed
   */
  async refuseSealedFrom(
    queries: Queries,
    { startsOn }: Pick<SchoolPeriod, 'startsOn'>,
    schoolId: number | null,
  ): Promise<void> {
    const { rows } = await queries.execute<{ name: string }>(sql`
      SELECT p.name FROM seals s JOIN periods p ON p.id = s.period_id
      WHERE p.starts_on >= ${startsOn} AND (${schoolId}::int IS NULL OR p.school_id = ${schoolId})
      ORDER BY p.starts_on DESC, p.id LIMIT 1`);
    if (rows[0]) throw new Refusal('period-sealed', { period: rows[0].name });
  }

  async sealedAt(queries: Queries, periodId: number): Promise<Date | null> {
    const { seals } = tables;
    const [seal] = await queries.select({ sealedAt: seals.sealedAt }).from(seals).where(eq(seals.periodId, periodId));
    return seal?.sealedAt ?? null;
  }

  schools(queries: Queries): Promise<School[]> {
    const { schools } = tables;
    const { id, name, shortName, takesAttendance } = schools;
    return queries.select({ id, name, shortName, takesAttendance }).from(schools).orderBy(asc(schools.id));
  }

  /** @throws Refusal not-found */
  async schoolOrThrow(queries: Queries, id: number): Promise<School> {
    const school = (await this.schools(queries)).find((each) => each.id === id);
    if (!school) throw new Refusal('not-found', { what: 'school', id });
    return school;
  }
}

function periodOfRow(row: typeof tables.periods.$inferSelect): SchoolPeriod {
  const { id, schoolId, parentId, kind, name } = row;
  return { id, schoolId, parentId, kind, name, startsOn: dayOrThrow(row.startsOn), endsOn: dayOrThrow(row.endsOn) };
}
