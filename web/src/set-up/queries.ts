import { useQuery } from '@tanstack/react-query';
import type { SetUpReply } from '#contract/set-up';
import { api } from '../shell/api';

/** Every fault of the school's set-up, as it is in a period; asked only where there is one. */
export function useSetUpCheck(periodId: number | undefined) {
  return useQuery({
    enabled: periodId !== undefined,
    queryKey: ['set-up', periodId],
    queryFn: () => api.get<SetUpReply>(`/set-up-check?period=${periodId}`),
  });
}
