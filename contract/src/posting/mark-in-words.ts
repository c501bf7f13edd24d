import type { MarkBody } from './posting-messages.js';

/** A mark in a few characters, for sentences: "86.4 % B", "INC"; a blank is called so. */
export function markInWords({ percent, label, code }: MarkBody): string {
  return [percent && `${percent} %`, label, code].filter(Boolean).join(' ') || 'a blank';
}
