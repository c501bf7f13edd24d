import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  ExchangeImportReply,
  ExchangeRowsQuery,
  ExchangeRowsReply,
  ExchangeSummaryReply,
} from '#contract/exchange';
import { api } from '../shell/api';
import { keepReply } from '../shell/keep-reply';
import { useWhenOver } from '../ui/use-when-over';

const progressMilliseconds = 700;

function isBeingImported({ status }: ExchangeSummaryReply): boolean {
  return status === 'accepting';
}

export function useExchanges() {
  return useQuery({
    queryKey: ['exchange'],
    queryFn: () => api.get<ExchangeSummaryReply[]>('/exchange/imports'),
    refetchInterval: ({ state: { data } }) => (data?.some(isBeingImported) ? progressMilliseconds : false),
  });
}

export function useExchange(id: number) {
  return useQuery({
    queryKey: ['exchange', id],
    queryFn: () => api.get<ExchangeImportReply>(`/exchange/imports/${id}`),
    refetchInterval: ({ state: { data } }) => (data && isBeingImported(data) ? progressMilliseconds : false),
  });
}

export function useExchangeRows({ id, previewId }: ExchangeImportReply, query: ExchangeRowsQuery) {
  const asked = new URLSearchParams(Object.entries(query) as [string, string][]);
  return useQuery({
    queryKey: ['exchange', id, previewId, asked.toString()],
    queryFn: () => api.get<ExchangeRowsReply>(`/exchange/imports/${id}/rows?${asked}`),
    placeholderData: keepPreviousData,
  });
}

export function useReadZip() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => {
      const body = new FormData();
      body.append('file', file);
      return api.post<ExchangeImportReply>('/exchange/imports', body);
    },
    onSuccess: (read) => {
      keepReply(client, ['exchange', read.id], read);
      return client.invalidateQueries({ queryKey: ['exchange'], exact: true });
    },
  });
}

export function useExchangeActions(id: number) {
  const client = useQueryClient();
  return {
    accept: useMutation({
      mutationFn: (previewId: string) => api.post<ExchangeImportReply>(`/exchange/imports/${id}/accept`, { previewId }),
      onSuccess: (begun) => {
        keepReply(client, ['exchange', id], begun);
        return client.invalidateQueries({ queryKey: ['exchange'], exact: true });
      },
      onError: () => client.invalidateQueries({ queryKey: ['exchange', id] }),
    }),
    discard: useMutation({
      mutationFn: () => api.remove(`/exchange/imports/${id}`),
      onSuccess: () => client.invalidateQueries({ queryKey: ['exchange'], exact: true }),
    }),
  };
}

/** Calls back once a zip that was being imported no longer is; it is felt on every screen. */
export function useImported(zip: ExchangeImportReply | undefined, onImported: (zip: ExchangeImportReply) => void) {
  const client = useQueryClient();
  useWhenOver(zip !== undefined && isBeingImported(zip), () => {
    void client.invalidateQueries();
    if (zip?.status === 'accepted') onImported(zip);
  });
}
