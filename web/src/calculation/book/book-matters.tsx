import type { BookReply } from '#contract/calculation';
import { agreeing, counted } from '#contract/messages';
import { Note } from '../../ui/panel';
import type { BookRow } from './book-view';

/** What the calculation found in the book that no single cell can say. */
export function BookMatters({ book, rows }: { book: BookReply; rows: readonly BookRow[] }) {
  const scores = rows.flatMap((row) => [...row.scores.values()]);
  const other = scores.filter(({ treatment }) => treatment === 'otherScale').length;
  const stray = scores.filter(({ treatment }) => treatment === 'noCategory').length;
  const says = [
    other > 0 &&
      `${counted(other, 'score')} ${agreeing(other, 'is')} from another level scale than 0 to ${book.policy.levels?.most}, found and not averaged in.`,
    stray > 0 &&
      `${counted(stray, 'score')} ${agreeing(stray, 'does')} not count, as the policy gives ${stray === 1 ? 'its category' : 'their categories'} no weight.`,
    book.item?.bands === null &&
      `Percentages get no label: no scale is in force for ${book.item.name} here. The registrar sets one under Scales.`,
  ].filter((each) => typeof each === 'string');
  if (says.length === 0) return null;
  return (
    <Note tone="warns" title={`${counted(says.length, 'matter')} to know`}>
      {says.map((each) => (
        <p key={each}>{each}</p>
      ))}
    </Note>
  );
}
