import { useId, useState } from 'react';
import { commentWords, fillStockComment, unknownCommentWords } from '#core/posting';
import type { StockCommentsReply } from '#contract/posting';
import { listed } from '#contract/messages';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { Awaited } from '../shell/awaited';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { useSaveStockComments, useStockComments } from './queries';

/** The comments that teachers of the school choose from, one on each line. */
export function StockCommentsDialog({ schoolId, onClose }: { schoolId: number; onClose: () => void }) {
  const read = useStockComments(schoolId);
  return (
    <Dialog
      isOpen
      isWide
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Stock comments"
      description={`One comment on each line. Words in braces are filled in for each student: ${Object.keys(
        commentWords,
      )
        .map((word) => `{${word}}`)
        .join(' ')}. A capital stays one: {They}.`}
    >
      <Awaited query={read} waiting="Reading the comments">
        {(reply) => <StockCommentsForm key={reply.revision} reply={reply} schoolId={schoolId} onClose={onClose} />}
      </Awaited>
    </Dialog>
  );
}

const spokenOf = { name: 'Wren', pronoun: 'she' } as const;

interface FormProps {
  readonly reply: StockCommentsReply;
  readonly schoolId: number;
  readonly onClose: () => void;
}

function StockCommentsForm({ reply, schoolId, onClose }: FormProps) {
  const [text, setText] = useState(reply.comments.join('\n'));
  const save = useSaveStockComments(schoolId);
  const tellOfChange = useTellOfChange();
  const id = useId();
  const comments = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const unknown = [...new Set(comments.flatMap(unknownCommentWords))];
  const twice = comments.filter((comment, at) => comments.indexOf(comment) < at);
  const fault =
    unknown.length > 0
      ? `${listed(unknown.map((word) => `{${word}}`))} cannot be filled in.`
      : twice.length > 0
        ? `“${twice[0]}” is listed twice.`
        : undefined;
  const submit = () =>
    save.mutate(
      { comments, revision: reply.revision },
      {
        onSuccess: (saved) => {
          tellOfChange('The stock comments are saved.', saved);
          onClose();
        },
        onError: showProblem,
      },
    );
  return (
    <div className="grid grid-cols-2 gap-5">
      <div>
        <label htmlFor={id} className="mb-1 block text-[13px] font-semibold">
          Comments
        </label>
        <textarea
          id={id}
          rows={12}
          value={text}
          aria-invalid={fault !== undefined}
          aria-describedby={`${id}-fault`}
          onChange={(event) => setText(event.target.value)}
          className="w-full rounded-md border border-control bg-surface px-2.5 py-1.5 aria-invalid:border-waratah"
        />
        <p id={`${id}-fault`} className="min-h-5 text-[13px] text-waratah">
          {fault}
        </p>
        <div className="flex gap-2">
          <Button look="main" disabled={fault !== undefined || save.isPending} onClick={submit}>
            Save
          </Button>
          <Button onClick={onClose}>Back</Button>
        </div>
      </div>
      <section>
        <h3 className="mb-1 text-[13px] font-semibold">As they read for Wren (she)</h3>
        <ul className="max-h-[50vh] space-y-1 overflow-auto text-[13px]">
          {comments.map((comment, at) => (
            <li key={at + comment}>{fillStockComment(comment, spokenOf)}</li>
          ))}
        </ul>
      </section>
    </div>
  );
}
