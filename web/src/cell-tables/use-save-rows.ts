import { useMutation, useQueryClient, type QueryKey } from '@tanstack/react-query';
import { flushSync } from 'react-dom';
import { toast } from 'sonner';
import type { KeptRow, SavedRows, SaveRowsRequest } from '#contract/cell-tables';
import { counted, type CountedThing } from '#contract/messages';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { ProblemError } from '../shell/api';
import type { createDraftStore } from '../shell/draft-store';
import { keepReply } from '../shell/keep-reply';
import { showProblem } from '../shell/show-problem';
import type { TableLook } from './table-look';
import { countOf, noChanges, requestOf, withoutSent, type RowChanges } from './table-rows';

/** Rows of one kind: how they look, where they are kept, and where what is not saved yet is. */
export interface KeptTable<Field extends string, Kept extends KeptRow<Field>> {
  /** Under which the draft is kept. */
  readonly draftKey: number | string;
  readonly look: TableLook<Field, Kept>;
  /** What one row is, such as "course". */
  readonly thing: CountedThing;
  readonly drafts: ReturnType<typeof createDraftStore<RowChanges<Field>, null>>;
  /** Of the question that the rows answer. */
  readonly queryKey: QueryKey;
  readonly send: (request: SaveRowsRequest<Field>) => Promise<object & SavedRows>;
}

/**
 * Saves a draft of rows. What is typed meanwhile stays, also when the page is left before the answer comes.
 * @param onSaved told what each row that was sent became, before it shows
 */
export function useSaveRows<Field extends string, Kept extends KeptRow<Field>>(
  of: KeptTable<Field, Kept>,
  onSaved: (sent: RowChanges<Field>, reply: SavedRows) => void,
) {
  const { draftKey, look, thing, drafts, queryKey, send } = of;
  const client = useQueryClient();
  const tellOfChange = useTellOfChange();
  return useMutation({
    mutationFn: (sent: RowChanges<Field>) => send(requestOf(sent)),
    onSuccess: async (reply, sent) => {
      keepReply(client, queryKey, reply);
      // Queries tell of it a moment later. At no time is a row that is being typed in neither drafted nor kept.
      await new Promise((resolve) => setTimeout(resolve));
      flushSync(() => {
        onSaved(sent, reply);
        drafts.settleTo(draftKey, null, noChanges, (now) => withoutSent(look.table, now, sent, reply));
      });
      tellOfChange(`${counted(countOf(sent), thing)} saved.`, reply);
      void client.invalidateQueries();
    },
    onError: (error) => {
      // It may be that only the answer was lost.
      void client.invalidateQueries({ queryKey });
      const fault = error instanceof ProblemError ? error.problem.errors[0] : undefined;
      if (fault) toast.error((error as ProblemError).problem.title, { description: fault.detail });
      else showProblem(error);
    },
  });
}
