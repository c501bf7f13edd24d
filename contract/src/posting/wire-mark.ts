import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { Mark } from '#core/posting';
import type { MarkBody } from './posting-messages.js';

/** A mark as it crosses the wire, and as it stands in the log and the receipts. */
export function bodyOfMark({ percent, label, code, lastDate, hours, ...words }: Mark): MarkBody {
  const { comment, isInternal, overrideReason } = words;
  return {
    percent: percent && formatDecimal(percent),
    label,
    code,
    lastDate,
    hours: hours && formatDecimal(hours),
    comment,
    isInternal,
    overrideReason,
  };
}

/** @throws RangeError when the percentage, the day or the hours are none; a checked request has none of it */
export function markOfBody({ percent, label, code, lastDate, hours, ...words }: MarkBody): Mark {
  const { comment, isInternal, overrideReason } = words;
  return {
    percent: percent === null ? null : decimalOrThrow(percent),
    label,
    code,
    lastDate: lastDate === null ? null : dayOrThrow(lastDate),
    hours: hours == null ? null : decimalOrThrow(hours),
    comment,
    isInternal,
    overrideReason,
  };
}
