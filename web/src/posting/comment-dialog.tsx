import { useId, type KeyboardEvent } from 'react';
import { fillStockComment, otherNamesIn } from '#core/posting';
import type { SheetReply } from '#contract/posting';
import { listed } from '#contract/messages';
import { Button, Key } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { CheckField } from '../ui/field';
import { showGivenFirst } from '../ui/format';
import { textsOfRow, type SheetRow } from './sheet-view';

interface CommentDialogProps {
  readonly sheet: SheetReply;
  readonly row: SheetRow;
  readonly isReadOnly: boolean;
  readonly onClose: () => void;
  /** Changes the comment of the row; kept with the sheet until it is saved. */
  readonly onComment: (row: SheetRow, comment: string, isInternal: boolean) => void;
  readonly onStep: (by: 1 | -1) => void;
}

/** The comment on one student, with what there is to choose from; the next student comes without closing. */
export function CommentDialog({ sheet, row, isReadOnly, onClose, onComment, onStep }: CommentDialogProps) {
  const id = useId();
  const { reply, mark } = row;
  const { comment, isInternal } = mark;
  const texts = textsOfRow(row);
  const others = otherNamesIn(
    comment,
    reply,
    sheet.rows.filter((each) => each !== reply),
  );
  const spokenOf = { name: reply.givenNames.at(-1)!, pronoun: reply.pronoun };
  const stepByKey = (event: KeyboardEvent) => {
    const by = event.altKey && { ArrowDown: 1 as const, ArrowUp: -1 as const }[event.key];
    if (!by) return;
    event.preventDefault();
    onStep(by);
  };
  const put = (text: string) => onComment(row, text.slice(0, sheet.commentLength), isInternal);
  return (
    <Dialog
      isOpen
      isWide
      savesAtOnce
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Comment on ${showGivenFirst(reply.student)}`}
      description={`${[texts.percent, texts.mark].filter(Boolean).join(' ') || 'No grade yet'}. What you write stays unsaved until you save the sheet.`}
      footer={
        <>
          <Button onClick={() => onStep(-1)}>
            ◂ Student before <Key>Alt ↑</Key>
          </Button>
          <Button onClick={() => onStep(1)}>
            Next student ▸ <Key>Alt ↓</Key>
          </Button>
          <Button look="main" writes={false} className="ml-auto" onClick={onClose}>
            Done
          </Button>
        </>
      }
    >
      <div>
        <label htmlFor={id} className="mb-1 flex justify-between text-[13px] font-semibold">
          Comment
          <span
            className={`figures font-normal ${comment.length >= sheet.commentLength ? 'text-waratah' : 'text-quiet'}`}
            aria-live="polite"
          >
            {sheet.commentLength - comment.length} left
          </span>
        </label>
        <textarea
          id={id}
          key={reply.enrollmentId}
          autoFocus
          onKeyDown={stepByKey}
          rows={4}
          spellCheck
          disabled={isReadOnly}
          value={comment}
          maxLength={sheet.commentLength}
          onChange={(event) => put(event.target.value)}
          className="w-full rounded-md border border-control bg-surface px-2.5 py-1.5"
        />
        {others.length > 0 && (
          <p role="alert" className="mt-1 text-[13px] text-wattle">
            {listed(others)} is the name of another student of this section.
          </p>
        )}
        <CheckField
          label="For the school only; families do not see it"
          className="mt-2"
          checked={isInternal}
          disabled={isReadOnly}
          onChange={(event) => onComment(row, comment, event.target.checked)}
        />
        {sheet.stockComments.length > 0 && !isReadOnly && (
          <section className="mt-4">
            <h3 className="mb-1 text-[13px] font-semibold">Stock comments</h3>
            <ul className="max-h-[26vh] overflow-auto rounded-md border border-hairline">
              {sheet.stockComments.map((text) => {
                const filled = fillStockComment(text, spokenOf);
                const whole = comment.trim() === '' ? filled : `${comment.trimEnd()} ${filled}`;
                const isTooLong = whole.length > sheet.commentLength;
                return (
                  <li key={text}>
                    <button
                      type="button"
                      disabled={isTooLong}
                      onClick={() => put(whole)}
                      className="block w-full px-2.5 py-1 text-left enabled:hover:bg-eucalypt-soft disabled:text-quiet"
                    >
                      {filled}
                      {isTooLong && (
                        <span className="text-[12px]"> · too long by {whole.length - sheet.commentLength}</span>
                      )}
                    </button>
                  </li>
                );
              })}
            </ul>
          </section>
        )}
      </div>
    </Dialog>
  );
}
