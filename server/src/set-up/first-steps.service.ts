import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { FirstStepsReply } from '#contract/set-up';
import { PeriodsRepository } from '#server/calendar';
import { intArray, Transactions } from '#server/platform';

/** How far a school is on its way from nothing to its first grade. */
@Injectable()
export class FirstStepsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
  ) {}

  /** Sections and enrollments are those of the year that a period lies in. */
  async of(schoolId: number, periodId: number): Promise<FirstStepsReply> {
    return this.transactions.snapshot(async (queries) => {
      const { periods } = await this.periods.yearOfOrThrow(queries, schoolId, periodId);
      const ofYear = intArray(periods.map(({ id }) => id));
      const { rows } = await queries.execute<{ [Key in keyof FirstStepsReply]: number }>(sql`
        SELECT (SELECT count(*) FROM people WHERE school_id = ${schoolId} AND kind = 'student')::int AS students,
          (SELECT count(*) FROM people WHERE kind = 'staff' AND (school_id = ${schoolId} OR school_id IS NULL)
             AND id NOT IN (SELECT a.person_id FROM accounts a JOIN account_roles r ON r.account_id = a.id WHERE r.role = 'registrar'))::int AS staff,
          (SELECT count(*) FROM courses WHERE school_id = ${schoolId})::int AS courses,
          (SELECT count(*) FROM sections WHERE period_id = ANY(${ofYear}))::int AS sections,
          (SELECT count(*) FROM enrollments e JOIN sections s ON s.id = e.section_id WHERE s.period_id = ANY(${ofYear}))::int AS enrollments,
          (SELECT count(*) FROM scales WHERE school_id = ${schoolId} OR school_id IS NULL)::int AS scales,
          (SELECT count(*) FROM report_items WHERE school_id = ${schoolId})::int AS items,
          (SELECT count(*) FROM report_item_rules WHERE school_id = ${schoolId})::int AS rules,
          (SELECT count(*) FROM (SELECT 1 FROM grades g JOIN periods p ON p.id = g.period_id
             WHERE p.school_id = ${schoolId} LIMIT 1) AS posted)::int AS grades`);
      return rows[0]!;
    });
  }
}
