import { Injectable } from '@nestjs/common';
import { effectOfValues, type ComparedGrade } from '#core/calculation';
import { decimalOrThrow, formatDecimal, unitsAt, type Decimal } from '#core/numbers';
import { nearestPostedIn, type ReportItem } from '#core/report-items';
import { bandsTogether, findBand, type Band } from '#core/scales';
import { itemOfBody, type ItemBody, type ItemEffectReply } from '#contract/report-items';
import type { CompositeReply } from '#contract/posting';
import { bodyOfBand } from '#contract/scales';
import { nameStudents, RecalculationService } from '#server/calculation';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PeriodViews, type ScaleVersion } from '#server/period-view';
import { Refusal, Transactions, type Queries } from '#server/platform';
import { ItemChecks, precisionOf, ReportItemsRepository } from '#server/report-items';
import { CompositesService } from './composites.service.js';
import { computedValue, type GradeRow } from '#core/grade-rows';
import { GradeRowsRepository } from '#server/grade-rows';

/** What is computed for a student, rounded as the item says. */
interface Value {
  readonly sectionId: number;
  readonly rounded: Decimal | null;
  readonly band: Band | undefined;
  /** The label that is posted; null for a code, a blank and a percentage without one. */
  readonly posted: string | null;
}

interface Values {
  readonly byEnrollment: ReadonlyMap<number, Value>;
  readonly bands: readonly Band[];
  readonly sectionNames: ReadonlyMap<number, string>;
}

/** No item rounds to more digits than this. */
const mostDigits = 2;

/**
 * Works out what a changed report item would do to what is computed for it: the change is made, the sheets of the period are
 * read as always, and it is taken back.
 */
@Injectable()
export class ItemEffectService {
  constructor(
    private readonly transactions: Transactions,
    private readonly items: ReportItemsRepository,
    private readonly periods: PeriodsRepository,
    private readonly checks: ItemChecks,
    private readonly views: PeriodViews,
    private readonly rows: GradeRowsRepository,
    private readonly composites: CompositesService,
    private readonly recalculation: RecalculationService,
  ) {}

  /** @throws Refusal as saving the item would */
  async preview(itemId: number, periodId: number, body: ItemBody): Promise<ItemEffectReply> {
    const started = performance.now();
    const queries = this.transactions.reading;
    const item = await this.items.byIdOrThrow(queries, itemId);
    const chosen = await this.periods.byIdOrThrow(queries, periodId);
    const changed = itemOfBody(body, item);
    const periods = await this.periods.ofSchool(queries, item.schoolId);
    const period = nearestPostedIn(changed, periods, chosen);
    if (!period) throw new Refusal('fields-wrong', {}, [{ field: 'ordinals', detail: 'periods that the year has' }]);
    await this.recalculation.freshen(period);
    const before = await this.valuesOf(queries, period, itemId);
    const after = await this.transactions.tryOut(async (trial) => {
      await this.checks.refuseFaulty(trial, item.schoolId, itemId, body);
      await this.items.put(trial, [changed]);
      return this.valuesOf(trial, period, itemId);
    });
    return {
      ...(await this.compare(queries, item, before, after)),
      periodName: period.name,
      milliseconds: Math.round(performance.now() - started),
    };
  }

  private async compare(
    queries: Queries,
    { name }: ReportItem,
    before: Values,
    after: Values,
  ): Promise<Omit<ItemEffectReply, 'periodName' | 'milliseconds'>> {
    const ids = [...new Set([...before.byEnrollment.keys(), ...after.byEnrollment.keys()])];
    const pairs = ids.map((id) => [before.byEnrollment.get(id), after.byEnrollment.get(id)] as const);
    const { effect, changed } = effectOfValues(pairs.map(comparedGrade));
    const sectionNames = new Map([...before.sectionNames, ...after.sectionNames]);
    const shown = (value: Value | undefined) => (value?.rounded ? formatDecimal(value.rounded) : null);
    return {
      ...effect,
      sections: new Set(pairs.map(([was, will]) => (will ?? was)!.sectionId)).size,
      postedOtherwise: pairs.filter(([was, will]) => isAsComputed(was) && !isAsComputed(will)).length,
      bands: bandsTogether([...before.bands, ...after.bands]).map(bodyOfBand),
      students: await nameStudents(
        queries,
        changed.map(({ student, from, to }) => {
          const [was, will] = pairs[student]!;
          const section = sectionNames.get((will ?? was)!.sectionId)!;
          return { enrollmentId: ids[student]!, section, item: name, before: shown(was), after: shown(will), from, to };
        }),
      ),
    };
  }

  /** Of everybody whom the item is reported for in the period, as their sheets show it. */
  private async valuesOf(queries: Queries, period: SchoolPeriod, itemId: number): Promise<Values> {
    const reported = (await this.views.of(queries, period)).reported.find(({ item }) => item.id === itemId);
    if (!reported) return { byEnrollment: new Map(), bands: [], sectionNames: new Map() };
    const { item, sections } = reported;
    const scales = new Map([...reported.scales].map(([id, { version }]) => [id, version]));
    const rows = await this.rows.ofSections(queries, item, period, [...scales.keys()]);
    const composites = await this.composites.ofSections(queries, item, period, scales);
    return {
      byEnrollment: new Map(
        rows.map((row) => [
          row.enrollmentId,
          valueOf(item, row, composites.get(row.enrollmentId), scales.get(row.sectionId)!),
        ]),
      ),
      bands: [...scales.values()].flatMap(({ bands }) => bands),
      sectionNames: new Map(sections.map(({ id, name }) => [id, name])),
    };
  }
}

function valueOf(item: ReportItem, row: GradeRow, composite: CompositeReply | undefined, scale: ScaleVersion): Value {
  const facts = { sectionId: row.sectionId, posted: row.mark.label };
  if (composite?.kind === 'value' && composite.rounded !== null) {
    const band = scale.bands.find(({ label }) => label === composite.label);
    return { ...facts, rounded: decimalOrThrow(composite.rounded), band };
  }
  const percent = composite?.kind === 'value' && composite.percent ? decimalOrThrow(composite.percent) : null;
  const value = computedValue(row, scale) ?? percent;
  return value
    ? { ...facts, ...findBand(scale.bands, value, precisionOf(item)) }
    : { ...facts, rounded: null, band: undefined };
}

function comparedGrade([was, will]: readonly [Value | undefined, Value | undefined]): ComparedGrade {
  const units = (value: Value | undefined) => (value?.rounded ? Number(unitsAt(value.rounded, mostDigits)) : -1);
  return { was: units(was), will: units(will), old: was?.band, next: will?.band };
}

/** Whether a label is posted that is the computed one. */
function isAsComputed(value: Value | undefined): boolean {
  return value !== undefined && value.posted !== null && value.posted === value.band?.label;
}
