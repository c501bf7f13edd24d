import { useState } from 'react';
import { toast } from 'sonner';
import type { HandStandardsRequest } from '#contract/posting';
import { showProblem } from '../shell/show-problem';
import { askedIn, type MarkDrafts } from './mark-drafts';
import { useAnswerRequests, useAskToPostStandards, useSignStandards } from './queries';
import type { StandardsRequest } from './standards-requests';

interface Standards {
  readonly sectionId: number;
  readonly periodId: number;
  readonly section: string;
  readonly isOutside: boolean;
}

/** What is said of the standards of a section as a whole: that they are finished, and what a registrar is asked to post. */
export function useStandardsWord({ sectionId, periodId, section, isOutside }: Standards) {
  const signOff = useSignStandards(sectionId, periodId);
  const ask = useAskToPostStandards(sectionId, periodId);
  const answer = useAnswerRequests(sectionId, periodId);
  const [isSigning, setSigning] = useState(false);
  const [isHanding, setHanding] = useState(false);
  const onError = showProblem;
  const idsOf = ({ asked }: StandardsRequest) => asked.map(({ id }) => id);
  return {
    isSigning,
    setSigning,
    isHanding,
    setHanding,
    isPending: signOff.isPending,
    sign(itemIds: number[], note: string) {
      const onSuccess = () => {
        setSigning(false);
        toast.success(`${section} is signed off.`);
      };
      signOff.mutate({ itemIds, note, ...(isOutside ? { outsideWindow: true } : {}) }, { onSuccess, onError });
    },
    handOver(request: HandStandardsRequest, onHanded: () => void) {
      const onSuccess = () => {
        onHanded();
        toast.success('Handed to the registrar. What you typed stands above the sheet.');
      };
      ask.mutate(request, { onSuccess, onError });
    },
    answer: (request: StandardsRequest, state: 'declined' | 'withdrawn', text: string) =>
      answer.mutate({ ids: idsOf(request), state, answer: text }, { onError }),
    /** After a save: the requests whose levels were put on the sheet are answered. */
    settle(sent: readonly MarkDrafts[]) {
      const ids = sent.flatMap(askedIn);
      if (ids.length > 0) answer.mutate({ ids, state: 'posted', answer: '' }, { onError });
    },
  };
}
