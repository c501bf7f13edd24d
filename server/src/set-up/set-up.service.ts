import { Injectable } from '@nestjs/common';
import { checkItems, coverage, type ItemFault } from '#core/report-items';
import { versionsInForce } from '#core/period-view';
import { checkScale, placementsInForce, scaleInForce } from '#core/scales';
import { calendarFaultSentence } from '#contract/calendar';
import { itemFaultSentence } from '#contract/report-items';
import { scaleFaultSentence } from '#contract/scales';
import type { SetUpFaultReply, SetUpPlace, SetUpReply } from '#contract/set-up';
import { PolicyFaults } from '#server/calculation';
import { CalendarService, PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { CoursesRepository } from '#server/courses';
import { PlacementsRepository, seekerOf } from '#server/placements';
import { Transactions, type Queries } from '#server/platform';
import { precisionOf, ReportItemsRepository } from '#server/report-items';
import { PeriodViews } from '#server/period-view';
import { ScalesRepository, usesIn, usualPrecision } from '#server/scales';

/** Every fault of a school's set-up in one list: scales, calendar, report items, courses and calculation. */
@Injectable()
export class SetUpService {
  constructor(
    private readonly transactions: Transactions,
    private readonly scales: ScalesRepository,
    private readonly views: PeriodViews,
    private readonly calendar: CalendarService,
    private readonly periods: PeriodsRepository,
    private readonly items: ReportItemsRepository,
    private readonly courses: CoursesRepository,
    private readonly placements: PlacementsRepository,
    private readonly policies: PolicyFaults,
  ) {}

  /** Scales are looked at as they stand in the period. */
  async check(periodId: number): Promise<SetUpReply> {
    return this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const scales = await this.scaleFaults(queries, period);
      const calendar = await this.calendarFaults(queries, period.schoolId);
      const items = await this.itemFaults(queries, period);
      const calculation = await this.calculationFaults(queries, period);
      return {
        faults: [...scales.faults, ...calendar, ...items.faults, ...calculation.faults],
        checked: {
          scales: scales.checked,
          periods: items.periods,
          items: items.items,
          courses: items.courses,
          policies: calculation.policies,
        },
      };
    });
  }

  private async scaleFaults(queries: Queries, period: SchoolPeriod) {
    const rows = await this.scales.ofSchool(queries, period.schoolId);
    const facts = await this.views.factsOf(queries, period.schoolId);
    const inForce = versionsInForce(facts.versions, period);
    const uses = usesIn(this.views.viewOf(facts, period));
    const codes = [...facts.codes.keys()];
    const faults = rows.flatMap(({ id, name, kind, highestLevel }) => {
      const version = inForce.get(id);
      if (!version) return [];
      const item = uses.get(id)?.[0]?.item ?? usualPrecision;
      return checkScale(version.bands, precisionOf(item), { kind, highestLevel, codes }).map(
        (fault): SetUpFaultReply => ({
          key: `scale ${id} ${fault.code} ${fault.index ?? ''}`,
          place: 'scales',
          code: fault.code,
          severity: fault.severity,
          says: `${name}: ${scaleFaultSentence(fault)}`,
          search: `?scale=${id}`,
        }),
      );
    });
    return { faults, checked: rows.length };
  }

  private async calendarFaults(queries: Queries, schoolId: number): Promise<SetUpFaultReply[]> {
    const faults = await this.calendar.faultsOf(queries, schoolId);
    return faults.map((fault) => ({
      key: `${fault.of} ${fault.id} ${fault.code}`,
      place: 'calendar',
      code: fault.code,
      severity: fault.severity,
      says: calendarFaultSentence(fault, (day) => day),
      search: fault.of === 'section' ? '' : `?${fault.of}=${fault.id}`,
    }));
  }

  private async calculationFaults(queries: Queries, period: SchoolPeriod) {
    const { faults, policies } = await this.policies.in(queries, period);
    const replies = faults.map(({ code, severity, says, policyId, sectionId }, at): SetUpFaultReply => ({
      key: `policy ${policyId ?? ''} section ${sectionId ?? ''} ${code} ${at}`,
      place: code === 'percent-without-scale' ? 'scales' : 'calculation',
      code,
      severity,
      says,
      search: policyId === null ? '' : `?policy=${policyId}`,
    }));
    return { faults: replies, policies };
  }

  private async itemFaults(queries: Queries, period: SchoolPeriod) {
    const { schoolId } = period;
    const items = await this.items.ofSchool(queries, schoolId);
    const courses = await this.courses.ofSchool(queries, schoolId);
    const periods = await this.periods.ofSchool(queries, schoolId);
    const placements = placementsInForce(await this.placements.ofSchool(queries, schoolId), period);
    const assignment = {
      rules: await this.items.rulesOfSchool(queries, schoolId),
      exceptions: await this.items.exceptionsOfSchool(queries, schoolId),
    };
    const faults = checkItems({
      items,
      periods,
      coverage: coverage(courses, assignment),
      hasScale: (course) => scaleInForce(placements, seekerOf(course)) !== undefined,
    });
    return {
      faults: faults.map(itemFaultReply),
      periods: periods.length,
      items: items.length,
      courses: courses.length,
    };
  }
}

const placeOfFault: Partial<Record<ItemFault['code'], SetUpPlace>> = {
  'course-without-credits': 'courses',
  'item-without-scale': 'scales',
};

function itemFaultReply(fault: ItemFault): SetUpFaultReply {
  const place = placeOfFault[fault.code] ?? 'report-items';
  const { courseId, itemId } = fault;
  return {
    key: `course ${courseId ?? ''} item ${itemId ?? ''} ${fault.code} ${fault.data['part'] ?? ''}${fault.data['period'] ?? ''}`,
    place,
    code: fault.code,
    severity: fault.severity,
    says: itemFaultSentence(fault),
    search: courseId !== null ? `?course=${courseId}` : itemId !== null ? `?item=${itemId}` : '',
  };
}
