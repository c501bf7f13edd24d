import { Injectable } from '@nestjs/common';
import { inArray, sql } from 'drizzle-orm';
import { effectOfPolicy, policyInForce, type ChangedGrade, type PolicyPlace } from '#core/calculation';
import type { Band } from '#core/scales';
import { formatDecimal } from '#core/numbers';
import type { PolicyBody, PolicyEffectReply, PreviewPolicyRequest } from '#contract/calculation';
import { bodyOfBand } from '#contract/scales';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { tables, Transactions, type Queries } from '#server/platform';
import { ReportingService } from '#server/report-items';
import { SectionScales } from '#server/scales';
import { BookCalculator } from './book-calculator.js';
import type { ComparedBooks } from './calculation-worker.js';
import { BookSectionsRepository, type BookSection } from './book-sections.repository.js';
import { takesFromBook } from './books.service.js';
import { policiesFor, SectionPolicies, type PlacedPolicy } from './section-policies.js';

/** Works out what a policy would do to the grade books of a period before it is saved, in a thread of its own. */
@Injectable()
export class PolicyEffectService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly sections: BookSectionsRepository,
    private readonly policies: SectionPolicies,
    private readonly reporting: ReportingService,
    private readonly scales: SectionScales,
    private readonly calculator: BookCalculator,
  ) {}

  async preview(schoolId: number, request: PreviewPolicyRequest): Promise<PolicyEffectReply> {
    const period = await this.periods.byIdOrThrow(this.transactions.reading, request.inPeriodId);
    return this.previewMany(schoolId, period, [request]);
  }

  /** Of several places at once, each with its policy; null where the place would inherit. */
  async previewMany(
    schoolId: number,
    period: SchoolPeriod,
    changes: readonly (PolicyPlace & { readonly policy: PolicyBody | null })[],
  ): Promise<PolicyEffectReply> {
    const started = performance.now();
    const queries = this.transactions.reading;
    const before = await this.policies.ofSchool(queries, schoolId);
    const after = changes.reduce<readonly PlacedPolicy[]>(withPolicy, before);
    const sections = await this.concerned(queries, period, before, after);
    const item = (await this.reporting.inPeriod(queries, period)).find(({ item: each }) => takesFromBook(each));
    const bands = new Map<number, readonly Band[]>();
    if (item) {
      const inForce = await this.scales.inForce(queries, item.item, period, item.sections);
      for (const [sectionId, scale] of inForce) bands.set(sectionId, scale.bands);
    }
    const precision = { digits: item?.item.digits ?? 2, rounding: item?.item.rounding ?? ('halfUp' as const) };
    const compared = await this.calculator.compare(
      period,
      policiesFor(before, sections, period.id),
      policiesFor(after, sections, period.id),
      precision,
    );
    const bandsOf = Array.from(compared.sectionIds, (sectionId) => bands.get(sectionId) ?? []);
    const { changedGrades, ...counts } = effectOfPolicy(compared.before, compared.after, bandsOf, precision);
    const first = [...bands.values()][0] ?? [];
    return {
      sections: sections.length,
      ...counts,
      bands: first.map(bodyOfBand),
      students: await this.named(queries, changedGrades, compared, sections),
      milliseconds: Math.round(performance.now() - started),
    };
  }

  /** The sections with scores for which another policy would hold. */
  private async concerned(
    queries: Queries,
    period: SchoolPeriod,
    before: readonly PlacedPolicy[],
    after: readonly PlacedPolicy[],
  ): Promise<BookSection[]> {
    const sections = (await this.sections.inPeriod(queries, period)).filter(({ scores }) => scores > 0);
    return sections.filter(
      (section) => policyInForce(before, section, period.id) !== policyInForce(after, section, period.id),
    );
  }

  private async named(
    queries: Queries,
    changed: readonly ChangedGrade[],
    { enrollmentIds, sectionIds }: Pick<ComparedBooks, 'enrollmentIds' | 'sectionIds'>,
    sections: readonly BookSection[],
  ): Promise<PolicyEffectReply['students']> {
    if (changed.length === 0) return [];
    const { enrollments, people } = tables;
    const rows = await queries
      .select({
        id: enrollments.id,
        studentId: people.id,
        student: sql<string>`${people.familyName} || ', ' || ${people.givenName}`,
        studentNumber: people.sourcedId,
      })
      .from(enrollments)
      .innerJoin(people, sql`${people.id} = ${enrollments.studentId}`)
      .where(
        inArray(
          enrollments.id,
          changed.map(({ student }) => enrollmentIds[student]!),
        ),
      );
    const names = new Map(rows.map(({ id, ...row }) => [id, row]));
    const sectionNames = new Map(sections.map(({ id, name }) => [id, name]));
    return changed
      .map(({ student, before, after, ...labels }) => ({
        ...names.get(enrollmentIds[student]!)!,
        section: sectionNames.get(sectionIds[student]!)!,
        before: before && formatDecimal(before),
        after: after && formatDecimal(after),
        ...labels,
      }))
      .toSorted((a, b) => a.student.localeCompare(b.student));
  }
}

/** The policies as they would be. */
function withPolicy(
  before: readonly PlacedPolicy[],
  { department, sectionId, periodId, policy }: PolicyPlace & { readonly policy: PolicyBody | null },
): PlacedPolicy[] {
  const others = before.filter(
    (each) => each.department !== department || each.sectionId !== sectionId || each.periodId !== periodId,
  );
  return policy ? [...others, { department, sectionId, periodId, policy }] : others;
}
