import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { CarryOutMoveRequest, MovedReply, MovePreviewReply, MoveRequest } from '#contract/sections';
import { api } from '../../shell/api';
import { showProblem } from '../../shell/show-problem';

/** What would go along; asked once there is a section to move to. */
export function useMovePreview(schoolId: number, request: MoveRequest, isAsked: boolean) {
  return useQuery({
    queryKey: ['enrollments', 'move', request],
    enabled: isAsked,
    placeholderData: keepPreviousData,
    queryFn: () => api.post<MovePreviewReply>(`/schools/${schoolId}/moves/preview`, request),
  });
}

export function useMove(schoolId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: CarryOutMoveRequest) => api.post<MovedReply>(`/schools/${schoolId}/moves`, request),
    onSuccess: () => {
      for (const key of ['enrollments', 'sections', 'sheets', 'sheet', 'term-line', 'transcript'])
        void client.invalidateQueries({ queryKey: [key] });
    },
    onError: (error) => {
      showProblem(error);
      void client.invalidateQueries({ queryKey: ['enrollments'] });
    },
  });
}
