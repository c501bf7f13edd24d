import { Injectable } from '@nestjs/common';
import { itemFactOf, type SectionFact, type SheetFact, type Snapshot, type StrayGrade } from '#core/audit';
import { isPostedIn } from '#core/report-items';
import { decimalOrThrow } from '#core/numbers';
import { policyOfBody } from '#contract/calculation';
import type { SchoolPeriod } from '#server/calendar';
import {
  PeriodViews,
  type PeriodView,
  type ReportedItem,
  type RunningSection,
  type SchoolFacts,
} from '#server/period-view';
import type { Queries } from '#server/platform';
import { sheetId, SignOffsRepository } from '#server/posting';
import { sectionsById } from './sections-by-id.js';
import { SectionFactsRepository, type PostedPair } from './section-facts.repository.js';

/** What an audit sees beside the grades: sections with their set-up, grade books and seats, and what stands where it should not. */
@Injectable()
export class SectionFactsService {
  constructor(
    private readonly views: PeriodViews,
    private readonly facts: SectionFactsRepository,
    private readonly signOffs: SignOffsRepository,
  ) {}

  /** Of some sections that run in the period. */
  async ofSections(
    queries: Queries,
    period: SchoolPeriod,
    only: ReadonlySet<number>,
  ): Promise<Pick<Snapshot, 'sections' | 'strays' | 'sealed'>> {
    const school = await this.views.factsOf(queries, period.schoolId);
    const view = this.views.viewOf(school, period);
    const byId = sectionsById(view.sections);
    const ids = [...only].filter((id) => byId.has(id));
    return {
      sections: await this.sectionsOf(queries, period, view, ids),
      strays: await this.straysOf(queries, period, school, view, await this.facts.postedPairs(queries, period, ids)),
      sealed: await this.facts.sealed(queries, period.id, ids),
    };
  }

  /** What is posted in sections that do not run in the period. */
  async straysIn(queries: Queries, period: SchoolPeriod, sectionIds: readonly number[]): Promise<StrayGrade[]> {
    const school = await this.views.factsOf(queries, period.schoolId);
    const pairs = await this.facts.postedPairs(queries, period, sectionIds);
    return this.straysOf(queries, period, school, this.views.viewOf(school, period), pairs);
  }

  private async sectionsOf(
    queries: Queries,
    period: SchoolPeriod,
    { sections, reported }: PeriodView,
    ids: readonly number[],
  ): Promise<SectionFact[]> {
    const problems = await this.facts.bookProblems(queries, period.id, ids);
    const signedOff = await this.signOffs.ofSections(queries, period.id, ids);
    const sheets = sheetsBySection(reported, ids, (sectionId, itemId) =>
      signedOff.has(sheetId({ sectionId, itemId, periodId: period.id })),
    );
    const assignments = await this.facts.assignments(queries, period, ids);
    const seats = await this.facts.seats(queries, period, ids);
    const byId = sectionsById(sections);
    // Only there a rule asks what was earned before.
    const limited = ids.filter((id) => byId.get(id)!.course.mostCredits !== null);
    const unmatched = await this.facts.unmatchedGroups(queries, period.id, ids);
    const earned = await this.facts.earnedBefore(queries, period.id, limited);
    return ids.map((id) => ({
      ...factsOf(byId.get(id)!),
      students: (seats.get(id) ?? []).map((seat) => ({
        ...seat,
        creditsBefore: earned.get(seat.enrollmentId) ?? noCredits,
      })),
      sheets: sheets.get(id) ?? [],
      bookProblem: problems.get(id) ?? null,
      assignments: assignments.get(id) ?? [],
      unmatched: unmatched.get(id) ?? [],
    }));
  }

  /** Grades of items that their sections do not report in the period. */
  private async straysOf(
    queries: Queries,
    period: SchoolPeriod,
    school: SchoolFacts,
    { reported }: PeriodView,
    pairs: readonly PostedPair[],
  ): Promise<StrayGrade[]> {
    const reporting = new Map(reported.map(({ item, sections }) => [item.id, sectionsById(sections)]));
    const isExpected = ({ sectionId, itemId }: PostedPair) => reporting.get(itemId)?.has(sectionId) === true;
    const strays: StrayGrade[] = [];
    for (const pair of pairs.filter((each) => !isExpected(each))) {
      const item = school.items.find(({ id }) => id === pair.itemId);
      const by = item && isPostedIn(item, school.periods, period) ? 'course' : 'period';
      for (const grade of await this.facts.shownGrades(queries, period.id, pair))
        strays.push({ ...grade, itemId: pair.itemId, item: item?.name ?? '', by });
    }
    return strays;
  }
}

const noCredits = decimalOrThrow('0');

function factsOf({ id, name, course, credits, policy }: RunningSection) {
  const { title, department, onTranscript, mostCredits } = course;
  return {
    id,
    name,
    course: { id: course.id, title, department, onTranscript, mostCredits },
    credits,
    policy: policy ? policyOfBody(policy.policy) : null,
  };
}

function sheetsBySection(
  reported: readonly ReportedItem[],
  ids: readonly number[],
  isSignedOff: (sectionId: number, itemId: number) => boolean,
): ReadonlyMap<number, SheetFact[]> {
  const found = new Map<number, SheetFact[]>();
  for (const { item, sections, window, scales } of reported) {
    const fact = itemFactOf(item, window);
    const byId = sectionsById(sections);
    for (const id of ids.filter((each) => byId.has(each))) {
      const own = found.get(id) ?? [];
      const version = scales.get(id)?.version;
      own.push({
        item: fact,
        scale: version
          ? {
              name: version.scaleName,
              kind: version.kind,
              bands: version.bands.filter(({ isOff }) => !isOff),
              highestLevel: version.highestLevel,
            }
          : null,
        isSignedOff: isSignedOff(id, item.id),
      });
      found.set(id, own);
    }
  }
  return found;
}
