import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { Mark } from '#core/posting';
import type { MarkBody } from './posting-messages.js';

/** A mark as it crosses the wire, and as it stands in the log and the receipts. */
export function bodyOfMark({ percent, label, code, lastDate, comment }: Mark): MarkBody {
  return { percent: percent && formatDecimal(percent), label, code, lastDate, comment };
}

/** @throws RangeError when the percent or the day is none; a checked request has neither */
export function markOfBody({ percent, label, code, lastDate, comment }: MarkBody): Mark {
  return {
    percent: percent === null ? null : decimalOrThrow(percent),
    label,
    code,
    lastDate: lastDate === null ? null : dayOrThrow(lastDate),
    comment,
  };
}
