import { useQuery } from '@tanstack/react-query';
import type { SetUpReply } from '#contract/set-up';
import { api } from '../shell/api';

/** Every fault of the school's set-up, as it is in a period. */
export function useSetUpCheck(periodId: number) {
  return useQuery({
    queryKey: ['set-up', periodId],
    queryFn: () => api.get<SetUpReply>(`/set-up-check?period=${periodId}`),
  });
}
