import { Injectable } from '@nestjs/common';
import { formatDecimal } from '#core/numbers';
import { coverage, coverageChange, type RuleChoices } from '#core/report-items';
import type { Course } from '#core/courses';
import type { CourseReply } from '#contract/courses';
import type { ReportItemsReply, RulePreviewReply, RuleReply, SaveRuleRequest } from '#contract/report-items';
import { CoursesRepository } from '#server/courses';
import { ChangeLog } from '#server/log';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { ReportItemsRepository, type VersionedRule } from './report-items.repository.js';

@Injectable()
export class ReportItemsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly items: ReportItemsRepository,
    private readonly courses: CoursesRepository,
    private readonly log: ChangeLog,
  ) {}

  async ofSchool(schoolId: number): Promise<ReportItemsReply> {
    const queries = this.transactions.reading;
    const rules = await this.items.rulesOfSchool(queries, schoolId);
    const courses = await this.courses.ofSchool(queries, schoolId);
    const items = await this.items.ofSchool(queries, schoolId);
    return {
      items: items.map(({ id, name, heading, scaleName, digits, rounding, failingNeedsLastDate, onTranscript }) => ({
        id,
        name,
        heading,
        scaleName,
        digits,
        rounding,
        failingNeedsLastDate,
        onTranscript,
      })),
      rules: rules.map(ruleReply),
      departments: [...new Set(courses.map(({ department }) => department))].toSorted(),
      courses: coverage(courses, rules).map(({ course, covers }) => ({ ...courseReply(course), covers })),
    };
  }

  /** What a change of a rule would add and remove, and how many posted grades would lose their place. */
  async preview(ruleId: number, choices: RuleChoices): Promise<RulePreviewReply> {
    const queries = this.transactions.reading;
    const rule = await this.items.ruleByIdOrThrow(queries, ruleId);
    const rules = await this.items.rulesOfSchool(queries, rule.schoolId);
    const changed = rules.map((each) => (each.id === rule.id ? { ...each, ...choices } : each));
    const courses = await this.courses.ofSchool(queries, rule.schoolId);
    const { added, removed } = coverageChange(courses, rules, changed, rule.itemId);
    const posted = await this.items.postedByCourse(queries, rule.itemId);
    return {
      added: added.map(courseReply),
      removed: removed.map((course) => ({ ...courseReply(course), postedGrades: posted.get(course.id) ?? 0 })),
    };
  }

  async changeRule(actor: Actor, ruleId: number, { version, ...choices }: SaveRuleRequest): Promise<RuleReply> {
    return this.transactions.run(async (queries) => {
      const before = await this.items.ruleByIdOrThrow(queries, ruleId);
      await this.refuseUnknownDepartment(queries, before, choices.department);
      if (!(await this.items.changeRule(queries, ruleId, version, choices))) throw new Refusal('rule-changed');
      const after = await this.items.ruleByIdOrThrow(queries, ruleId);
      await this.log.record(queries, actor, [{ action: 'change rule', thing: `rule ${ruleId}`, before, after }]);
      return ruleReply(after);
    });
  }

  private async refuseUnknownDepartment(
    queries: Queries,
    rule: VersionedRule,
    department: string | null,
  ): Promise<void> {
    if (department === null) return;
    const courses = await this.courses.ofSchool(queries, rule.schoolId);
    if (courses.some((course) => course.department === department)) return;
    throw new Refusal('fields-wrong', {}, [{ field: 'department', detail: 'a department of this school' }]);
  }
}

function courseReply({ schoolId: _schoolId, countsInGpa: _countsInGpa, credits, ...course }: Course): CourseReply {
  return { ...course, credits: formatDecimal(credits) };
}

function ruleReply({ id, itemId, periodKind, department, level, length, version }: VersionedRule): RuleReply {
  return { id, itemId, periodKind, department, level, length, version };
}
