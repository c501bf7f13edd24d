import { Injectable } from '@nestjs/common';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { PolicyPlace } from '#core/calculation';
import type { PolicyBody } from '#contract/calculation';
import { tables, type Queries } from '#server/platform';

const { calculationPolicies } = tables;

/** A policy as it is kept, with the version that guards against saving over somebody else's work. */
export interface KeptPolicy extends PolicyPlace {
  readonly id: number;
  readonly version: number;
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
    return rows.map(({ id, version, department, sectionId, periodId, body }) => ({
      id,
      version,
      department,
      sectionId,
      periodId,
      policy: body as PolicyBody,
    }));
  }

  /** Puts a policy at a place that has none. Whether there was none. */
  async add(queries: Queries, schoolId: number, place: PolicyPlace, body: PolicyBody): Promise<boolean> {
    const { department, sectionId, periodId } = place;
    const added = await queries
      .insert(calculationPolicies)
      .values({ schoolId, department, sectionId, periodId, body })
      .onConflictDoNothing()
      .returning({ id: calculationPolicies.id });
    return added.length === 1;
  }

  /** Whether the policy still had the version expected, and so was changed. */
  async change(queries: Queries, id: number, version: number, body: PolicyBody): Promise<boolean> {
    const changed = await queries
      .update(calculationPolicies)
      .set({ body, version: version + 1 })
      .where(and(eq(calculationPolicies.id, id), eq(calculationPolicies.version, version)))
      .returning({ id: calculationPolicies.id });
    return changed.length === 1;
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
