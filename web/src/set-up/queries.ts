import { useQuery } from '@tanstack/react-query';
import type { FirstStepsReply, SetUpReply } from '#contract/set-up';
import { api } from '../shell/api';

/** Every fault of the school's set-up, as it is in a period; asked only where there is one. */
export function useSetUpCheck(periodId: number | undefined) {
  return useQuery({
    enabled: periodId !== undefined,
    queryKey: ['set-up', periodId],
    queryFn: () => api.get<SetUpReply>(`/set-up-check?period=${periodId}`),
  });
}

/** What the school has on its way to its first grade. @param isAsked false for who does not set up */
export function useFirstSteps(schoolId: number, periodId: number, isAsked = true) {
  return useQuery({
    enabled: isAsked,
    queryKey: ['first-steps', schoolId, periodId],
    queryFn: () => api.get<FirstStepsReply>(`/schools/${schoolId}/first-steps?period=${periodId}`),
  });
}
