import { periodsWithin, yearOf, type Period } from '#core/calendar';
import type { Course } from '#core/courses';
import { compareDecimals, formatDecimal, sumOfDecimals, type Decimal } from '#core/numbers';
import { reportsItem, type CourseCoverage } from './coverage.js';
import { isPostedIn } from './posted-in.js';
import type { CompositePart, ReportItem } from './report-item.js';

export type ItemFaultCode =
  | 'course-without-transcript-item'
  | 'transcript-items-overlap'
  | 'part-not-reported'
  | 'part-period-missing'
  | 'item-without-scale'
  | 'course-without-credits'
  | 'weights-not-100'
  | 'weight-not-positive'
  | 'composite-without-parts'
  | 'composite-cycle'
  | 'part-unknown'
  | 'part-twice'
  | 'item-nowhere'
  | 'comment-label-unknown';

/** What is wrong with the report items. `blocks` keeps an item from being saved; `warns` is for the registrar to judge. */
export interface ItemFault {
  readonly code: ItemFaultCode;
  readonly severity: 'blocks' | 'warns';
  readonly itemId: number | null;
  readonly courseId: number | null;
  readonly data: Readonly<Record<string, string>>;
}

export interface CheckedItems {
  readonly items: readonly ReportItem[];
  readonly coverage: readonly CourseCoverage[];
  readonly periods: readonly Period[];
  /** Whether some scale is in force for the course, for items without a scale of their own. */
  readonly hasScale: (course: Course) => boolean;
}

const hundred: Decimal = { units: 100n, digits: 0 };

/** The faults of a school's items: of the items themselves first, then course by course. */
export function checkItems({ items, coverage, periods, hasScale }: CheckedItems): ItemFault[] {
  return [
    ...items.flatMap((item) => checkItem(items, item)),
    ...items.flatMap((item) => checkPlaces(items, item, periods)),
    ...coverage.flatMap((covered) => checkCourse(items, covered, periods, hasScale)),
  ];
}

/** The faults of one item among the others: those that keep it from being saved. */
export function checkItem(items: readonly ReportItem[], item: ReportItem): ItemFault[] {
  if (item.source !== 'composite') return [];
  const faults: ItemFault[] = [];
  const add = (code: ItemFaultCode, data: Record<string, string> = {}) =>
    faults.push({ code, severity: 'blocks', itemId: item.id, courseId: null, data: { item: item.name, ...data } });
  if (item.parts.length === 0) add('composite-without-parts');
  for (const part of item.parts) {
    if (!items.some(({ id }) => id === part.itemId)) add('part-unknown', { part: String(part.itemId) });
    if (part.weight.units <= 0n) add('weight-not-positive', { weight: formatDecimal(part.weight) });
  }
  for (const [at, { itemId, ordinal }] of item.parts.entries()) {
    const isTwice = item.parts.slice(0, at).some((other) => other.itemId === itemId && other.ordinal === ordinal);
    const part = items.find(({ id }) => id === itemId)?.name ?? String(itemId);
    if (isTwice) add('part-twice', { part, ordinal: String(ordinal) });
  }
  const total = sumOfWeights(item.parts);
  if (item.parts.length > 0 && compareDecimals(total, hundred) !== 0) {
    add('weights-not-100', { total: formatDecimal(total) });
  }
  const cycle = cycleFrom(items, item);
  if (cycle) add('composite-cycle', { through: cycle.join(' → ') });
  return faults;
}

export function sumOfWeights(parts: readonly Pick<CompositePart, 'weight'>[]): Decimal {
  return sumOfDecimals(parts.map(({ weight }) => weight));
}

/** The names on the way from an item back to itself by way of its parts, or undefined. */
function cycleFrom(items: readonly ReportItem[], start: ReportItem): string[] | undefined {
  const walk = (item: ReportItem, way: readonly string[]): string[] | undefined => {
    for (const part of item.parts) {
      const next = items.find(({ id }) => id === part.itemId);
      if (!next) continue;
      if (next.id === start.id) return [...way, next.name];
      if (next.source !== 'composite' || way.includes(next.name)) continue;
      const found = walk(next, [...way, next.name]);
      if (found) return found;
    }
    return undefined;
  };
  return walk(start, [start.name]);
}

