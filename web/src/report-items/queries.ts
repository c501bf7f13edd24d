import {
  keepPreviousData,
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationOptions,
} from '@tanstack/react-query';
import type {
  ItemRulesBody,
  AssignmentPreviewReply,
  ItemBody,
  ItemEffectReply,
  NewItemRequest,
  OrderItemsRequest,
  ReportItemsReply,
  SaveAssignmentRequest,
  SaveItemRequest,
} from '#contract/report-items';
import { api } from '../shell/api';
import { keepReply } from '../shell/keep-reply';
import { useScope } from '../shell/scope';

const key = (schoolId: number, periodId: number) => ['report-items', schoolId, periodId];

/** The items of a school, with the scale that each course uses in the chosen period. */
export function useReportItems(schoolId: number) {
  const { periodId } = useScope();
  return useQuery({
    queryKey: key(schoolId, periodId),
    queryFn: () => api.get<ReportItemsReply>(`/schools/${schoolId}/report-items?period=${periodId}`),
  });
}

/** What drafted rules and exceptions would add and remove; asked only while there are some. */
export function useAssignmentPreview(schoolId: number, draft: ItemRulesBody | undefined) {
  const { periodId } = useScope();
  return useQuery({
    queryKey: [...key(schoolId, periodId), 'preview', draft],
    enabled: draft !== undefined,
    placeholderData: keepPreviousData,
    queryFn: () => api.post<AssignmentPreviewReply>(`/schools/${schoolId}/report-items/preview`, draft),
  });
}

/** What a changed item would do to what is computed for it; asked only while there is one. */
export function useItemEffect(id: number | undefined, body: ItemBody | undefined) {
  const { schoolId, periodId } = useScope();
  return useQuery({
    queryKey: [...key(schoolId, periodId), 'effect', id, body],
    enabled: id !== undefined && body !== undefined,
    gcTime: 0,
    queryFn: () => api.post<ItemEffectReply>(`/report-items/${id}/preview?period=${periodId}`, body),
  });
}

export function useSaveAssignment(schoolId: number) {
  return useItemsMutation(schoolId, (request: SaveAssignmentRequest, period) =>
    api.put<ReportItemsReply>(`/schools/${schoolId}/report-items/assignment${period}`, request),
  );
}

export function useAddItem(schoolId: number) {
  return useItemsMutation(schoolId, (request: NewItemRequest, period) =>
    api.post<ReportItemsReply>(`/schools/${schoolId}/report-items${period}`, request),
  );
}

export function useSaveItem(schoolId: number) {
  return useItemsMutation(schoolId, ({ id, ...request }: SaveItemRequest & { id: number }, period) =>
    api.put<ReportItemsReply>(`/report-items/${id}${period}`, request),
  );
}

export function useRemoveItem(schoolId: number) {
  return useItemsMutation(schoolId, (id: number, period) =>
    api.remove<ReportItemsReply>(`/report-items/${id}${period}`),
  );
}

/** Orders are sent one after another, each as moved from the one before, so that a fast hand loses no step. */
export function useOrderItems(schoolId: number) {
  const client = useQueryClient();
  const { periodId } = useScope();
  return useItemsMutation(
    schoolId,
    (request: OrderItemsRequest, period) =>
      api.put<ReportItemsReply>(`/schools/${schoolId}/report-items/order${period}`, request),
    {
      scope: { id: `order of items ${schoolId}` },
      onMutate: ({ itemIds }) => {
        const ordered = (reply: ReportItemsReply) => ({
          ...reply,
          items: reply.items.toSorted((a, b) => itemIds.indexOf(a.id) - itemIds.indexOf(b.id)),
        });
        keepReply<ReportItemsReply>(client, key(schoolId, periodId), (reply) => reply && ordered(reply));
      },
      onError: () => void client.invalidateQueries({ queryKey: key(schoolId, periodId) }),
    },
  );
}

/** Every change answers with the whole set-up anew; whatever else shows what is expected is asked for again. */
function useItemsMutation<Request>(
  schoolId: number,
  send: (request: Request, period: string) => Promise<ReportItemsReply>,
  more: Pick<UseMutationOptions<ReportItemsReply, Error, Request>, 'scope' | 'onMutate' | 'onError'> = {},
) {
  const client = useQueryClient();
  const { periodId } = useScope();
  return useMutation({
    ...more,
    mutationKey: ['report-items', schoolId],
    mutationFn: (request: Request) => send(request, `?period=${periodId}`),
    onSuccess: (reply) => {
      // What has been moved since, and waits to be sent, stays moved.
      if (client.isMutating({ mutationKey: ['report-items', schoolId] }) <= 1)
        keepReply(client, key(schoolId, periodId), reply);
      void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'report-items' });
    },
  });
}
