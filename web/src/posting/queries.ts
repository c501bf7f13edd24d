import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type {
  DayReceiptsReply,
  HandStandardsRequest,
  PostingAnswerRequest,
  PostingRequestRequest,
  SaveSheetReply,
  SaveSheetRequest,
  SaveStandardsReply,
  SaveStandardsRequest,
  SaveStockCommentsRequest,
  SheetListReply,
  SheetReply,
  SheetWordReply,
  SignOffRequest,
  SignStandardsRequest,
  StandardsReply,
  StockCommentsReply,
} from '#contract/posting';
import { api } from '../shell/api';
import { keepReply } from '../shell/keep-reply';
import { useRefreshCounts } from '../shell/scope';
import { useInPeopleOrder } from '../ui/people-order';

/** Which sheet: a section's students for one item in one period. */
export interface SheetKey {
  readonly sectionId: number;
  readonly itemId: number;
  readonly periodId: number;
}

const addressOf = ({ sectionId, itemId, periodId }: SheetKey) => `/grade-sheets/${sectionId}/${itemId}/${periodId}`;

export function useSheets(periodId: number) {
  return useQuery({
    queryKey: ['sheets', periodId],
    queryFn: () => api.get<SheetListReply[]>(`/grade-sheets?period=${periodId}`),
  });
}

export function useSheet(key: SheetKey) {
  const inOrder = useInPeopleOrder();
  return useQuery({
    queryKey: ['sheet', key],
    queryFn: () => api.get<SheetReply>(addressOf(key)),
    select: useCallback(
      (sheet: SheetReply): SheetReply => ({ ...sheet, rows: inOrder(sheet.rows, 'student') }),
      [inOrder],
    ),
  });
}

export function useSaveSheet(key: SheetKey) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  return useMutation({
    mutationFn: (request: SaveSheetRequest) => api.put<SaveSheetReply>(addressOf(key), request),
    onSuccess: ({ receipt, rows }) => {
      const saved = new Map(rows.map((row) => [row.enrollmentId, row]));
      keepReply<SheetReply>(
        client,
        ['sheet', key],
        (sheet) =>
          sheet && {
            ...sheet,
            rows: sheet.rows.map((row) => saved.get(row.enrollmentId) ?? row),
            receipts: receipt ? [receipt, ...sheet.receipts] : sheet.receipts,
          },
      );
      refreshCounts();
      // What the audit found in these rows is saved since.
      void client.invalidateQueries({ queryKey: ['audit', 'sheet'] });
    },
    // What somebody else saved meanwhile has to be on the screen before it can be compared.
    onError: () => client.invalidateQueries({ queryKey: ['sheet', key] }),
  });
}

/** What changes a sheet as a whole: signing it off, taking that back, asking a registrar, answering. */
function useSheetMutation<Variables, Reply>(key: SheetKey, mutationFn: (variables: Variables) => Promise<Reply>) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  return useMutation({
    mutationFn,
    onSettled: async () => {
      refreshCounts();
      await client.invalidateQueries({ queryKey: ['sheet', key] });
    },
  });
}

export function useSignOff(key: SheetKey) {
  return useSheetMutation(key, (request: SignOffRequest) =>
    api.put<SheetWordReply>(`${addressOf(key)}/sign-off`, request),
  );
}

export function useTakeBack(key: SheetKey) {
  return useSheetMutation(key, () => api.remove<SheetWordReply>(`${addressOf(key)}/sign-off`));
}

export function useAskToPost(key: SheetKey) {
  return useSheetMutation(key, (request: PostingRequestRequest) =>
    api.post<undefined>(`${addressOf(key)}/requests`, request),
  );
}

export function useAnswerRequest(key: SheetKey) {
  return useSheetMutation(key, ({ id, ...answer }: PostingAnswerRequest & { readonly id: number }) =>
    api.put<undefined>(`/posting-requests/${id}`, answer),
  );
}

