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
import { byId } from './by-id.js';
import { SectionFactsRepository, type PostedPair, type Standing } from './section-facts.repository.js';

/** What an audit sees beside the grades: sections with their set-up, grade books and seats, and what stands where it should not. */
@Injectable()
export class SectionFactsService {
  constructor(
    private readonly views: PeriodViews,
    private readonly facts: SectionFactsRepository,
  ) {}

  /** Of some sections that run in the period. */
  async ofSections(
    queries: Queries,
    school: SchoolFacts,
    period: SchoolPeriod,
    only: readonly number[],
  ): Promise<Pick<Snapshot, 'sections' | 'strays' | 'sealed'>> {
    const view = this.views.viewOf(school, period);
    const ids = only.filter((id) => byId(view.sections).has(id));
    const standings = await this.facts.standings(queries, period, ids);
    const sealed = ids.filter((id) => standings.get(id)!.isSealed);
    return {
      sections: await this.sectionsOf(queries, period, view, ids, standings),
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

  private async sectionsOf(
    queries: Queries,
    period: SchoolPeriod,
    { sections, reported }: PeriodView,
    ids: readonly number[],
    standings: ReadonlyMap<number, Standing>,
  ): Promise<SectionFact[]> {
    const sheets = sheetsBySection(reported, standings);
    const assignments = await this.facts.assignments(queries, period, ids);
    const seats = await this.facts.seats(queries, period, ids);
    const running = byId(sections);
    const joined = ids.filter((id) => standings.get(id)!.isJoined);
    const unmatched = await this.facts.unmatchedGroups(queries, period.id, joined);
    // Only there a rule asks what was earned before.
    const limited = ids.filter((id) => running.get(id)!.course.mostCredits !== null);
    const earned = await this.facts.earnedBefore(queries, period.id, limited);
    return ids.map((id) => ({
      ...factsOf(running.get(id)!),
      students: (seats.get(id) ?? []).map((seat) => ({
        ...seat,
        creditsBefore: earned.get(seat.enrollmentId) ?? noCredits,
      })),
      sheets: sheets.get(id) ?? [],
      bookProblem: standings.get(id)!.problem,
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
  standings: ReadonlyMap<number, Standing>,
): ReadonlyMap<number, SheetFact[]> {
  const found = new Map<number, SheetFact[]>();
  for (const { item, sections, window, scales } of reported) {
    const fact = itemFactOf(item, window);
    const running = byId(sections);
    for (const [id, { signedOff }] of standings) {
      if (!running.has(id)) continue;
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
        isSignedOff: signedOff.includes(item.id),
      });
      found.set(id, own);
    }
  }
  return found;
}
