import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { AssignmentFact, SealedLine, SectionFact, UnmatchedGroupFact } from '#core/audit';
import { parseDay } from '#core/calendar';
import { decimalOrThrow, type Credits } from '#core/numbers';
import type { SchoolPeriod } from '#server/calendar';
import { grouped, intArray, type Queries } from '#server/platform';

type Seat = Omit<SectionFact['students'][number], 'creditsBefore'>;

/** Of a section in a period, what is read of each. */
export interface Standing {
  /** Why its grade book could not be calculated; null where it could. */
  readonly problem: string | null;
  /** Ids of the items whose sheets are signed off, and of those of which anything is posted. */
  readonly signedOff: readonly number[];
  readonly posted: readonly number[];
  /** Whether a class of a learning platform is joined to it. */
  readonly isJoined: boolean;
  /** Whether the period is sealed. */
  readonly isSealed: boolean;
}

/** What the audit knows of sections beyond the set-up that counts in a period: grade books, seats, and what was sealed. */
@Injectable()
export class SectionFactsRepository {
  /** By section, those of a school: at once, as each question takes longer to ask than to answer. */
  async standings(
    queries: Queries,
    { id, schoolId }: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<ReadonlyMap<number, Standing>> {
    // What is posted, by the index, one enrollment after the other: all of the period is many times what some sections have.
    const { rows } = await queries.execute<{ sectionId: number } & Standing & Record<string, unknown>>(sql`
      SELECT s.id AS "sectionId",
        (SELECT b.problem FROM stale_books b WHERE b.section_id = s.id AND b.period_id = ${id}) AS problem,
        ARRAY(SELECT o.item_id FROM sign_offs o WHERE o.section_id = s.id AND o.period_id = ${id}) AS "signedOff",
        ARRAY(SELECT DISTINCT g.item_id FROM enrollments e
          CROSS JOIN LATERAL (SELECT * FROM grades v WHERE v.enrollment_id = e.id AND v.period_id = ${id} OFFSET 0) g
          JOIN report_items i ON i.id = g.item_id
          WHERE e.section_id = s.id AND i.school_id = ${schoolId}
            AND (g.percent IS NOT NULL OR g.label IS NOT NULL OR g.code IS NOT NULL)) AS posted,
        EXISTS (SELECT FROM platform_classes c WHERE c.section_id = s.id AND c.decision = 'joined' AND NOT c.is_gone) AS "isJoined",
        EXISTS (SELECT FROM seals l WHERE l.period_id = ${id}) AS "isSealed"
      FROM sections s WHERE s.id = ANY(${intArray(sectionIds)})`);
    return new Map(rows.map(({ sectionId, ...standing }) => [sectionId, standing]));
  }

  /** By section, in the order in which they were made. */
  async assignments(
    queries: Queries,
    period: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<ReadonlyMap<number, AssignmentFact[]>> {
    const { rows } = await queries.execute<RawAssignment>(sql`
      SELECT a.section_id AS "sectionId", a.name, c.name AS category, a.category_id AS "categoryId",
        a.possible::text AS possible, a.due_on::text AS "dueOn", a.is_extra AS "isExtra", a.is_counted AS "isCounted",
        a.is_published AS "isPublished", count(s.points)::int AS scored, max(s.points)::text AS highest
      FROM assignments a JOIN categories c ON c.id = a.category_id LEFT JOIN scores s ON s.assignment_id = a.id
      WHERE a.period_id = ${period.id} AND a.section_id = ANY(${intArray(sectionIds)})
      GROUP BY a.id, c.id ORDER BY a.id`);
    return grouped(rows, ({ sectionId, possible, dueOn, highest, ...rest }) => [
      sectionId,
      {
        ...rest,
        possible: decimalOrThrow(possible),
        dueOn: parseDay(dueOn)!,
        highest: highest === null ? null : decimalOrThrow(highest),
      },
    ]);
  }

  /** By section: who came no later than the period's end and did not leave before it began. */
  async seats(
    queries: Queries,
    { startsOn, endsOn }: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<ReadonlyMap<number, Seat[]>> {
    const { rows } = await queries.execute<RawSeat>(sql`
      SELECT e.section_id AS "sectionId", e.id AS "enrollmentId", e.student_id AS "studentId",
        e.entered_on::text AS "enteredOn", e.withdrawn_on::text AS "withdrawnOn"
      FROM enrollments e
      WHERE e.section_id = ANY(${intArray(sectionIds)}) AND e.entered_on <= ${endsOn}
        AND (e.withdrawn_on IS NULL OR e.withdrawn_on >= ${startsOn} OR e.withdrawn_on < e.entered_on) ORDER BY e.id`);
    return grouped(rows, ({ sectionId, enteredOn, withdrawnOn, ...rest }) => [
      sectionId,
      {
        ...rest,
        enteredOn: parseDay(enteredOn) ?? null,
        withdrawnOn: withdrawnOn === null ? null : (parseDay(withdrawnOn) ?? null),
      },
    ]);
  }

  /** What students of some sections earned of its course in other periods, by enrollment; those who earned nothing are not there. */
  async earnedBefore(
    queries: Queries,
    periodId: number,
    sectionIds: readonly number[],
  ): Promise<ReadonlyMap<number, Credits>> {
    if (sectionIds.length === 0) return new Map();
    const { rows } = await queries.execute<{ enrollmentId: number; credits: string }>(sql`
      SELECT e.id AS "enrollmentId", sum(t.credits_earned)::text AS credits
      FROM enrollments e JOIN sections s ON s.id = e.section_id
      CROSS JOIN LATERAL (SELECT * FROM transcript_entries v WHERE v.student_id = e.student_id OFFSET 0) t
      JOIN seals l ON l.id = t.seal_id AND l.period_id <> ${periodId}
      JOIN enrollments o ON o.id = t.enrollment_id JOIN sections x ON x.id = o.section_id AND x.course_id = s.course_id
      WHERE e.section_id = ANY(${intArray(sectionIds)}) GROUP BY e.id`);
    return new Map(rows.map(({ enrollmentId, credits }) => [enrollmentId, decimalOrThrow(credits)]));
  }

  /** What the last run left out for some sections as no category takes it, by section. */
  async unmatchedGroups(
    queries: Queries,
    periodId: number,
    sectionIds: readonly number[],
  ): Promise<ReadonlyMap<number, UnmatchedGroupFact[]>> {
    if (sectionIds.length === 0) return new Map();
    const { rows } = await queries.execute<{ sectionId: number } & UnmatchedGroupFact & Record<string, unknown>>(sql`
      SELECT c.section_id AS "sectionId", p.name AS platform, n.name AS group, sum(w.held_back)::int AS scores
      FROM platform_classes c JOIN learning_platforms p ON p.id = c.platform_id
      CROSS JOIN LATERAL (
        SELECT r.id FROM run_classes k JOIN runs r ON r.id = k.run_id
        WHERE k.class_id = c.id AND k.passed IN ('carry', 'undo') AND r.period_id = ${periodId} AND r.carries_work
        ORDER BY r.id DESC LIMIT 1) last
      JOIN run_rows w ON w.run_id = last.id AND w.class_id = c.id AND w.kind = 'assignment' AND w.outcome = 'refuse'
      CROSS JOIN LATERAL jsonb_array_elements(w.reasons) AS why
      LEFT JOIN platform_names n
        ON n.class_id = c.id AND n.kind = 'group' AND NOT n.is_gone AND n.sourced_id = why ->> 'about'
      WHERE c.section_id = ANY(${intArray(sectionIds)}) AND c.decision = 'joined' AND NOT c.is_gone
        AND why ->> 'code' = 'group-open' AND (n.id IS NULL OR n.decision = 'open')
      GROUP BY c.id, p.id, n.id ORDER BY c.id, n.id`);
    return grouped(rows, ({ sectionId, ...fact }) => [sectionId, fact]);
  }

  /** What was sealed of some sections in a period; empty where it is not. */
  async sealed(queries: Queries, periodId: number, sectionIds: readonly number[]): Promise<SealedLine[]> {
    const { rows } = await queries.execute<RawLine>(sql`
      SELECT t.enrollment_id AS "enrollmentId", t.item_id AS "itemId", t.percent::text AS percent, t.mark
      FROM enrollments e
      CROSS JOIN LATERAL (SELECT * FROM transcript_entries v WHERE v.student_id = e.student_id AND v.enrollment_id = e.id OFFSET 0) t
      JOIN seals l ON l.id = t.seal_id
      WHERE e.section_id = ANY(${intArray(sectionIds)}) AND l.period_id = ${periodId}`);
    return rows.map(({ percent, ...line }) => ({
      ...line,
      percent: percent === null ? null : decimalOrThrow(percent),
    }));
  }

  /** The posted grades of an item in a section, as they are shown. */
  async shownGrades(
    queries: Queries,
    periodId: number,
    { sectionId, itemId }: PostedPair,
  ): Promise<{ enrollmentId: number; shown: string }[]> {
    const { rows } = await queries.execute<{ enrollmentId: number; shown: string }>(sql`
      SELECT g.enrollment_id AS "enrollmentId", coalesce(g.code, concat_ws(' ', g.percent::text, g.label)) AS shown
      FROM grades g JOIN enrollments e ON e.id = g.enrollment_id
      WHERE g.period_id = ${periodId} AND g.item_id = ${itemId} AND e.section_id = ${sectionId}
        AND (g.percent IS NOT NULL OR g.label IS NOT NULL OR g.code IS NOT NULL) ORDER BY g.enrollment_id`);
    return rows;
  }
}

/** An item that is posted in a section. */
export interface PostedPair {
  readonly sectionId: number;
  readonly itemId: number;
}

type RawAssignment = Record<string, unknown> &
  Pick<AssignmentFact, 'name' | 'category' | 'categoryId' | 'isExtra' | 'isCounted' | 'isPublished' | 'scored'> & {
    readonly sectionId: number;
    readonly possible: string;
    readonly dueOn: string;
    readonly highest: string | null;
  };

type RawSeat = Record<string, unknown> &
  Pick<Seat, 'enrollmentId' | 'studentId'> & {
    readonly sectionId: number;
    readonly enteredOn: string;
    readonly withdrawnOn: string | null;
  };

type RawLine = Record<string, unknown> & Omit<SealedLine, 'percent'> & { readonly percent: string | null };
