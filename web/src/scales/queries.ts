import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  BandBody,
  NewScaleRequest,
  PlaceScaleRequest,
  SaveScaleRequest,
  ScaleEffectReply,
  ScaleFactsRequest,
  ScalesReply,
  TieBody,
} from '#contract/scales';
import type { CodesReply, SaveCodesRequest } from '#contract/codes';
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
    api.put<ScalesReply>(`/schools/${schoolId}/scale-placements`, request),
  );
}

/** What is looked at before it is made: a draft of a scale, a scale that would follow another, or a scale at a place. */
export type PreviewedChange =
  | { readonly kind: 'draft'; readonly scaleId: number; readonly periodId: number; readonly bands: readonly BandBody[] }
  | { readonly kind: 'tie'; readonly scaleId: number; readonly periodId: number; readonly tie: TieBody }
  | { readonly kind: 'placement'; readonly schoolId: number; readonly request: PlaceScaleRequest };

/** What a change of scales would do to the grades of a period. */
export function useScaleEffect(change: PreviewedChange) {
  return useQuery({
    queryKey: ['scales', 'effect', change],
    queryFn: () => {
      if (change.kind === 'placement')
        return api.post<ScaleEffectReply>(`/schools/${change.schoolId}/scale-placements/preview`, change.request);
      const { kind, scaleId, ...request } = change;
      return api.post<ScaleEffectReply>(`/scales/${scaleId}/${kind === 'tie' ? 'tie/' : ''}preview`, request);
    },
  });
}

export function useCodes() {
  return useQuery({ queryKey: ['codes'], queryFn: () => api.get<CodesReply>('/codes') });
}

export function useSaveCodes() {
  return useScaleMutation((request: SaveCodesRequest) => api.put<CodesReply>('/codes', request));
}
