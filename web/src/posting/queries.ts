import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type { SaveSheetReply, SaveSheetRequest, SheetListReply, SheetReply } from '#contract/posting';
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
    },
    // What somebody else saved meanwhile has to be on the screen before it can be compared.
    onError: () => client.invalidateQueries({ queryKey: ['sheet', key] }),
  });
}
