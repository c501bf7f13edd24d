import type { BookReply } from '#contract/calculation';
import { agreeing, counted } from '#contract/messages';
import { showInstant } from '../../ui/format';
import { Strong } from '../../ui/page';
import type { BookRow } from './book-view';
import { spreadOf } from '../policy/option-effects';
import type { ReadDrafts } from './score-drafts';

/** What the book comes to, who has no grade, and what is left to do. */
export function BookHeadline({
  book,
  rows,
  read,
  unsaved,
}: {
  book: BookReply;
  rows: readonly BookRow[];
  read: ReadDrafts;
  unsaved: number;
}) {
  const spread = spreadOf(rows);
  const blocked = rows.filter(({ workings }) => workings.blockedBy.length > 0).length;
  const without = rows.filter(({ rounded, workings }) => !rounded && workings.blockedBy.length === 0).length;
  const differing = rows.filter(({ differs }) => differs).length;
  return (
    <>
      The grade book of <Strong>{book.section}</Strong> for <Strong>{book.period.name}</Strong>
      {spread ? (
        <>
          {' '}
          averages <Strong>{`${spread.mean}\u00a0%`}</Strong>
        </>
      ) : book.scores.length === 0 ? (
        ' has no scores yet'
      ) : (
        ' has too little evidence for a grade yet'
      )}
      {blocked > 0 && (
        <>
          ; <Strong tone="blocks">{counted(blocked, 'student')}</Strong> {agreeing(blocked, 'is')} blocked
        </>
      )}
      {spread && without > 0 && (
        <>
          ; {counted(without, 'student')} {agreeing(without, 'has')} no evidence
        </>
      )}
      {differing > 0 && (
        <>
          ; <Strong tone="warns">{counted(differing, 'posted grade')}</Strong> {agreeing(differing, 'is')} not what it
          computes
        </>
      )}
      {unsaved > 0 && (
        <>
          ; <Strong tone="warns">{unsaved} unsaved</Strong>
        </>
      )}
      {read.faults.size > 0 && (
        <>
          , <Strong tone="blocks">{read.faults.size}</Strong> cannot be saved yet
        </>
      )}
      .{book.sealedAt && ` It was sealed ${showInstant(book.sealedAt)}.`}
    </>
  );
}
