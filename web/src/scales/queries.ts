import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  BandBody,
  CodesReply,
  NewScaleRequest,
  PlaceScaleRequest,
  SaveCodesRequest,
  SaveScaleRequest,
  ScaleEffectReply,
  ScaleFactsRequest,
  ScalesReply,
} from '#contract/scales';
import { api } from '../shell/api';

export function useScales(periodId: number) {
  return useQuery({
    queryKey: ['scales', periodId],
    queryFn: () => api.get<ScalesReply>(`/scales?period=${periodId}`),
  });
}

/** Every change of a scale is felt wherever labels are shown. */
function useScaleMutation<Request, Reply>(send: (request: Request) => Promise<Reply>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: send, onSuccess: () => client.invalidateQueries() });
}

export function useSaveScale(scaleId: number) {
  return useScaleMutation((request: SaveScaleRequest) => api.put<ScalesReply>(`/scales/${scaleId}`, request));
}

export function useAddScale(schoolId: number) {
  return useScaleMutation((request: NewScaleRequest) => api.post<ScalesReply>(`/schools/${schoolId}/scales`, request));
}

export function useChangeScaleFacts(scaleId: number, periodId: number) {
  return useScaleMutation((request: ScaleFactsRequest) =>
    api.put<ScalesReply>(`/scales/${scaleId}/facts?period=${periodId}`, request),
  );
}

export function useRemoveScale(periodId: number) {
  return useScaleMutation((scaleId: number) => api.remove<ScalesReply>(`/scales/${scaleId}?period=${periodId}`));
}

export function usePlaceScale(schoolId: number) {
  return useScaleMutation((request: PlaceScaleRequest) =>
    api.put<void>(`/schools/${schoolId}/scale-placements`, request),
  );
}

/** What a draft would do to the grades of a period. */
export function useScaleEffect(scaleId: number, request: { periodId: number; bands: BandBody[] }) {
  return useQuery({
    queryKey: ['scales', 'effect', scaleId, request],
    queryFn: () => api.post<ScaleEffectReply>(`/scales/${scaleId}/preview`, request),
  });
}

export function useCodes() {
  return useQuery({ queryKey: ['codes'], queryFn: () => api.get<CodesReply>('/codes') });
}

export function useSaveCodes() {
  return useScaleMutation((request: SaveCodesRequest) => api.put<CodesReply>('/codes', request));
}
