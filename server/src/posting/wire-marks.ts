import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { Mark } from '#core/posting';
import type { MarkBody } from '#contract/posting';

/** A mark as it crosses the wire, and in the log and the receipts. */
export function markBody({ percent, label, code, lastDate, comment }: Mark): MarkBody {
  return { percent: percent && formatDecimal(percent), label, code, lastDate, comment };
}

export function markOfBody({ percent, label, code, lastDate, comment }: MarkBody): Mark {
  return {
    percent: percent === null ? null : decimalOrThrow(percent),
    label,
    code,
    lastDate: lastDate === null ? null : dayOrThrow(lastDate),
    comment,
  };
}
