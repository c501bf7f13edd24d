import type { CategoryWorkings } from '#core/calculation';
import { formatAtLeast, formatDecimal, roundDown, roundTo } from '#core/numbers';
import { showLabel, showPercent } from '../../ui/format';
import { labelWidth, nameWidth, resultWidth, stickyLook, wholeWidth } from './book-layout';
import type { BookRow } from './book-view';
import { categoryTint } from '../category-tint';
import { standingWords } from '../words';

/** What a student comes to, with the label; asks for the workings when it is chosen. */
export function WholeCells({ row, isRow, onExplain }: { row: BookRow; isRow: boolean; onExplain: () => void }) {
  const { rounded, label, workings, differs, student } = row;
  const isBlocked = workings.blockedBy.length > 0;
  const look = isRow ? 'bg-eucalypt-soft!' : '';
  return (
    <>
      <div
        role="gridcell"
        aria-colindex={2}
        style={{ width: wholeWidth, left: nameWidth }}
        className={`${stickyLook} figures justify-end px-2 ${look} ${isBlocked ? 'text-waratah' : differs ? 'text-wattle' : ''}`}
      >
        <button
          type="button"
          tabIndex={-1}
          onClick={onExplain}
          title={differs ? `posted as ${student.posted!.percent}` : undefined}
          className="font-bold hover:underline"
        >
          {isBlocked ? 'blocked' : rounded ? showPercent(formatDecimal(rounded)) : '–'}
        </button>
      </div>
      <div
        role="gridcell"
        aria-colindex={3}
        style={{ width: labelWidth, left: nameWidth + wholeWidth }}
        className={`${stickyLook} figures justify-center border-r border-hairline font-bold ${look}`}
      >
        {label ? showLabel(label) : ''}
      </div>
    </>
  );
}

/** Cut to one decimal, so that a category never looks as if it had reached what it has not. */
export function CategoryCell({
  result,
  tint,
  isLevel,
  ariaColumn,
}: {
  result: CategoryWorkings | undefined;
  tint: number;
  isLevel: boolean;
  ariaColumn: number;
}) {
  const value = isLevel ? result?.level : result?.limited;
  return (
    <div
      role="gridcell"
      aria-colindex={ariaColumn}
      style={{ width: resultWidth, background: `color-mix(in srgb, ${categoryTint(tint).fill} 35%, var(--surface))` }}
      title={result?.standing ? standingWords[result.standing] : undefined}
      className="figures flex shrink-0 items-center justify-end px-2 font-semibold"
    >
      {value ? formatAtLeast(roundTo(value, isLevel ? 2 : 1, roundDown), 1) : '–'}
    </div>
  );
}
