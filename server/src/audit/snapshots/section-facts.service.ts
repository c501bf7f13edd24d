import { Injectable } from '@nestjs/common';
import type { StrayGrade } from '#core/audit';
import { isPostedIn } from '#core/report-items';
import { policyOfBody } from '#contract/calculation';
import type { SchoolPeriod } from '#server/calendar';
import { PeriodViews, type PeriodView, type RunningSection, type SchoolFacts } from '#server/period-view';
import type { Queries } from '#server/platform';
import { byId } from './by-id.js';
import type { SectionBase, SectionsRead } from './section-facts-of.js';
import { SectionFactsRepository, type PostedPair, type Standing } from './section-facts.repository.js';

/** What an audit sees beside the grades: sections with their set-up, grade books and seats, and what stands where it should not. */
@Injectable()
export class SectionFactsService {
  constructor(
    private readonly views: PeriodViews,
    private readonly facts: SectionFactsRepository,
  ) {}

  /** Of some sections that run in the period; others are left out. */
  async read(
    queries: Queries,
    school: SchoolFacts,
    period: SchoolPeriod,
    only: readonly number[],
  ): Promise<SectionsRead> {
    const view = this.views.viewOf(school, period);
    const running = only.flatMap((id) => byId(view.sections).get(id) ?? []);
    const ids = running.map(({ id }) => id);
    const standings = await this.facts.standings(queries, period, ids);
    const sealed = ids.filter((id) => standings.get(id)!.isSealed);
    const joined = ids.filter((id) => standings.get(id)!.isJoined);
    // Only there a rule asks what was earned before.
    const limited = running.filter(({ course }) => course.mostCredits !== null).map(({ id }) => id);
    return {
      running: running.map(baseOf),
      standings,
      assignments: await this.facts.assignments(queries, period, ids),
      seats: await this.facts.seats(queries, period, ids),
      unmatched: await this.facts.unmatchedGroups(queries, period.id, joined),
      earned: await this.facts.earnedBefore(queries, period.id, limited),
      strays: await this.straysOf(queries, period, school, view, standings),
      sealed: sealed.length > 0 ? await this.facts.sealed(queries, period.id, sealed) : [],
    };
  }

  /** What is posted in sections that do not run in the period. */
  async straysIn(queries: Queries, period: SchoolPeriod, sectionIds: readonly number[]): Promise<StrayGrade[]> {
    const school = await this.views.factsOf(queries, period.schoolId);
    const standings = await this.facts.standings(queries, period, sectionIds);
    return this.straysOf(queries, period, school, this.views.viewOf(school, period), standings);
  }

  /** Grades of items that their sections do not report in the period. */
  private async straysOf(
    queries: Queries,
    period: SchoolPeriod,
    school: SchoolFacts,
    { reported }: PeriodView,
    standings: ReadonlyMap<number, Standing>,
  ): Promise<StrayGrade[]> {
    const reporting = new Map(reported.map(({ item, sections }) => [item.id, byId(sections)]));
    const isExpected = ({ sectionId, itemId }: PostedPair) => reporting.get(itemId)?.has(sectionId) === true;
    const pairs = Array.from(standings, ([sectionId, { posted }]) => posted.map((itemId) => ({ sectionId, itemId })));
    const strays: StrayGrade[] = [];
    for (const pair of pairs.flat().filter((each) => !isExpected(each))) {
      const item = school.items.find(({ id }) => id === pair.itemId);
      const by = item && isPostedIn(item, school.periods, period) ? 'course' : 'period';
      for (const grade of await this.facts.shownGrades(queries, period.id, pair))
        strays.push({ ...grade, itemId: pair.itemId, item: item?.name ?? '', by });
    }
    return strays;
  }
}

function baseOf({ id, name, course, credits, policy }: RunningSection): SectionBase {
  const { title, department, onTranscript, mostCredits } = course;
  return {
    id,
    name,
    course: { id: course.id, title, department, onTranscript, mostCredits },
    credits,
    policy: policy ? policyOfBody(policy.policy) : null,
  };
}
