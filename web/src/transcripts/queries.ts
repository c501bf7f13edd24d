import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type { ReadingReply } from '#contract/changes';
import type {
  GpaPolicyReply,
  ReadinessReply,
  SaveGpaPolicyRequest,
  StudentRowReply,
  TranscriptReply,
} from '#contract/transcripts';
import { api } from '../shell/api';
import { keepReply } from '../shell/keep-reply';
import { useRefreshCounts } from '../shell/scope';
import { useInPeopleOrder } from '../ui/people-order';

export function useReadiness(periodId: number) {
  return useQuery({
    queryKey: ['readiness', periodId],
    queryFn: () => api.get<ReadinessReply>(`/seals/readiness?period=${periodId}`),
  });
}

export function useSeal(periodId: number) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  return useMutation({
    mutationFn: () => api.post<ReadinessReply>('/seals', { periodId }),
    onSuccess: (readiness) => {
      refreshCounts();
      void client.invalidateQueries({ queryKey: ['sheet'] });
      void client.invalidateQueries({ queryKey: ['transcript'] });
      keepReply(client, ['readiness', periodId], readiness);
    },
  });
}

/** Who read a student's record; asked anew each time, as looking is a reading too. */
export function useReadings(studentId: number) {
  return useQuery({
    queryKey: ['readings', studentId],
    staleTime: 0,
    queryFn: () => api.get<ReadingReply[]>(`/students/${studentId}/readings`),
  });
}

export function useGpaPolicy() {
  return useQuery({ queryKey: ['gpa-policy'], queryFn: () => api.get<GpaPolicyReply>('/gpa-policy') });
}

/** Every GPA shown anywhere is made anew. */
export function useSaveGpaPolicy() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: SaveGpaPolicyRequest) => api.put<GpaPolicyReply>('/gpa-policy', request),
    onSuccess: () => client.invalidateQueries(),
  });
}

/** The students of a school whose name or number holds a text, with what they come to and what the period lacks. */
export function useStudents(schoolId: number, periodId: number, text: string) {
  const inOrder = useInPeopleOrder();
  return useQuery({
    queryKey: ['students', schoolId, periodId, text],
    select: useCallback((students: readonly StudentRowReply[]) => inOrder(students, 'name'), [inOrder]),
    placeholderData: keepPreviousData,
    queryFn: () =>
      api.get<StudentRowReply[]>(
        `/student-list?school=${schoolId}&period=${periodId}&text=${encodeURIComponent(text)}`,
      ),
  });
}

export function useTranscript(studentId: number) {
  return useQuery({
    queryKey: ['transcript', studentId],
    queryFn: () => api.get<TranscriptReply>(`/students/${studentId}/transcript`),
  });
}
