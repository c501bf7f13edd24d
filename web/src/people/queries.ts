import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { PersonField } from '#core/people';
import type { SaveRowsRequest } from '#contract/cell-tables';
import type { PeopleImportReply, PeopleReply } from '#contract/people';
import { api } from '../shell/api';

/** The students and staff of a school. */
export function usePeople(schoolId: number) {
  return useQuery({
    queryKey: ['people', schoolId],
    queryFn: () => api.get<PeopleReply>(`/schools/${schoolId}/people`),
  });
}

/** Names show everywhere. */
export function useSavePeople(schoolId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: SaveRowsRequest<PersonField>) => api.put<PeopleReply>(`/schools/${schoolId}/people`, request),
    onSuccess: () => client.invalidateQueries(),
  });
}

/** What a file would change; nothing is written by reading it. */
export function usePlanPeopleImport(schoolId: number) {
  return useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.set('file', file);
      return api.post<PeopleImportReply>(`/schools/${schoolId}/people/import`, form);
    },
  });
}
