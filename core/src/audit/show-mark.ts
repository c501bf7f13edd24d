import { formatDecimal } from '#core/numbers';
import type { Mark } from '#core/posting';

/**
 * What is posted, as a finding quotes it: a code, or a percentage with its label.
 * @example showMark({ ...noMark, label: 'B' }) // 'B'
 */
export function showMark({ percent, label, code }: Mark): string {
  if (code !== null) return code;
  return [percent && formatDecimal(percent), label].filter((each) => each !== null).join(' ');
}
