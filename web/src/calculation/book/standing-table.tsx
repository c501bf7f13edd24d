import type { BookReply } from '#contract/calculation';
import type { CategoryWorkings, Standing } from '#core/calculation';
import { formatAtLeast, roundDown, roundTo } from '#core/numbers';
import { counted } from '#contract/messages';
import { FillDisc } from '../../ui/state-marks';
import type { CategoryColumns } from './book-columns';
import type { BookRow } from './book-view';
import { categoryTint } from '../category-tint';
import { standingQuarters, standingWords } from '../words';

interface StandingTableProps {
  readonly book: BookReply;
  readonly rows: readonly BookRow[];
  readonly groups: readonly CategoryColumns[];
  readonly onExplain: (row: BookRow) => void;
}

const reached: readonly Standing[] = ['meets', 'exceeds'];

/** Where each student stands by standard, as a disc, a word and the level with how many scores it rests on. */
export function StandingTable({ book, rows, groups, onExplain }: StandingTableProps) {
  const levels = book.policy.levels!;
  return (
    <div className="min-h-0 flex-1 overflow-auto" role="region" aria-label="Standing by standard" tabIndex={0}>
      <table className="w-full text-[13px]" style={{ minWidth: 220 + groups.length * 190 }}>
        <thead>
          <tr className="[&_th]:sticky [&_th]:top-0 [&_th]:z-10 [&_th]:border-b [&_th]:border-hairline [&_th]:px-3 [&_th]:py-1.5 [&_th]:text-left">
            <th className="w-[220px] bg-surface font-semibold text-quiet">Student</th>
            {groups.map(({ category }) => {
              const met = rows.filter(({ categories }) =>
                reached.includes(categories.get(category.id)?.standing as Standing),
              );
              return (
                <th key={category.id} style={{ background: categoryTint(category.tint).fill }}>
                  {category.name}
                  <span className="ml-2 text-[12px] font-normal">
                    {met.length} of {counted(rows.length, 'student')} at {levels.meets} or above
                  </span>
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr
              key={row.student.enrollmentId}
              className="[&>*]:h-(--row) [&>*]:border-b [&>*]:border-hairline [&>*]:px-3"
            >
              <th className="text-left font-semibold">
                <button type="button" onClick={() => onExplain(row)} className="hover:underline">
                  {row.student.student}
                </button>
              </th>
              {groups.map(({ category }) => {
                const result = row.categories.get(category.id);
                const standing = result?.standing ?? 'no evidence';
                return (
                  <td key={category.id}>
                    <span className="flex items-center gap-2">
                      <FillDisc done={standingQuarters[standing]} of={4} />
                      <span
                        className={
                          standing === 'below' ? 'text-wattle' : reached.includes(standing) ? '' : 'text-quiet'
                        }
                      >
                        {standingWords[standing]}
                      </span>
                      <span className="ml-auto text-quiet tabular-nums">{evidenceWords(result, levels.evidence)}</span>
                    </span>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** "2.97 from 4 scores", or how many scores there are of those it takes. */
function evidenceWords(result: CategoryWorkings | undefined, needed: number): string {
  const scores = result?.counted ?? 0;
  if (!result?.level) return `${scores} of ${counted(needed, 'score')}`;
  return `${formatAtLeast(roundTo(result.level, 2, roundDown), 1)} from ${counted(scores, 'score')}`;
}
