import { useState } from 'react';
import type { PostingRequestReply, SheetReply } from '#contract/posting';
import { counted } from '#contract/messages';
import { useMay } from '../shell/access';
import { Button } from '../ui/button';
import { showGivenFirst, showInstant } from '../ui/format';
import { Note } from '../ui/panel';
import { AnswerDialog } from './answer-dialog';

interface SheetBannersProps {
  readonly sheet: SheetReply;
  /** Undefined where who looks may not. */
  readonly onTakeBack: (() => void) | undefined;
  readonly onPutOnSheet: (request: PostingRequestReply) => void;
  readonly onAnswer: (request: PostingRequestReply, state: 'declined' | 'withdrawn', answer: string) => void;
}

/** What is to be known of a sheet before anything is typed: for whom, whether it is signed off, and what is asked for. */
export function SheetBanners({ sheet, onTakeBack, onPutOnSheet, onAnswer }: SheetBannersProps) {
  const { signedOff, onBehalfOf, mayPost, sealedAt, requests } = sheet;
  const open = requests.filter(({ state }) => state === 'open');
  const answered = requests.find(({ state, isOwn }) => isOwn && (state === 'posted' || state === 'declined'));
  return (
    <>
      {signedOff && (
        <Note tone="so" title={`Signed off by ${signedOff.by}`}>
          <div className="flex items-center gap-3">
            <p className="mr-auto">
              {showInstant(signedOff.at)}
              {signedOff.onBehalfOf && `, on behalf of ${signedOff.onBehalfOf}`}. Grades stay as they are until the
              sign-off is taken back.
              {signedOff.note && <span className="block">“{signedOff.note}”</span>}
            </p>
            {onTakeBack && <Button onClick={onTakeBack}>Take back the sign-off</Button>}
          </div>
        </Note>
      )}
      {!signedOff && mayPost && onBehalfOf && sealedAt === null && (
        <p className="rounded-md border border-hairline border-l-[3px] border-l-estuary bg-surface px-4 py-2 text-[13px]">
          You post on behalf of <b>{showGivenFirst(onBehalfOf)}</b>. The record says so, and{' '}
          {showGivenFirst(onBehalfOf)} gets the receipt.
        </p>
      )}
      {open.map((request) => (
        <OpenRequest key={request.id} request={request} onPutOnSheet={onPutOnSheet} onAnswer={onAnswer} />
      ))}
      {open.length === 0 && answered && (
        <p className="rounded-md border border-hairline bg-surface px-4 py-2 text-[13px]">
          {answered.answeredBy} {answered.state === 'posted' ? 'posted' : 'declined'} what you asked for
          {answered.answer && `: “${answered.answer}”`}.
        </p>
      )}
    </>
  );
}

type OpenRequestProps = Pick<SheetBannersProps, 'onPutOnSheet' | 'onAnswer'> & {
  readonly request: PostingRequestReply;
};

function OpenRequest({ request, onPutOnSheet, onAnswer }: OpenRequestProps) {
  const may = useMay();
  const [isDeclining, setDeclining] = useState(false);
  const { askedBy, isOwn, askedAt, changes, note } = request;
  return (
    <Note
      tone="warns"
      title={`${isOwn ? 'You asked' : `${askedBy} asks`} the registrar to post ${counted(changes.length, 'grade')}`}
    >
      <div className="flex items-center gap-2">
        <p className="mr-auto">
          {showInstant(askedAt)}
          {note && ` · “${note}”`}
        </p>
        {may('post-outside-window') && (
          <>
            <Button look="main" onClick={() => onPutOnSheet(request)}>
              Put them on the sheet
            </Button>
            <Button onClick={() => setDeclining(true)}>Decline…</Button>
          </>
        )}
        {isOwn && <Button onClick={() => onAnswer(request, 'withdrawn', '')}>Withdraw</Button>}
      </div>
      <AnswerDialog
        isOpen={isDeclining}
        onOpenChange={setDeclining}
        title={`Decline what ${askedBy} asks for?`}
        label={`What ${askedBy} is told`}
        action="Decline"
        onAnswer={(answer) => onAnswer(request, 'declined', answer)}
      />
    </Note>
  );
}
