import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { SaveScaleRequest, ScaleReply } from '#contract/scales';
import { api } from '../shell/api';

export function useScales(periodId: number) {
  return useQuery({
    queryKey: ['scales', periodId],
    queryFn: () => api.get<ScaleReply[]>(`/scales?period=${periodId}`),
  });
}

export function useSaveScale(scaleId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: SaveScaleRequest) => api.put<ScaleReply>(`/scales/${scaleId}`, request),
    onSuccess: () => client.invalidateQueries({ queryKey: ['scales'] }),
  });
}
