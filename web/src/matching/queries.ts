import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import type {
  ConnectPlatformRequest,
  DecidedReply,
  MatchDecisionBody,
  MatchesReply,
  PlatformReply,
} from '#contract/matching';
import { api } from '../shell/api';
import { showProblem } from '../shell/show-problem';

/** How often a platform that is being read is asked how far it is. */
const progressMilliseconds = 700;

export function usePlatforms(schoolId: number | undefined) {
  return useQuery({
    queryKey: ['platforms', schoolId],
    enabled: schoolId !== undefined,
    queryFn: () => api.get<PlatformReply[]>(`/platforms?school=${schoolId}`),
    refetchInterval: ({ state: { data } }) =>
      data?.some(({ state }) => state === 'reading') ? progressMilliseconds : false,
  });
}

export function useMatches(platformId: number | undefined) {
  return useQuery({
    queryKey: ['matches', platformId],
    enabled: platformId !== undefined,
    queryFn: () => api.get<MatchesReply>(`/platforms/${platformId}/matches`),
  });
}

/** What can be done with the platforms of a school. */
export function usePlatformActions(schoolId: number) {
  const client = useQueryClient();
  const onSuccess = () => {
    void client.invalidateQueries({ queryKey: ['matches'] });
    return client.invalidateQueries({ queryKey: ['platforms', schoolId] });
  };
  return {
    connect: useMutation({
      mutationFn: (request: ConnectPlatformRequest) => api.post<PlatformReply>('/platforms', request),
      onSuccess,
    }),
    read: useMutation({
      mutationFn: (id: number) => api.post<PlatformReply>(`/platforms/${id}/read`),
      onSuccess,
      onError: showProblem,
    }),
    cancel: useMutation({
      mutationFn: (id: number) => api.post<PlatformReply>(`/platforms/${id}/cancel`),
      onSuccess,
      onError: showProblem,
    }),
    remove: useMutation({
      mutationFn: (id: number) => api.remove(`/platforms/${id}`),
      onSuccess,
      onError: showProblem,
    }),
  };
}

/** Decides, says what was decided, and offers to take it back. */
export function useDecide(platformId: number) {
  const client = useQueryClient();
  const refresh = () => {
    void client.invalidateQueries({ queryKey: ['platforms'] });
    return client.invalidateQueries({ queryKey: ['matches', platformId] });
  };
  const undo = useMutation({
    mutationFn: (id: number) => api.post<DecidedReply>(`/platforms/${platformId}/decisions/${id}/undo`),
    onSuccess: () => {
      toast.success('Taken back.');
      return refresh();
    },
    onError: showProblem,
  });
  return useMutation({
    mutationFn: ({ decisions }: { decisions: MatchDecisionBody[]; says: string }) =>
      api.post<DecidedReply>(`/platforms/${platformId}/decisions`, { decisions }),
    onSuccess: ({ decisionId }, { says }) => {
      toast.success(says, { action: { label: 'Undo', onClick: () => undo.mutate(decisionId) } });
      return refresh();
    },
    onError: showProblem,
  });
}
