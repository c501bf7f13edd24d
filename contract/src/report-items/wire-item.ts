import { decimalOrThrow, formatAtLeast, formatDecimal } from '#core/numbers';
import type { Assignment, ReportItem } from '#core/report-items';
import type { ItemRulesBody, ItemBody } from './item-messages.js';

/** An item as it crosses the wire and stands in the log. */
export function bodyOfItem(item: ReportItem): ItemBody {
  const { id: _id, schoolId: _schoolId, position: _position, parts, ordinals, highestPercent, ...body } = item;
  return {
    ...body,
    ordinals: ordinals && [...ordinals],
    highestPercent: formatAtLeast(highestPercent, 0),
    parts: parts.map(({ weight, ...part }) => ({ ...part, weight: formatDecimal(weight) })),
  };
}

export function itemOfBody(
  body: ItemBody,
  { id, schoolId, position }: Pick<ReportItem, 'id' | 'schoolId' | 'position'>,
): ReportItem {
  const { name, heading, kind, periodKind, ordinals, scaleId, source, categoryId, countBy, parts, digits, rounding } =
    body;
  const { commentRule, commentBelow, commentLength, familyView, familyTime } = body;
  const { highestPercent, failingNeedsLastDate, asksHours, onTranscript, countsInGpa } = body;
  return {
    id,
    schoolId,
    position,
    name,
    heading,
    kind,
    periodKind,
    scaleId,
    source,
    categoryId: source === 'gradeBook' ? categoryId : null,
    countBy,
    digits,
    rounding,
    highestPercent: decimalOrThrow(highestPercent),
    commentRule,
    commentLength,
    familyView,
    familyTime,
    failingNeedsLastDate,
    asksHours,
    onTranscript,
    countsInGpa,
    ordinals: ordinals && [...ordinals].toSorted((a, b) => a - b),
    commentBelow: commentRule === 'requiredBelow' ? commentBelow : null,
    parts:
      source === 'composite'
        ? parts.map((part) => ({
            ...part,
            weight: decimalOrThrow(part.weight),
          }))
        : [],
  };
}

/** Rules in their order and exceptions, without their numbers, as they cross the wire and stand in the log. */
export function bodyOfAssignment({ rules, exceptions }: Assignment): ItemRulesBody {
  return {
    rules: rules.map(({ itemId, effect, department, level, kind, length }) => ({
      itemId,
      effect,
      department,
      level,
      kind,
      length,
    })),
    exceptions: exceptions.map(({ itemId, courseId, effect, reason }) => ({ itemId, courseId, effect, reason })),
  };
}
