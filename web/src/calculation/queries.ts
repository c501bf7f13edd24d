import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type {
  AddAssignmentRequest,
  BookReply,
  CalculationReply,
  CategoryReply,
  ChangeAssignmentRequest,
  CopyPolicyRequest,
  DifferingReply,
  PolicyEffectReply,
  PreviewPolicyRequest,
  RecalculationReply,
  RemovePolicyRequest,
  SaveCategoriesRequest,
  SavePolicyRequest,
  SaveScoresRequest,
} from '#contract/calculation';
import { api } from '../shell/api';
import { keepReply } from '../shell/keep-reply';
import { useInPeopleOrder } from '../ui/people-order';

export function useCalculation(periodId: number) {
  return useQuery({
    queryKey: ['calculation', periodId],
    queryFn: () => api.get<CalculationReply>(`/calculation?period=${periodId}`),
  });
}

export function useDiffering(periodId: number) {
  const inOrder = useInPeopleOrder();
  return useQuery({
    queryKey: ['calculation', 'differing', periodId],
    select: useCallback((rows: readonly DifferingReply[]) => inOrder(rows, 'student'), [inOrder]),
    queryFn: () => api.get<DifferingReply[]>(`/calculation/differing?period=${periodId}`),
  });
}

/** How far the calculating of stale grade books is; asked for often while it is under way. */
export function useRecalculation() {
  return useQuery({
    queryKey: ['recalculation'],
    queryFn: () => api.get<RecalculationReply>('/recalculation'),
    refetchInterval: ({ state }) => (state.data?.isRunning ? 500 : false),
  });
}

/** A policy or category is felt wherever computed percents are shown. */
function useCalculationMutation<Request, Reply>(send: (request: Request) => Promise<Reply>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: send, onSuccess: () => client.invalidateQueries() });
}

export function useSavePolicy(schoolId: number, periodId: number) {
  return useCalculationMutation((request: SavePolicyRequest) =>
    api.put<CalculationReply>(`/schools/${schoolId}/policies?period=${periodId}`, request),
  );
}

export function useRemovePolicy(schoolId: number, periodId: number) {
  return useCalculationMutation((request: RemovePolicyRequest) =>
    api.post<CalculationReply>(`/schools/${schoolId}/policies/remove?period=${periodId}`, request),
  );
}

export function useCopyPolicy(periodId: number) {
  return useCalculationMutation(({ sectionId, ...request }: CopyPolicyRequest & { readonly sectionId: number }) =>
    api.post<CalculationReply>(`/sections/${sectionId}/policy/copy?period=${periodId}`, request),
  );
}

/** Of the school, or of one of its sections alone. */
export function useSaveCategories(schoolId: number, sectionId: number | null) {
  const place = sectionId === null ? '' : `/sections/${sectionId}`;
  return useCalculationMutation((request: SaveCategoriesRequest) =>
    api.put<CategoryReply[]>(`/schools/${schoolId}${place}/categories`, request),
  );
}

export function useSteerRecalculation() {
  return useCalculationMutation((isStart: boolean) =>
    isStart ? api.post<RecalculationReply>('/recalculation', {}) : api.remove<RecalculationReply>('/recalculation'),
  );
}

/** What a policy would do to the grade books of a period. */
export function usePolicyEffect(schoolId: number, request: PreviewPolicyRequest) {
  return useQuery({
    queryKey: ['calculation', 'effect', schoolId, request],
    queryFn: () => api.post<PolicyEffectReply>(`/schools/${schoolId}/policies/preview`, request),
  });
}

const addressOf = (sectionId: number, periodId: number) => `/grade-books/${sectionId}/${periodId}`;

export function useBook(sectionId: number | undefined, periodId: number) {
  const inOrder = useInPeopleOrder();
  return useQuery({
    queryKey: ['book', sectionId, periodId],
    enabled: sectionId !== undefined,
    select: useCallback(
      (book: BookReply): BookReply => ({ ...book, students: inOrder(book.students, 'student') }),
      [inOrder],
    ),
    queryFn: () => api.get<BookReply>(addressOf(sectionId!, periodId)),
  });
}

/** Each change answers with the whole book; what is posted and found elsewhere is asked for again. */
function useBookMutation<Request>(
  sectionId: number,
  periodId: number,
  send: (request: Request, address: string) => Promise<BookReply>,
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: Request) => send(request, addressOf(sectionId, periodId)),
    onSuccess: (book) => {
      keepReply(client, ['book', sectionId, periodId], book);
      for (const key of ['sheet', 'calculation', 'book']) void client.invalidateQueries({ queryKey: [key] });
    },
    // What somebody else saved meanwhile has to be on the screen before it can be compared.
    onError: () => client.invalidateQueries({ queryKey: ['book', sectionId, periodId] }),
  });
}

export function useSaveScores(sectionId: number, periodId: number) {
  return useBookMutation(sectionId, periodId, (request: SaveScoresRequest, address) =>
    api.put<BookReply>(`${address}/scores`, request),
  );
}

/** The section's own list of categories. */
export function useSaveBookCategories(sectionId: number, periodId: number) {
  return useBookMutation(sectionId, periodId, (request: SaveCategoriesRequest, address) =>
    api.put<BookReply>(`${address}/categories`, request),
  );
}

export function useAddAssignment(sectionId: number, periodId: number) {
  return useBookMutation(sectionId, periodId, (request: AddAssignmentRequest, address) =>
    api.post<BookReply>(`${address}/assignments`, request),
  );
}

export function useChangeAssignment(sectionId: number, periodId: number) {
  return useBookMutation(sectionId, periodId, ({ id, ...request }: ChangeAssignmentRequest & { id: number }, address) =>
    api.put<BookReply>(`${address}/assignments/${id}`, request),
  );
}

export function useRemoveAssignment(sectionId: number, periodId: number) {
  return useBookMutation(sectionId, periodId, (id: number, address) =>
    api.remove<BookReply>(`${address}/assignments/${id}`),
  );
}
