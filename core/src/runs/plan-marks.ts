import { compareDecimals, decimalOrThrow, formatDecimal, parseDecimal, type Decimal } from '#core/numbers';
import { isBlank, judgePercent, noMark, takeComputed, type Mark } from '#core/posting';
import { bringTo } from './bring-to.js';
import { findStudent } from './find-student.js';
import {
  emptyRow,
  type LedgerRow,
  type MarkFacts,
  type OurClass,
  type OurItem,
  type OurSectionBook,
  type RunChoices,
  type TheirResult,
  type TheirTotal,
} from './run-plan.js';
import { outcomeOf, type RunReason } from './run-reasons.js';

const hundred = decimalOrThrow('100');

/** The results of a class's total column, as marks to be posted for the report item that it is joined to. */
export function planMarks(
  total: TheirTotal,
  ours: OurClass,
  section: OurSectionBook,
  { mode }: RunChoices,
): LedgerRow[] {
  const joined = ours.totals.get(total.key);
  const item = joined?.target == null ? undefined : section.items.get(joined.target);
  const reasons = columnReasons(joined?.decision, item);
  const filled = total.results.filter(({ points, letter }) => (points ?? letter) !== null);
  const blank = total.results.length - filled.length;
  const column = { ...emptyRow, kind: 'total' as const, columnKey: total.key, itemId: item?.id ?? null };
  if (!item?.scale || reasons.length > 0)
    return [{ ...column, name: total.name, outcome: outcomeOf(reasons, 'same'), reasons, heldBack: filled.length }];
  const planned = filled.map((result) => planMark(result, column, item, ours, section, mode));
  const same = planned.filter(({ outcome }) => outcome === 'same').length;
  const head = { ...column, name: total.name, outcome: 'same' as const, same, blank };
  return [head, ...planned.filter(({ outcome }) => outcome !== 'same')];
}

function columnReasons(decision: string | undefined, item: OurItem | undefined): RunReason[] {
  if (decision === 'ignored') return [{ code: 'total-ignored' }];
  if (!item) return [{ code: 'total-open' }];
  return [
    ...(item.scale ? [] : [{ code: 'no-scale' as const, about: item.name }]),
    ...(item.takesMarks ? [] : [{ code: 'window-closed' as const, about: item.name }]),
    ...(item.isSignedOff ? [{ code: 'signed-off' as const, about: item.name }] : []),
  ];
}

function planMark(
  result: TheirResult,
  column: Omit<LedgerRow, 'name' | 'outcome'>,
  item: OurItem,
  ours: OurClass,
  section: OurSectionBook,
  mode: RunChoices['mode'],
): LedgerRow {
  const { student, name, reasons } = findStudent(result.personKey, ours, section);
  const known = student && item.marks.get(student.enrollmentId);
  const before = known && !isBlank(known.mark) ? known.mark : null;
  const read = readMark(result, known?.mark ?? noMark, item.scale!, ours);
  const after = read.mark && factsOf(read.mark);
  const isSame = before !== null && after !== null && sameMark(factsOf(before), after);
  const isKept = !isSame && before !== null && known!.isOurs && mode === 'keep';
  const all: RunReason[] = [...reasons, ...read.reasons, ...(isKept ? [{ code: 'kept' as const }] : [])];
  return {
    ...column,
    kind: 'mark',
    name,
    outcome: outcomeOf(all, isSame ? 'same' : before === null ? 'create' : 'change'),
    reasons: all,
    personKey: result.personKey,
    enrollmentId: student?.enrollmentId ?? null,
    before: before && factsOf(before),
    after,
  };
}

/** A letter is ours by its join; points become a percent and take the label of the scale in force. */
function readMark(
  { points, possible, letter }: TheirResult,
  mark: Mark,
  scale: NonNullable<OurItem['scale']>,
  { letters }: OurClass,
): { mark: Mark | null; reasons: RunReason[] } {
  const refused = (code: RunReason['code'], about: string) => ({ mark: null, reasons: [{ code, about }] });
  if (letter !== null) {
    const joined = letters.get(letter);
    if (joined?.decision === 'ignored') return refused('letter-ignored', letter);
    if (joined?.target == null) return refused('letter-open', letter);
    return { mark: { ...mark, percent: null, label: joined.target, code: null }, reasons: [] };
  }
  const { highestLevel } = scale;
  if (highestLevel && !isOutOf(possible, highestLevel))
    return refused('not-levels', `${possible ?? '100'}|${formatDecimal(highestLevel)}`);
  const percent = bringTo(points!, possible, highestLevel ?? hundred);
  if (!percent) return refused('score-unreadable', `${points}|${possible ?? ''}`);
  if (judgePercent(percent, scale)) return refused('percent-too-high', formatDecimal(percent));
  const taken = takeComputed(mark, percent, scale);
  if (taken.label === null) return refused('below-scale', formatDecimal(percent));
  return { mark: taken, reasons: [] };
}

/** A total that is out of anything but the highest level is no level. */
function isOutOf(possible: string | null, highestLevel: Decimal): boolean {
  const outOf = parseDecimal(possible ?? '');
  return outOf !== undefined && compareDecimals(outOf, highestLevel) === 0;
}

function factsOf({ percent, label, code }: Mark): MarkFacts {
  return { percent: percent && formatDecimal(percent), label, code };
}

function sameMark(one: MarkFacts, other: MarkFacts): boolean {
  const isSamePercent =
    one.percent === null || other.percent === null
      ? one.percent === other.percent
      : compareDecimals(decimalOrThrow(one.percent), decimalOrThrow(other.percent)) === 0;
  return isSamePercent && one.label === other.label && one.code === other.code;
}
