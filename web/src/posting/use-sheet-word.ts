import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { MarkChangeBody, PostingRequestReply, SheetReply, SheetWordReply } from '#contract/posting';
import { nextSheet } from '../board/next-sheet';
import { useBoard } from '../board/queries';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { useScope } from '../shell/scope';
import { showProblem } from '../shell/show-problem';
import { askedIn, type MarkDrafts } from './mark-drafts';
import { useAnswerRequest, useAskToPost, useSignOff, useTakeBack, type SheetKey } from './queries';

/** What is said of a sheet as a whole: that it is finished, that it is not, and what a registrar is asked to post. */
export function useSheetWord(sheet: SheetReply, sheetKey: SheetKey, isOutside: boolean) {
  const { path } = useScope();
  const navigate = useNavigate();
  const tellOfChange = useTellOfChange();
  const board = useBoard(sheetKey.periodId);
  const signOff = useSignOff(sheetKey);
  const takeBack = useTakeBack(sheetKey);
  const ask = useAskToPost(sheetKey);
  const answer = useAnswerRequest(sheetKey);
  const [isSigning, setSigning] = useState(false);
  const [isHanding, setHanding] = useState(false);
  const onError = showProblem;
  return {
    isSigning,
    setSigning,
    isHanding,
    setHanding,
    isPending: signOff.isPending,
    sign(note: string) {
      const onSuccess = (reply: SheetWordReply) => {
        setSigning(false);
        const next = board.data && nextSheet(board.data, sheetKey, sheet.onBehalfOf !== null);
        const more = next ? 'This is the next sheet.' : 'No other sheet waits.';
        tellOfChange(`${sheet.section} is signed off. ${more}`, reply);
        void navigate(path(next ? `grade-sheets/${next.sectionId}/${next.itemId}` : 'grade-sheets'));
      };
      signOff.mutate({ note, ...(isOutside ? { outsideWindow: true } : {}) }, { onSuccess, onError });
    },
    takeBack: () =>
      takeBack.mutate(undefined, {
        onSuccess: (reply) => tellOfChange('The sign-off is taken back. Grades can be changed again.', reply),
        onError,
      }),
    handOver(changes: MarkChangeBody[], note: string, onHanded: () => void) {
      const onSuccess = () => {
        onHanded();
        toast.success('Handed to the registrar. What you typed stands above the sheet.');
      };
      ask.mutate({ changes, note }, { onSuccess, onError });
    },
    answer: ({ id }: PostingRequestReply, state: 'declined' | 'withdrawn', text: string) =>
      answer.mutate({ id, state, answer: text }, { onError }),
    /** After a save: the requests whose grades were put on the sheet are answered. */
    settle(sent: MarkDrafts) {
      for (const id of askedIn(sent)) answer.mutate({ id, state: 'posted', answer: '' }, { onError });
    },
  };
}
