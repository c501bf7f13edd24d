import type { PercentFault } from '#core/posting';

/** What is wrong with an entry and what would be right. */
export function entryFaultWords(
  code: PercentFault | 'label-unknown' | 'day-unreadable' | 'day-placeholder' | 'hours-unreadable',
  known: readonly string[],
): string {
  switch (code) {
    case 'percent-unreadable':
      return 'A percent is a number such as 86.4.';
    case 'percent-negative':
      return 'A percent is not below 0.';
    case 'percent-too-high':
      return 'A percent is at most 200.';
    case 'level-too-high':
      return 'A level is at most the highest one of the scale.';
    case 'percent-too-exact':
      return 'At most two decimals, such as 86.45.';
    case 'label-unknown':
      return `One of ${known.join(', ')}.`;
    case 'day-unreadable':
      return 'A day such as 16 Jan or 2026-01-16.';
    case 'hours-unreadable':
      return 'Hours such as 42.5, not below 0.';
    case 'day-placeholder':
      return 'A day that stands for “no date” is not taken; leave the cell empty.';
  }
}
