import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { OpenedSchoolReply, OpenSchoolRequest, RenameSchoolRequest, SchoolNamesReply } from '#contract/schools';
import { api } from '../shell/api';

/** A new school changes what every screen may go to: whoever makes it leads on first, and has all of it asked for again then. */
export function useOpenSchool() {
  return useMutation({
    mutationFn: (request: OpenSchoolRequest) => api.post<OpenedSchoolReply>('/schools', request),
  });
}

/** What a school and its district are called. */
export function useSchoolNames(schoolId: number) {
  return useQuery({
    queryKey: ['school-names', schoolId],
    queryFn: () => api.get<SchoolNamesReply>(`/schools/${schoolId}/names`),
  });
}

/** The names stand on every screen: all of it is asked for again. */
export function useRenameSchool(schoolId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: RenameSchoolRequest) => api.put<SchoolNamesReply>(`/schools/${schoolId}/names`, request),
    onSuccess: () => client.invalidateQueries(),
  });
}
