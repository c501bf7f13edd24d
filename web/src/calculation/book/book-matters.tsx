import type { BookReply } from '#contract/calculation';
import { plural } from '../../ui/format';
import { Note } from '../../ui/panel';
import type { BookRow } from './book-view';

/** What the calculation found in the book that no single cell can say. */
export function BookMatters({ book, rows }: { book: BookReply; rows: readonly BookRow[] }) {
  const scores = rows.flatMap((row) => [...row.scores.values()]);
  const other = scores.filter(({ treatment }) => treatment === 'otherScale').length;
  const stray = scores.filter(({ treatment }) => treatment === 'noCategory').length;
  const says = [
    other > 0 &&
      `${plural(other, 'score')} ${other === 1 ? 'is' : 'are'} from another level scale than 0 to ${book.policy.levels?.most}, found and not averaged in.`,
    stray > 0 &&
      `${plural(stray, 'score')} ${stray === 1 ? 'does' : 'do'} not count, as the policy gives ${stray === 1 ? 'its category' : 'their categories'} no weight.`,
    book.item?.bands === null &&
      `Percents get no label: no scale is in force for ${book.item.name} here. The registrar sets one under Scales.`,
  ].filter((each) => typeof each === 'string');
  if (says.length === 0) return null;
  return (
    <Note tone="warns" title={says.length === 1 ? 'One matter to know' : `${says.length} matters to know`}>
      {says.map((each) => (
        <p key={each}>{each}</p>
      ))}
    </Note>
  );
}
