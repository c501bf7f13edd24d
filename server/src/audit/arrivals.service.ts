import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { foreseen, ruleById, type Snapshot } from '#core/audit';
import { decimalOrThrow } from '#core/numbers';
import type { GradeRow } from '#core/grade-rows';
import { isBlank } from '#core/posting';
import { findingSentence, type RuleRemark } from '#contract/audit';
import { bodyOfMark, markOfBody, type MarkBody } from '#contract/posting';
import { RuleSettingsRepository } from '#server/audit-rules';
import type { SchoolPeriod } from '#server/calendar';
import { intArray, type Queries } from '#server/platform';
import { SnapshotService } from './snapshots/snapshot.service.js';

/** What is about to come to a grade. */
export type Arrival = GradeOfItem &
  (
    | {
        /** What will be computed, exact, in the unit of the item. */
        readonly computed: string;
      }
    | {
        /** What will be posted. */
        readonly posted: Pick<MarkBody, 'percent' | 'label' | 'code'>;
        /** Whether scores come with it, so that what is computed now says nothing of it. */
        readonly changesBook: boolean;
      }
  );

interface GradeOfItem {
  readonly enrollmentId: number;
  readonly itemId: number;
}

/** Asks the rules of single grades what they would say of values that are about to come. */
@Injectable()
export class ArrivalsService {
  constructor(
    private readonly snapshots: SnapshotService,
    private readonly settings: RuleSettingsRepository,
  ) {}

  /** By `enrollment/item`; a blank is judged as if what comes were posted. What the rules say already is left out. */
  async remarks(
    queries: Queries,
    period: SchoolPeriod,
    arrivals: readonly Arrival[],
  ): Promise<ReadonlyMap<string, readonly RuleRemark[]>> {
    const remarks = new Map<string, RuleRemark[]>();
    const coming = new Map(arrivals.map((arrival) => [keyOf(arrival), arrival]));
    const only = await this.sectionsOf(queries, arrivals);
    const { snapshot: now } = await this.snapshots.ofAudit(queries, period, only);
    const { snapshot: then } = await this.snapshots.ofPeriod(queries, period, only, (row, itemId) => {
      const arrival = coming.get(keyOf({ enrollmentId: row.enrollmentId, itemId }));
      return arrival ? withArrival(row, arrival) : row;
    });
    const rules = await this.settings.inForce(queries, period.schoolId);
    const inForce = new Map(rules.map((rule) => [rule.id, rule]));
    const own = ({ grades, ...rest }: Snapshot): Snapshot => ({
      ...rest,
      sections: now.sections,
      grades: grades.filter(({ enrollmentId, item }) => coming.has(keyOf({ enrollmentId, itemId: item.id }))),
    });
    const posted = own(then);
    const grades = posted.grades.map((grade) =>
      isBlank(grade.mark) && grade.proposal ? { ...grade, mark: grade.proposal } : grade,
    );
    for (const finding of foreseen(own(now), { ...posted, grades }, inForce)) {
      const rule = ruleById.get(finding.ruleId)!;
      const effect = inForce.get(rule.id)?.severity ?? rule.severity;
      if (effect === 'off') continue;
      const key = keyOf({ enrollmentId: finding.enrollmentId!, itemId: finding.itemId! });
      remarks.set(key, [
        ...(remarks.get(key) ?? []),
        { severity: effect, rule: rule.summary, says: findingSentence(rule, finding) },
      ]);
    }
    return remarks;
  }

  private async sectionsOf(queries: Queries, arrivals: readonly Arrival[]): Promise<ReadonlySet<number>> {
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT DISTINCT section_id AS id FROM enrollments
      WHERE id = ANY(${intArray(arrivals.map(({ enrollmentId }) => enrollmentId))})`);
    return new Set(rows.map(({ id }) => id));
  }
}

function withArrival(row: GradeRow, arrival: Arrival): GradeRow {
  if ('computed' in arrival) {
    const value = decimalOrThrow(arrival.computed);
    return { ...row, computed: { percent: value, level: value, file: null } };
  }
  const { posted, changesBook } = arrival;
  const mark = markOfBody({ ...bodyOfMark(row.mark), ...posted });
  return { ...row, mark, computed: changesBook ? null : row.computed };
}

const keyOf = ({ enrollmentId, itemId }: GradeOfItem) => `${enrollmentId}/${itemId}`;
