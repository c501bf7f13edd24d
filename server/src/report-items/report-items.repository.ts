import { Injectable } from '@nestjs/common';
import { and, asc, eq, sql } from 'drizzle-orm';
import { roundings } from '#core/numbers';
import type { Rule, RuleChoices } from '#core/report-items';
import type { Precision } from '#core/scales';
import { Refusal, tables, type Queries } from '#server/platform';

const { grades, enrollments, postingWindows, reportItemRules, reportItems, scales, sections } = tables;

export type ReportItemRow = typeof reportItems.$inferSelect & { readonly scaleName: string };

/** A rule with the version that guards it against two people changing it at once. */
export type VersionedRule = Rule & { readonly version: number };

@Injectable()
export class ReportItemsRepository {
  async ofSchool(queries: Queries, schoolId: number): Promise<ReportItemRow[]> {
    const rows = await queries
      .select({ item: reportItems, scaleName: scales.name })
      .from(reportItems)
      .innerJoin(scales, eq(scales.id, reportItems.scaleId))
      .where(eq(reportItems.schoolId, schoolId))
      .orderBy(asc(reportItems.id));
    return rows.map(({ item, scaleName }) => ({ ...item, scaleName }));
  }

  async rulesOfSchool(queries: Queries, schoolId: number): Promise<VersionedRule[]> {
    const rows = await queries
      .select()
      .from(reportItemRules)
      .where(eq(reportItemRules.schoolId, schoolId))
      .orderBy(asc(reportItemRules.position));
    return rows.map(({ createdAt: _createdAt, ...rule }) => rule);
  }

  /** @throws Refusal not-found */
  async ruleByIdOrThrow(queries: Queries, id: number): Promise<VersionedRule> {
    const [row] = await queries.select().from(reportItemRules).where(eq(reportItemRules.id, id));
    if (!row) throw new Refusal('not-found', { what: 'rule', id });
    const { createdAt: _createdAt, ...rule } = row;
    return rule;
  }

  /** Whether the rule still had the version expected, and so was changed. */
  async changeRule(queries: Queries, id: number, version: number, choices: RuleChoices): Promise<boolean> {
    const { department, level, length } = choices;
    const changed = await queries
      .update(reportItemRules)
      .set({ department, level, length, version: version + 1 })
      .where(and(eq(reportItemRules.id, id), eq(reportItemRules.version, version)))
      .returning({ id: reportItemRules.id });
    return changed.length === 1;
  }

  /** The posting windows of an item, by period. */
  async windowsOf(
    queries: Queries,
    itemId: number,
  ): Promise<ReadonlyMap<number, { opensAt: string; closesAt: string }>> {
    const rows = await queries.select().from(postingWindows).where(eq(postingWindows.itemId, itemId));
    return new Map(
      rows.map(({ periodId, opensAt, closesAt }) => [
        periodId,
        { opensAt: opensAt.toISOString(), closesAt: closesAt.toISOString() },
      ]),
    );
  }

  /** Grades posted for an item, by course. */
  async postedByCourse(queries: Queries, itemId: number): Promise<ReadonlyMap<number, number>> {
    const rows = await queries
      .select({ courseId: sections.courseId, posted: sql<number>`count(*)::int` })
      .from(grades)
      .innerJoin(enrollments, eq(enrollments.id, grades.enrollmentId))
      .innerJoin(sections, eq(sections.id, enrollments.sectionId))
      .where(eq(grades.itemId, itemId))
      .groupBy(sections.courseId);
    return new Map(rows.map(({ courseId, posted }) => [courseId, posted]));
  }
}

/** The item's precision as the core wants it. */
export function precisionOf({ digits, rounding }: Pick<ReportItemRow, 'digits' | 'rounding'>): Precision {
  return { digits, rounding: roundings[rounding] };
}
