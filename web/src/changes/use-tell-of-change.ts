import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { toast } from 'sonner';
import type { UndoReply } from '#contract/changes';
import { api, changeOf } from '../shell/api';
import { showProblem } from '../shell/show-problem';

/** Tells of what a request changed. The notice undoes it, whatever page one is on by then, and the undo can be undone. */
export function useTellOfChange(): (says: string, reply: object) => void {
  const client = useQueryClient();
  return useCallback((says, reply) => tell(client, says, reply), [client]);
}

/** Undoes a change and shows everything anew. */
export function useUndo(): (changeId: number) => Promise<void> {
  const client = useQueryClient();
  return useCallback((changeId) => undo(client, changeId), [client]);
}

function tell(client: QueryClient, says: string, reply: object): void {
  void client.invalidateQueries({ queryKey: ['changes'] });
  const change = changeOf(reply);
  toast.success(
    says,
    change === undefined ? {} : { action: { label: 'Undo', onClick: () => void undo(client, change) } },
  );
}

async function undo(client: QueryClient, changeId: number): Promise<void> {
  try {
    const reply = await api.post<UndoReply>(`/changes/${changeId}/undo`);
    await client.invalidateQueries();
    tell(client, `${sayUndone(reply.action)}.`, reply);
  } catch (problem) {
    showProblem(problem);
  }
}

/** @example sayUndone('undo: save the codes') // 'Undone: save the codes' */
function sayUndone(action: string): string {
  return action.replace(/^undo: /, 'Undone: ').replace(/^redo: /, 'Redone: ');
}
