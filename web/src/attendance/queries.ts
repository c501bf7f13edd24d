import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type {
  AttendanceImportReply,
  AttendanceListReply,
  ImportAttendanceRequest,
  ImportedAttendanceReply,
  RegisterReply,
  SaveRegistersRequest,
} from '#contract/attendance';
import { api } from '../shell/api';
import { useScope } from '../shell/scope';
import { useInPeopleOrder } from '../ui/people-order';

export function useAttendance() {
  const { periodId } = useScope();
  return useQuery({
    queryKey: ['attendance', periodId],
    queryFn: () => api.get<AttendanceListReply>(`/attendance?period=${periodId}`),
  });
}

const addressOf = (sectionId: number, periodId: number) => `/attendance/${sectionId}/${periodId}`;

/** The week of a section in which a day lies; null for the last one that has begun. */
export function useRegister(sectionId: number, day: string | null) {
  const { periodId } = useScope();
  const inOrder = useInPeopleOrder();
  return useQuery({
    queryKey: ['attendance', periodId, sectionId, day],
    queryFn: () =>
      api.get<RegisterReply>(
        `${addressOf(sectionId, periodId)}${day === null ? '' : `?day=${encodeURIComponent(day)}`}`,
      ),
    select: useCallback(
      (reply: RegisterReply): RegisterReply => ({ ...reply, students: inOrder(reply.students, 'student') }),
      [inOrder],
    ),
  });
}

/** What changes attendance: from then on it is asked for again, and the sheets that tell of it. */
function useAttendanceMutation<Variables, Reply>(mutationFn: (variables: Variables) => Promise<Reply>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn,
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: ['attendance'] });
      void client.invalidateQueries({ queryKey: ['sheet'] });
    },
  });
}

export function useSaveRegisters(sectionId: number) {
  const { periodId } = useScope();
  return useAttendanceMutation((request: SaveRegistersRequest) =>
    api.put<RegisterReply>(addressOf(sectionId, periodId), request),
  );
}

export function useTakesAttendance() {
  const { schoolId } = useScope();
  const client = useQueryClient();
  return useMutation({
    mutationFn: (takesAttendance: boolean) =>
      api.put<undefined>(`/schools/${schoolId}/attendance`, { takesAttendance }),
    onSuccess: () => client.invalidateQueries(),
  });
}

export function usePlanAttendance() {
  const { schoolId, periodId } = useScope();
  return useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.set('file', file);
      return api.post<AttendanceImportReply>(`/schools/${schoolId}/attendance/import?period=${periodId}`, form);
    },
  });
}

export function useImportAttendance() {
  const { schoolId, periodId } = useScope();
  return useAttendanceMutation((request: ImportAttendanceRequest) =>
    api.put<ImportedAttendanceReply>(`/schools/${schoolId}/attendance/rows?period=${periodId}`, request),
  );
}
