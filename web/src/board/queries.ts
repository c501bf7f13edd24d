import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type { BoardReply, BoardSchoolReply, RemindersReply, RemindersRequest } from '#contract/board';
import { api } from '../shell/api';
import { useInPeopleOrder } from '../ui/people-order';

/** How far each school is in the period that is posted there now. */
export function useSchoolsBoard() {
  return useQuery({
    queryKey: ['board', 'schools'],
    queryFn: () => api.get<BoardSchoolReply[]>('/board/schools'),
  });
}

export function useBoard(periodId: number) {
  const inOrder = useInPeopleOrder();
  return useQuery({
    queryKey: ['board', periodId],
    queryFn: () => api.get<BoardReply>(`/board?period=${periodId}`),
    select: useCallback(
      (board: BoardReply): BoardReply => ({ ...board, sections: inOrder(board.sections, 'teacher') }),
      [inOrder],
    ),
  });
}

/** The messages as they would be sent; nothing is kept of it. */
export function useReminderPreview(periodId: number, request: RemindersRequest) {
  return useQuery({
    queryKey: ['reminders', periodId, request],
    queryFn: () => api.post<RemindersReply>(`/board/${periodId}/reminders`, request),
    staleTime: Infinity,
    gcTime: 0,
  });
}

export function useSendReminders(periodId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: RemindersRequest) => api.post<RemindersReply>(`/board/${periodId}/reminders`, request),
    onSuccess: () => {
      for (const key of ['board', 'mails']) void client.invalidateQueries({ queryKey: [key] });
    },
    // What changed meanwhile is looked at before it is sent.
    onError: () => client.invalidateQueries({ queryKey: ['reminders'] }),
  });
}
