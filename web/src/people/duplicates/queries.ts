import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { DifferentPeopleReply, DuplicateReply, MergePreviewReply, PeopleReply } from '#contract/people';
import { api } from '../../shell/api';
import { keepReply } from '../../shell/keep-reply';
import { showProblem } from '../../shell/show-problem';

/** Records that may be of one person. */
export function useDuplicates(schoolId: number) {
  return useQuery({
    queryKey: ['people', schoolId, 'duplicates'],
    queryFn: () => api.get<DuplicateReply[]>(`/schools/${schoolId}/duplicates`),
  });
}

/** What making one record of two would do. */
export function useMergePreview(schoolId: number, keptId: number, goneId: number) {
  return useQuery({
    queryKey: ['people', schoolId, 'merge', keptId, goneId],
    placeholderData: keepPreviousData,
    queryFn: () => api.post<MergePreviewReply>(`/schools/${schoolId}/duplicates/preview`, { keptId, goneId }),
  });
}

/** Says that two records are of two people; they are not asked about again. */
export function useSayDifferent(schoolId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ one, other }: DuplicateReply) =>
      api.put<DifferentPeopleReply>(`/schools/${schoolId}/duplicates/different`, {
        oneId: one.id,
        otherId: other.id,
      }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['people', schoolId, 'duplicates'] }),
    onError: showProblem,
  });
}

export function useMerge(schoolId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ kept, gone, previewId }: MergePreviewReply) =>
      api.post<PeopleReply>(`/schools/${schoolId}/duplicates/merge`, { keptId: kept.id, goneId: gone.id, previewId }),
    onSuccess: (reply) => {
      keepReply(client, ['people', schoolId], reply);
      for (const key of ['people', 'students', 'transcript', 'enrollments', 'search'])
        void client.invalidateQueries({ queryKey: [key] });
    },
    onError: (error) => {
      showProblem(error);
      void client.invalidateQueries({ queryKey: ['people', schoolId] });
    },
  });
}
