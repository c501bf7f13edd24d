import { useState } from 'react';
import type { PostingRequestReply } from '#contract/posting';
import { useMay } from '../shell/access';
import { Button } from '../ui/button';
import { showInstant } from '../ui/format';
import { Note } from '../ui/panel';
import { AnswerDialog } from './answer-dialog';

interface RequestNoteProps {
  readonly request: Pick<PostingRequestReply, 'askedBy' | 'isOwn' | 'askedAt' | 'note'>;
  /** What is asked for: "3 grades". */
  readonly what: string;
  readonly onPutOnSheet: () => void;
  readonly onAnswer: (state: 'declined' | 'withdrawn', text: string) => void;
}

/** What somebody who may not post any more asks a registrar to post, and what can be done about it. */
export function RequestNote({ request, what, onPutOnSheet, onAnswer }: RequestNoteProps) {
  const may = useMay();
  const [isDeclining, setDeclining] = useState(false);
  const { askedBy, isOwn, askedAt, note } = request;
  return (
    <Note tone="warns" title={`${isOwn ? 'You asked' : `${askedBy} asks`} the registrar to post ${what}`}>
      <div className="flex items-center gap-2">
        <p className="mr-auto">
          {showInstant(askedAt)}
          {note && ` · “${note}”`}
        </p>
        {may('post-outside-window') && (
          <>
            <Button look="main" onClick={onPutOnSheet}>
              Put them on the sheet
            </Button>
            <Button onClick={() => setDeclining(true)}>Decline…</Button>
          </>
        )}
        {isOwn && <Button onClick={() => onAnswer('withdrawn', '')}>Withdraw</Button>}
      </div>
      <AnswerDialog
        isOpen={isDeclining}
        onOpenChange={setDeclining}
        title={`Decline what ${askedBy} asks for?`}
        label={`What ${askedBy} is told`}
        action="Decline"
        onAnswer={(answer) => onAnswer('declined', answer)}
      />
    </Note>
  );
}
