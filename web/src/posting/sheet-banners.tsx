import type { PostingRequestReply, SheetReply } from '#contract/posting';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { showGivenFirst, showInstant } from '../ui/format';
import { Note } from '../ui/panel';
import { RequestNote } from './request-note';

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
        <RequestNote
          key={request.id}
          request={request}
          what={counted(request.changes.length, 'grade')}
          onPutOnSheet={() => onPutOnSheet(request)}
          onAnswer={(state, answer) => onAnswer(request, state, answer)}
        />
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
