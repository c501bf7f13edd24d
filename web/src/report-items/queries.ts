import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  AssignmentBody,
  AssignmentPreviewReply,
  NewItemRequest,
  ReportItemsReply,
  SaveAssignmentRequest,
  SaveItemRequest,
} from '#contract/report-items';
import { api } from '../shell/api';

const key = (schoolId: number) => ['report-items', schoolId];

export function useReportItems(schoolId: number) {
  return useQuery({
    queryKey: key(schoolId),
    queryFn: () => api.get<ReportItemsReply>(`/schools/${schoolId}/report-items`),
  });
}

/** What drafted rules and exceptions would add and remove; asked only while there are some. */
export function useAssignmentPreview(schoolId: number, draft: AssignmentBody | undefined) {
  return useQuery({
    queryKey: [...key(schoolId), 'preview', draft],
    enabled: draft !== undefined,
    placeholderData: keepPreviousData,
    queryFn: () => api.post<AssignmentPreviewReply>(`/schools/${schoolId}/report-items/preview`, draft),
  });
}

export function useSaveAssignment(schoolId: number) {
  return useItemsMutation(schoolId, (request: SaveAssignmentRequest) =>
    api.put<ReportItemsReply>(`/schools/${schoolId}/report-items/assignment`, request),
  );
}

export function useAddItem(schoolId: number) {
  return useItemsMutation(schoolId, (request: NewItemRequest) =>
    api.post<ReportItemsReply>(`/schools/${schoolId}/report-items`, request),
  );
}

export function useSaveItem(schoolId: number) {
  return useItemsMutation(schoolId, ({ id, ...request }: SaveItemRequest & { id: number }) =>
    api.put<ReportItemsReply>(`/report-items/${id}`, request),
  );
}

export function useRemoveItem(schoolId: number) {
  return useItemsMutation(schoolId, (id: number) => api.remove<ReportItemsReply>(`/report-items/${id}`));
}

export function useOrderItems(schoolId: number) {
  return useItemsMutation(schoolId, (itemIds: number[]) =>
    api.put<ReportItemsReply>(`/schools/${schoolId}/report-items/order`, { itemIds }),
  );
}

/** Every change answers with the whole set-up anew; whatever else shows what is expected is asked for again. */
function useItemsMutation<Request>(schoolId: number, send: (request: Request) => Promise<ReportItemsReply>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (reply) => {
      client.setQueryData(key(schoolId), reply);
      void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'report-items' });
    },
  });
}
