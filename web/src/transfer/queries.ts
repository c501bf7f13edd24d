import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { ChooseColumnsRequest, FileImportReply, FileImportSummaryReply } from '#contract/transfer';
import { api } from '../shell/api';
import { useRefreshCounts } from '../shell/scope';

const fileKey = (id: number) => ['file', id];

export function useFiles(periodId: number) {
  return useQuery({
    queryKey: ['files', periodId],
    queryFn: () => api.get<FileImportSummaryReply[]>(`/file-imports?period=${periodId}`),
  });
}

export function useFile(id: number) {
  return useQuery({ queryKey: fileKey(id), queryFn: () => api.get<FileImportReply>(`/file-imports/${id}`) });
}

export function useReadFile(periodId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => {
      const body = new FormData();
      body.append('file', file);
      return api.post<FileImportReply>(`/file-imports?period=${periodId}`, body);
    },
    onSuccess: (file) => {
      client.setQueryData(fileKey(file.id), file);
      return client.invalidateQueries({ queryKey: ['files'] });
    },
  });
}

/** What can be done with a file; each answers with the file as it is then. */
export function useFileActions(id: number) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  const onSuccess = (file: FileImportReply) => {
    client.setQueryData(fileKey(id), file);
    void client.invalidateQueries({ queryKey: ['files'] });
    void client.invalidateQueries({ queryKey: ['sheet'] });
    refreshCounts();
  };
  const onError = () => client.invalidateQueries({ queryKey: fileKey(id) });
  return {
    choose: useMutation({
      mutationFn: (choice: ChooseColumnsRequest) => api.put<FileImportReply>(`/file-imports/${id}/columns`, choice),
      onSuccess,
    }),
    accept: useMutation({
      mutationFn: (previewId: string) => api.post<FileImportReply>(`/file-imports/${id}/accept`, { previewId }),
      onSuccess,
      onError,
    }),
    undo: useMutation({ mutationFn: () => api.post<FileImportReply>(`/file-imports/${id}/undo`), onSuccess }),
    discard: useMutation({
      mutationFn: () => api.remove(`/file-imports/${id}`),
      onSuccess: () => client.invalidateQueries({ queryKey: ['files'] }),
    }),
  };
}
