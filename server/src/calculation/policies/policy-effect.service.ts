import { Injectable } from '@nestjs/common';
import { effectOfPolicy, policyInForce, type PolicyEffect, type PolicyPlace } from '#core/calculation';
import { bandsTogether, type Band } from '#core/scales';
import { formatDecimal } from '#core/numbers';
import type { PolicyBody, PolicyEffectReply, PreviewPolicyRequest } from '#contract/calculation';
import { bodyOfBand } from '#contract/scales';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PeriodViews, PoliciesRepository, type PeriodView } from '#server/period-view';
import { Transactions, type Queries } from '#server/platform';
import { BookCalculator } from '../book-calculator.js';
import type { ComparedBooks, ComparedValue } from '../calculation-worker.js';
import { BookSectionsRepository, type BookSection } from '../books/book-sections.repository.js';
import { takesFromBook } from '../books/books.service.js';
import { nameStudents } from '../books/name-students.js';
import { policiesFor, type PlacedPolicy } from './section-policies.js';

/** Works out what a policy would do to the grade books of a period before it is saved, in a thread of its own. */
@Injectable()
export class PolicyEffectService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly sections: BookSectionsRepository,
    private readonly policies: PoliciesRepository,
    private readonly views: PeriodViews,
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
    const { before, after, view, sections, texts } = await this.transactions.snapshot(async (queries) => {
      const before = await this.policies.ofSchool(queries, schoolId);
      const after = changes.reduce<readonly PlacedPolicy[]>(withPolicy, before);
      const view = await this.views.of(queries, period);
      const sections = await this.concerned(queries, view, before, after);
      const ids = sections.map(({ id }) => id);
      return { before, after, view, sections, texts: await this.calculator.read(queries, period, ids) };
    });
    const columns = comparedColumns(view);
    const compared = await this.calculator.compare(
      texts,
      policiesFor(before, sections, period.id),
      policiesFor(after, sections, period.id),
      columns.map(({ value }) => value),
    );
    const effects = columns.map(({ name, bands, value: { precision } }, at) => {
      const bandsOf = Array.from(compared.sectionIds, (sectionId) => bands(sectionId));
      const { before: was, after: will } = compared.values[at]!;
      return { name, effect: effectOfPolicy(was, will, bandsOf, precision) };
    });
    return {
      sections: sections.length,
      ...summed(effects.map(({ effect }) => effect)),
      bands: bandsTogether(columns.flatMap(({ bands }) => sections.flatMap(({ id }) => bands(id) ?? []))).map(
        bodyOfBand,
      ),
      students: await this.named(this.transactions.reading, effects, compared, sections),
      milliseconds: Math.round(performance.now() - started),
    };
  }

  /** The sections with scores for which another policy would hold. */
  private async concerned(
    queries: Queries,
    view: PeriodView,
    before: readonly PlacedPolicy[],
    after: readonly PlacedPolicy[],
  ): Promise<BookSection[]> {
    const sections = (await this.sections.ofView(queries, view)).filter(({ scores }) => scores > 0);
    return sections.filter(
      (section) => policyInForce(before, section, view.period.id) !== policyInForce(after, section, view.period.id),
    );
  }

  private async named(
    queries: Queries,
    effects: readonly { readonly name: string; readonly effect: PolicyEffect }[],
    { enrollmentIds, sectionIds }: Pick<ComparedBooks, 'enrollmentIds' | 'sectionIds'>,
    sections: readonly BookSection[],
  ): Promise<PolicyEffectReply['students']> {
    const changed = effects.flatMap(({ name, effect }) =>
      effect.changedGrades.map((each) => ({ ...each, item: name })),
    );
    const sectionNames = new Map(sections.map(({ id, name }) => [id, name]));
    return nameStudents(
      queries,
      changed.map(({ student, before, after, ...labels }) => ({
        enrollmentId: enrollmentIds[student]!,
        section: sectionNames.get(sectionIds[student]!)!,
        before: before && formatDecimal(before),
        after: after && formatDecimal(after),
        ...labels,
      })),
    );
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

/** One value of the books, and which bands label it in which section. */
interface ComparedColumn {
  readonly name: string;
  readonly value: ComparedValue;
  /** Undefined where the section does not report the item. */
  readonly bands: (sectionId: number) => readonly Band[] | undefined;
}

/**
 * Everything that takes its value from the books: each item, by percent and by level where scales of both kinds are in use.
 * Where no item does, the percents themselves.
 */
function comparedColumns({ reported }: PeriodView): ComparedColumn[] {
  const columns = reported
    .filter(({ item }) => takesFromBook(item))
    .flatMap(({ item, sections, scales }): ComparedColumn[] => {
      const own = new Set(sections.map(({ id }) => id));
      const isLevelIn = (id: number) => scales.get(id)?.version.kind === 'level';
      return [false, true]
        .filter((isLevel) => sections.some(({ id }) => isLevelIn(id) === isLevel))
        .map((isLevel) => ({
          name: item.name,
          value: {
            categoryId: item.categoryId,
            isLevel,
            precision: { digits: item.digits, rounding: item.rounding },
          },
          bands: (id) => (own.has(id) && isLevelIn(id) === isLevel ? (scales.get(id)?.version.bands ?? []) : undefined),
        }));
    });
  const percents = { categoryId: null, isLevel: false, precision: { digits: 2, rounding: 'halfUp' as const } };
  return columns.length > 0 ? columns : [{ name: 'grade book', value: percents, bands: () => [] }];
}

function summed(effects: readonly PolicyEffect[]): Omit<PolicyEffect, 'changedGrades'> {
  const sum = (of: (effect: PolicyEffect) => number) => effects.reduce((total, effect) => total + of(effect), 0);
  const moves = new Map<string, PolicyEffect['moves'][number]>();
  for (const move of effects.flatMap((effect) => effect.moves)) {
    const key = `${move.from}\t${move.to}`;
    moves.set(key, { ...move, grades: move.grades + (moves.get(key)?.grades ?? 0) });
  }
  return {
    grades: sum(({ grades }) => grades),
    changed: sum(({ changed }) => changed),
    rise: sum(({ rise }) => rise),
    fall: sum(({ fall }) => fall),
    moved: sum(({ moved }) => moved),
    passAnew: sum(({ passAnew }) => passAnew),
    failAnew: sum(({ failAnew }) => failAnew),
    moves: [...moves.values()],
  };
}