/** What whoever is signed in posted on a day, and what was posted for them; null for today. */
export function useDayReceipts(day: string | null) {
  return useQuery({
    queryKey: ['receipts', day],
    queryFn: () => api.get<DayReceiptsReply>(day === null ? '/receipts' : `/receipts?day=${day}`),
  });
}

export function useStockComments(schoolId: number) {
  return useQuery({
    queryKey: ['stock-comments', schoolId],
    queryFn: () => api.get<StockCommentsReply>(`/stock-comments?school=${schoolId}`),
  });
}

export function useSaveStockComments(schoolId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: SaveStockCommentsRequest) =>
      api.put<StockCommentsReply>(`/stock-comments?school=${schoolId}`, request),
    onSuccess: (saved) => {
      keepReply<StockCommentsReply>(client, ['stock-comments', schoolId], () => saved);
      void client.invalidateQueries({ queryKey: ['sheet'] });
    },
  });
}

/** The sheets of all standards of a section. */
export function useStandards(sectionId: number, periodId: number) {
  const inOrder = useInPeopleOrder();
  return useQuery({
    queryKey: ['standards', sectionId, periodId],
    queryFn: () => api.get<StandardsReply>(`/standards-sheets/${sectionId}/${periodId}`),
    select: useCallback(
      ({ sheets }: StandardsReply): StandardsReply => ({
        sheets: sheets.map((sheet) => ({ ...sheet, rows: inOrder(sheet.rows, 'student') })),
      }),
      [inOrder],
    ),
  });
}

export function useSaveStandards(sectionId: number, periodId: number) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  return useMutation({
    mutationFn: (request: SaveStandardsRequest) =>
      api.put<SaveStandardsReply>(`/standards-sheets/${sectionId}/${periodId}`, request),
    onSuccess: ({ sheets: saved }, { sheets: sent }) => {
      const rowsOf = new Map(sent.map(({ itemId }, at) => [itemId, saved[at]!.rows]));
      keepReply<StandardsReply>(
        client,
        ['standards', sectionId, periodId],
        (kept) =>
          kept && {
            sheets: kept.sheets.map((sheet) => {
              const own = new Map(rowsOf.get(sheet.itemId)?.map((row) => [row.enrollmentId, row]));
              return { ...sheet, rows: sheet.rows.map((row) => own.get(row.enrollmentId) ?? row) };
            }),
          },
      );
      void client.invalidateQueries({ queryKey: ['sheet'] });
      void client.invalidateQueries({ queryKey: ['audit', 'sheet'] });
      refreshCounts();
    },
    onError: () => client.invalidateQueries({ queryKey: ['standards', sectionId, periodId] }),
  });
}

/** What changes the standards of a section as a whole. */
function useStandardsMutation<Variables>(
  sectionId: number,
  periodId: number,
  mutationFn: (variables: Variables) => Promise<unknown>,
) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  return useMutation({
    mutationFn,
    onSettled: async () => {
      refreshCounts();
      void client.invalidateQueries({ queryKey: ['sheet'] });
      await client.invalidateQueries({ queryKey: ['standards', sectionId, periodId] });
    },
  });
}

export function useSignStandards(sectionId: number, periodId: number) {
  return useStandardsMutation(sectionId, periodId, (request: SignStandardsRequest) =>
    api.put<undefined>(`/standards-sheets/${sectionId}/${periodId}/sign-off`, request),
  );
}

export function useAskToPostStandards(sectionId: number, periodId: number) {
  return useStandardsMutation(sectionId, periodId, (request: HandStandardsRequest) =>
    api.post<undefined>(`/standards-sheets/${sectionId}/${periodId}/requests`, request),
  );
}

/** Gives some requests the same answer. */
export function useAnswerRequests(sectionId: number, periodId: number) {
  return useStandardsMutation(
    sectionId,
    periodId,
    async ({ ids, ...answer }: PostingAnswerRequest & { readonly ids: readonly number[] }) => {
      for (const id of ids) await api.put<undefined>(`/posting-requests/${id}`, answer);
    },
  );
}
