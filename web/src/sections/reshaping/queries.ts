import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  CarryOutMergeSectionsRequest,
  CarryOutSplitSectionRequest,
  MergeSectionsPreviewReply,
  MergeSectionsRequest,
  MovedReply,
  SplitSectionPreviewReply,
  SplitSectionRequest,
} from '#contract/sections';
import { api } from '../../shell/api';
import { showProblem } from '../../shell/show-problem';

type Reshaping = 'merge' | 'split';

/** What making one section of several would do. */
export function useMergePreview(schoolId: number, request: MergeSectionsRequest) {
  return usePreview<MergeSectionsPreviewReply>(schoolId, 'merge', request, true);
}

/** What making two sections of one would do; asked once somebody is to teach the new one. */
export function useSplitPreview(schoolId: number, request: SplitSectionRequest, isAsked: boolean) {
  return usePreview<SplitSectionPreviewReply>(schoolId, 'split', request, isAsked);
}

export const useMergeSections = (schoolId: number) => useReshape<CarryOutMergeSectionsRequest>(schoolId, 'merge');
export const useSplitSection = (schoolId: number) => useReshape<CarryOutSplitSectionRequest>(schoolId, 'split');

function usePreview<Reply>(schoolId: number, what: Reshaping, request: object, isAsked: boolean) {
  return useQuery({
    queryKey: ['enrollments', what, request],
    enabled: isAsked,
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: () => api.post<Reply>(`/schools/${schoolId}/sections/${what}/preview`, request),
  });
}

function useReshape<Request extends object>(schoolId: number, what: Reshaping) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: Request) => api.post<MovedReply>(`/schools/${schoolId}/sections/${what}`, request),
    onSuccess: () => client.invalidateQueries(),
    onError: (error) => {
      showProblem(error);
      void client.invalidateQueries({ queryKey: ['enrollments'] });
    },
  });
}
