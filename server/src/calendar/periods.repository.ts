import { Injectable } from '@nestjs/common';
import { asc, eq } from 'drizzle-orm';
import { dayOrThrow, type Period } from '#core/calendar';
import { Refusal, tables, type Queries } from '#server/platform';

export interface SchoolPeriod extends Period {
  readonly schoolId: number;
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

  /** @throws Refusal not-found */
  async byIdOrThrow(queries: Queries, id: number): Promise<SchoolPeriod> {
    const [row] = await queries.select().from(tables.periods).where(eq(tables.periods.id, id));
    if (!row) throw new Refusal('not-found', { what: 'period', id });
    return periodOfRow(row);
  }

  schools(queries: Queries) {
    const { schools } = tables;
    return queries.select().from(schools).orderBy(asc(schools.id));
  }
}

function periodOfRow(row: typeof tables.periods.$inferSelect): SchoolPeriod {
  const { id, schoolId, parentId, kind, name } = row;
  return { id, schoolId, parentId, kind, name, startsOn: dayOrThrow(row.startsOn), endsOn: dayOrThrow(row.endsOn) };
}
