import type { CategoryColumns } from './book-columns';

/** Widths of a grade book's columns, in pixels. */
export const [nameWidth, wholeWidth, labelWidth, resultWidth, scoreWidth] = [176, 62, 46, 62, 76];
/** The columns that stay while the others scroll sideways. */
export const stickyLook = 'sticky z-[1] flex h-full shrink-0 items-center bg-surface';

/** How far from the left a score's column begins. */
export function leftOf(groups: readonly CategoryColumns[], column: number): number {
  let [left, passed] = [nameWidth + wholeWidth + labelWidth, 0];
  for (const { assignments } of groups) {
    left += resultWidth;
    if (column < passed + assignments.length) return left + (column - passed) * scoreWidth;
    left += assignments.length * scoreWidth;
    passed += assignments.length;
  }
  return left;
}

/** Scrolls sideways until a column is between the columns that stay and the right edge. */
export function reveal(scroller: HTMLElement | null, left: number, staying: number): void {
  if (!scroller) return;
  if (left - scroller.scrollLeft < staying) scroller.scrollLeft = left - staying;
  const over = left + scoreWidth - scroller.scrollLeft - scroller.clientWidth;
  if (over > 0) scroller.scrollLeft += over;
}
