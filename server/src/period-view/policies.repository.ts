import { Injectable } from '@nestjs/common';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { PolicyPlace } from '#core/calculation';
import type { PolicyBody } from '#contract/calculation';
import { tables, type Queries } from '#server/platform';

const { calculationPolicies } = tables;

/** A policy as it is kept. */
export interface KeptPolicy extends PolicyPlace {
  readonly id: number;
  readonly policy: PolicyBody;
}

@Injectable()
export class PoliciesRepository {
  async ofSchool(queries: Queries, schoolId: number): Promise<KeptPolicy[]> {
    const rows = await queries
      .select()
      .from(calculationPolicies)
      .where(eq(calculationPolicies.schoolId, schoolId))
      .orderBy(asc(calculationPolicies.id));
    return rows.map(({ id, department, sectionId, periodId, body }) => ({
      id,
      department,
      sectionId,
      periodId,
      policy: body as PolicyBody,
    }));
  }

  async put(queries: Queries, schoolId: number, place: PolicyPlace, body: PolicyBody): Promise<void> {
    const { department, sectionId, periodId } = place;
    const { calculationPolicies: table } = tables;
    await queries
      .insert(table)
      .values({ schoolId, department, sectionId, periodId, body })
      .onConflictDoUpdate({
        target: [table.schoolId, table.department, table.sectionId, table.periodId],
        set: { body },
      });
  }

  async remove(queries: Queries, schoolId: number, { department, sectionId, periodId }: PolicyPlace): Promise<void> {
    const { calculationPolicies: table } = tables;
    await queries
      .delete(table)
      .where(
        and(
          eq(table.schoolId, schoolId),
          department === null ? isNull(table.department) : eq(table.department, department),
          sectionId === null ? isNull(table.sectionId) : eq(table.sectionId, sectionId),
          periodId === null ? isNull(table.periodId) : eq(table.periodId, periodId),
        ),
      );
  }
}
