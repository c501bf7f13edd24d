import { Injectable } from '@nestjs/common';
import { formatDecimal, roundHalfUp, roundings, roundTo, type Rational } from '#core/numbers';
import { isBlank } from '#core/posting';
import type { SpecialCode } from '#core/codes';
import {
  compositeOf,
  partPeriod,
  partState,
  type Composite,
  type WeighedPart,
  type ReportItem,
} from '#core/report-items';
import { bandOfPoints } from '#core/scales';
import type { GradeRow } from '#core/grade-rows';
import type { CompositeReply } from '#contract/posting';
import { CodesRepository } from '#server/codes';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { GradeRowsRepository, type EarlierSeat } from '#server/grade-rows';
import type { Queries } from '#server/platform';
import { ReportItemsRepository } from '#server/report-items';
import { ScaleVersionsRepository, type ScaleVersion } from '#server/period-view';

/** A part with what is posted for it. */
interface FoundPart {
  readonly name: string;
  readonly part: ReportItem['parts'][number];
  /** Where it is posted; null where the year has no such period. */
  readonly periodId: number | null;
  /** By enrollment; of who came from another section of the course, what was posted there where nothing is here. */
  readonly rows: ReadonlyMap<number, GradeRow>;
}

/** Digits beyond which a computed percent says nothing that rounding could still turn. */
const exactDigits = 10;

/** Works out composites of students from what is posted for their parts. */
@Injectable()
export class CompositesService {
  constructor(
    private readonly items: ReportItemsRepository,
    private readonly periods: PeriodsRepository,
    private readonly rows: GradeRowsRepository,
    private readonly scales: ScaleVersionsRepository,
    private readonly specialCodes: CodesRepository,
  ) {}

  /**
   * By enrollment; empty for an item that is no composite.
   * @param scales by section: the scale in force
   */
  async ofSections(
    queries: Queries,
    item: ReportItem,
    period: SchoolPeriod,
    scales: ReadonlyMap<number, ScaleVersion>,
  ): Promise<ReadonlyMap<number, CompositeReply>> {
    if (item.source !== 'composite') return new Map();
    const parts = await this.findParts(queries, item, period, [...scales.keys()]);
    const posted = parts.flatMap(({ rows }) => [...rows.values()]);
    const versions = await this.scales.byId(queries, [
      ...new Set(posted.flatMap(({ scaleVersionId }) => scaleVersionId ?? [])),
    ]);
    const codes = new Map((await this.specialCodes.all(queries)).map((code) => [code.code, code]));
    const enrollments = await this.rows.ofSections(queries, item, period, [...scales.keys()]);
    return new Map(
      enrollments.map(({ enrollmentId, sectionId }) => {
        const weighed = parts.map((part) => weighedPart(item, part, enrollmentId, versions, codes));
        return [enrollmentId, compositeReply(item, compositeOf(weighed), parts, weighed, scales.get(sectionId)!)];
      }),
    );
  }

  private async findParts(
    queries: Queries,
    item: ReportItem,
    period: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<FoundPart[]> {
    const items = await this.items.ofSchool(queries, item.schoolId);
    const periods = await this.periods.ofSchool(queries, item.schoolId);
    const earlier = await this.rows.earlierSeats(queries, sectionIds);
    const sections = [...new Set([...sectionIds, ...earlier.map(({ sectionId }) => sectionId)])];
    const found: FoundPart[] = [];
    for (const part of item.parts) {
      const partItem = items.find(({ id }) => id === part.itemId)!;
      const within = partPeriod(partItem, part, periods, period);
      const rows = within ? await this.rows.ofSections(queries, partItem, within, sections) : [];
      const name = within ? `${partItem.name}, ${within.name}` : partItem.name;
      found.push({
        name,
        part,
        periodId: within?.id ?? null,
        rows: withEarlier(rows, earlier),
      });
    }
    return found;
  }
}

function withEarlier(rows: readonly GradeRow[], earlier: readonly EarlierSeat[]): ReadonlyMap<number, GradeRow> {
  const byEnrollment = new Map(rows.map((row) => [row.enrollmentId, row]));
  for (const { enrollmentId, earlierId } of earlier) {
    const [own, before] = [byEnrollment.get(enrollmentId), byEnrollment.get(earlierId)];
    if (before && !isBlank(before.mark) && (!own || isBlank(own.mark))) byEnrollment.set(enrollmentId, before);
  }
  return byEnrollment;
}

function weighedPart(
  { countBy }: ReportItem,
  { name, part, rows }: FoundPart,
  enrollmentId: number,
  versions: ReadonlyMap<number, ScaleVersion>,
  codes: ReadonlyMap<string, SpecialCode>,
): WeighedPart {
  const row = rows.get(enrollmentId);
  if (!row || isBlank(row.mark)) return { name, weight: part.weight, state: { kind: 'missing' } };
  const bands = versions.get(row.scaleVersionId ?? 0)?.bands ?? [];
  return { name, weight: part.weight, state: partState(row.mark, countBy, bands, codes) };
}

function compositeReply(
  { countBy, digits, rounding }: ReportItem,
  composite: Composite,
  found: readonly FoundPart[],
  weighed: readonly WeighedPart[],
  inForce: ScaleVersion,
): CompositeReply {
  if (composite.kind !== 'value') return composite;
  const parts = composite.parts.map(({ name, value, weight, share }) => {
    const { part, periodId } = found.find((each) => each.name === name)!;
    return {
      name,
      itemId: part.itemId,
      periodId: periodId!,
      value: formatDecimal(value),
      weight: formatDecimal(weight),
      share: formatDecimal(roundTo(share, 2, roundHalfUp)),
    };
  });
  const leftOut = weighed.flatMap(({ name, state }) => (state.kind === 'left out' ? [{ name, code: state.code }] : []));
  const exact = exactText(composite.value);
  if (countBy === 'percent')
    return { kind: 'value', percent: exact, points: null, rounded: null, label: null, parts, leftOut };
  const points = roundTo(composite.value, digits, roundings[rounding]);
  const label = bandOfPoints(inForce.bands, points)?.label ?? null;
  return { kind: 'value', percent: null, points: exact, rounded: formatDecimal(points), label, parts, leftOut };
}

/** As exact as a computed percentage is kept, without zeros at its end. */
function exactText(value: Rational): string {
  return formatDecimal(roundTo(value, exactDigits, roundHalfUp)).replace(/\.?0+$/, '');
}
