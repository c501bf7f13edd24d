import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import type {
  DecidedReply,
  MatchDecisionBody,
  MatchesReply,
  RestoreWeightsRequest,
  TakeWeightsRequest,
  WeightsReply,
  WeightsRequest,
  WeightsTakenReply,
} from '#contract/matching';
import type { ConnectPlatformRequest, PlatformReply } from '#contract/platforms';
import type { PolicyEffectReply } from '#contract/calculation';
import { useTellOfChange } from '../changes/use-tell-of-change';
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

/** Decides, and says what was decided, with its undo. */
export function useDecide(platformId: number) {
  const client = useQueryClient();
  const tellOfChange = useTellOfChange();
  return useMutation({
    mutationFn: ({ decisions }: { decisions: MatchDecisionBody[]; says: string }) =>
      api.post<DecidedReply>(`/platforms/${platformId}/decisions`, { decisions }),
    onSuccess: (reply, { says }) => {
      tellOfChange(says, reply);
      void client.invalidateQueries({ queryKey: ['platforms'] });
      return client.invalidateQueries({ queryKey: ['matches', platformId] });
    },
    onError: showProblem,
  });
}

export function useWeights(platformId: number, periodId: number) {
  return useQuery({
    queryKey: ['weights', platformId, periodId],
    queryFn: () => api.get<WeightsReply>(`/platforms/${platformId}/weights?period=${periodId}`),
  });
}

/** What taking their weights for some classes would do; null asks nothing. */
export function useWeightsEffect(platformId: number, request: WeightsRequest | null) {
  return useQuery({
    queryKey: ['weights', platformId, 'effect', request],
    enabled: request !== null,
    queryFn: () => api.post<PolicyEffectReply>(`/platforms/${platformId}/weights/effect`, request!),
  });
}

/** Takes weights of one side, says what was taken, and offers to put back what stood before. */
export function useTakeWeights(platformId: number) {
  const client = useQueryClient();
  const tellOfChange = useTellOfChange();
  const restore = useMutation({
    mutationFn: (before: RestoreWeightsRequest) =>
      api.post<WeightsReply>(`/platforms/${platformId}/weights/restore`, before),
    onSuccess: () => {
      toast.success('The weights are as they were.');
      return client.invalidateQueries();
    },
    onError: showProblem,
  });
  return useMutation({
    mutationFn: ({ says: _says, ...request }: TakeWeightsRequest & { readonly says: string }) =>
      api.post<WeightsTakenReply>(`/platforms/${platformId}/weights/take`, request),
    onSuccess: (taken, { says, side, periodId }) => {
      const { before, problem } = taken;
      const undo = { label: 'Undo', onClick: () => restore.mutate({ periodId, groups: [...before] }) };
      if (side === 'theirs') tellOfChange(says, taken);
      else if (problem === null) toast.success(says, { action: undo });
      else toast.error(`${problem} The groups before it have our weight.`, { action: undo });
      return client.invalidateQueries();
    },
    onError: showProblem,
  });
}
