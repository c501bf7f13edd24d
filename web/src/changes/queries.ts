import { useQuery } from '@tanstack/react-query';
import type { ChangeReply } from '#contract/changes';
import { api } from '../shell/api';

/** What the person who is signed in changed last. */
export function useMyChanges() {
  return useQuery({ queryKey: ['changes', 'mine'], queryFn: () => api.get<ChangeReply[]>('/changes/mine') });
}

/** What was changed of one thing, such as "report-item 102". */
export function useHistory(thing: string) {
  return useQuery({
    queryKey: ['changes', thing],
    queryFn: () => api.get<ChangeReply[]>(`/changes?thing=${encodeURIComponent(thing)}`),
  });
}