/** Periods that an item asks for and no year has. */
function checkPlaces(items: readonly ReportItem[], item: ReportItem, periods: readonly Period[]): ItemFault[] {
  const years = periods.filter(({ parentId }) => parentId === null);
  const faults: ItemFault[] = [];
  const base = { severity: 'warns', itemId: item.id, courseId: null } as const;
  for (const year of years) {
    const own = periodsWithin(periods, year, item.periodKind).filter((period) => isPostedIn(item, periods, period));
    if (own.length === 0) {
      faults.push({ code: 'item-nowhere', ...base, data: { item: item.name, kind: item.periodKind, year: year.name } });
    }
    if (item.source !== 'composite') continue;
    for (const period of own) {
      for (const part of item.parts) {
        const partItem = items.find(({ id }) => id === part.itemId);
        if (!partItem || partPeriod(partItem, part, periods, period)) continue;
        const data = { item: item.name, part: partItem.name, ordinal: String(part.ordinal), period: period.name };
        faults.push({ code: 'part-period-missing', ...base, data: { ...data, kind: partItem.periodKind } });
      }
    }
  }
  return faults;
}

/**
 * The period in which a part of a composite is posted: the nth of its kind inside the composite's period, undefined where
 * there is none or the part's item is not posted in it.
 */
export function partPeriod<P extends Period>(
  partItem: Pick<ReportItem, 'periodKind' | 'ordinals'>,
  part: Pick<CompositePart, 'ordinal'>,
  periods: readonly P[],
  period: P,
): P | undefined {
  const found = periodsWithin(periods, period, partItem.periodKind)[part.ordinal - 1];
  return found && isPostedIn(partItem, periods, found) ? found : undefined;
}

function checkCourse(
  items: readonly ReportItem[],
  covered: CourseCoverage,
  periods: readonly Period[],
  hasScale: CheckedItems['hasScale'],
): ItemFault[] {
  const { course } = covered;
  const own = items.filter(({ id }) => reportsItem(covered, id));
  const onTranscript = own.filter((item) => item.onTranscript);
  const faults: ItemFault[] = [];
  const add = (code: ItemFaultCode, item: ReportItem | null, data: Record<string, string> = {}) =>
    faults.push({
      code,
      severity: 'warns',
      itemId: item?.id ?? null,
      courseId: course.id,
      data: { course: course.title, ...(item ? { item: item.name } : {}), ...data },
    });
  if (course.onTranscript && onTranscript.length === 0) add('course-without-transcript-item', null);
  if (course.onTranscript) {
    const [first, second] = overlapping(onTranscript, periods);
    if (first && second) add('transcript-items-overlap', second, { other: first.name });
  }
  if (course.onTranscript && course.countsInGpa && course.credits.units === 0n) add('course-without-credits', null);
  if (!hasScale(course))
    for (const item of own.filter(({ scaleId }) => scaleId === null)) add('item-without-scale', item);
  for (const item of own.filter(({ source }) => source === 'composite')) {
    for (const partId of new Set(item.parts.map(({ itemId }) => itemId))) {
      const part = items.find(({ id }) => id === partId);
      if (part && !reportsItem(covered, partId)) add('part-not-reported', item, { part: part.name });
    }
  }
  return faults;
}

/** Two items that would both give credit for the same stretch of the year. */
function overlapping(items: readonly ReportItem[], periods: readonly Period[]): readonly ReportItem[] {
  for (const [index, first] of items.entries()) {
    for (const second of items.slice(index + 1)) {
      const stretches = (item: ReportItem) => periods.filter((period) => isPostedIn(item, periods, period));
      const meets = stretches(first).some((a) =>
        stretches(second).some(
          (b) => yearOf(periods, a).id === yearOf(periods, b).id && a.startsOn <= b.endsOn && b.startsOn <= a.endsOn,
        ),
      );
      if (meets) return [first, second];
    }
  }
  return [];
}
