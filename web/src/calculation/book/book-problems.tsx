import type { BookReply } from '#contract/calculation';
import { counted } from '#contract/messages';
import { ProblemNote } from '../../shell/problem-note';
import { Button } from '../../ui/button';
import { Note } from '../../ui/panel';
import { placeOf } from './book-blanks';
import type { ReadDrafts, ScoreDrafts } from './score-drafts';

const mostFaultsShown = 3;

interface BookProblemsProps {
  readonly book: BookReply;
  /** Of the last save. */
  readonly error: Error | null;
  readonly drafts: ScoreDrafts;
  readonly read: ReadDrafts;
  readonly onKeepMine: () => void;
}

/** What keeps the scores from being saved: a refusal, entries that mean nothing, scores that someone else saved first. */
export function BookProblems({ book, error, drafts, read, onKeepMine }: BookProblemsProps) {
  return (
    <>
      <ProblemNote error={error} />
      {read.faults.size > 0 && (
        <Note tone="blocks" title={`${counted(read.faults.size, 'entry')} cannot be saved yet`}>
          {[...read.faults].slice(0, mostFaultsShown).map(([key, says]) => (
            <p key={key} role="alert">
              {placeOf(book, key)}, “{drafts[key]!.text}”: {says}
            </p>
          ))}
        </Note>
      )}
      {read.stale.length > 0 && (
        <Note tone="blocks" title={`Someone else saved ${counted(read.stale.length, 'score')}`}>
          <Button onClick={onKeepMine}>Keep mine over theirs</Button>
        </Note>
      )}
    </>
  );
}
