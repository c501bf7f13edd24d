import { keepPreviousData, useIsMutating, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { isFileUnderWay } from '#core/files';
import type {
  ChooseColumnsRequest,
  FileImportReply,
  FileImportSummaryReply,
  FileRowsQuery,
  FileRowsReply,
  ReadAgainRequest,
} from '#contract/files';
import { api } from '../shell/api';
import { keepReply } from '../shell/keep-reply';
import { useRefreshCounts } from '../shell/scope';

/** How often a file under way is asked how far it is. */
const progressMilliseconds = 1_000;

const fileKey = (id: number) => ['file', id];
const choiceKey = (id: number) => ['what a file is', id];

/** Whether a choice of what the file is was made and not yet answered: what the page shows is of the one before. */
export function useIsChoosing(id: number): boolean {
  return useIsMutating({ mutationKey: choiceKey(id) }) > 0;
}

export function useFiles(periodId: number) {
  return useQuery({
    queryKey: ['files', periodId],
    queryFn: () => api.get<FileImportSummaryReply[]>(`/file-imports?period=${periodId}`),
    refetchInterval: ({ state: { data } }) =>
      data?.some(({ status }) => isFileUnderWay(status)) ? progressMilliseconds : false,
  });
}

export function useFile(id: number) {
  return useQuery({
    queryKey: fileKey(id),
    queryFn: () => api.get<FileImportReply>(`/file-imports/${id}`),
    refetchInterval: ({ state: { data } }) => (data && isFileUnderWay(data.status) ? progressMilliseconds : false),
  });
}

/** The lines of a file's ledger that a filter lets through. */
export function useFileRows({ id, plan }: FileImportReply, show: FileRowsQuery['show']) {
  return useQuery({
    queryKey: ['file-rows', id, plan?.number, show],
    queryFn: () => api.get<FileRowsReply>(`/file-imports/${id}/rows${show ? `?show=${show}` : ''}`),
    placeholderData: keepPreviousData,
  });
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
      keepReply(client, fileKey(file.id), file);
      return client.invalidateQueries({ queryKey: ['files'] });
    },
  });
}

/** What can be done with a file; each answers with the file as it is then. */
export function useFileActions(id: number) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  const onSuccess = (file: FileImportReply) => {
    keepReply(client, fileKey(id), file);
    void client.invalidateQueries({ queryKey: ['files'] });
    void client.invalidateQueries({ queryKey: ['sheet'] });
    refreshCounts();
  };
  const onError = () => client.invalidateQueries({ queryKey: fileKey(id) });
  const show = (choice: Partial<FileImportReply>) =>
    keepReply<FileImportReply>(client, fileKey(id), (file) => file && { ...file, ...choice });
  // Choices are sent one after the other, each upon the one before; what was chosen since stays on the page.
  const choices = {
    mutationKey: choiceKey(id),
    scope: { id: `file ${id}` },
    onSuccess: (file: FileImportReply) => {
      if (client.isMutating({ mutationKey: choiceKey(id) }) <= 1) onSuccess(file);
    },
    onError,
  };
  return {
    choose: useMutation({
      ...choices,
      mutationFn: (choice: ChooseColumnsRequest) => api.put<FileImportReply>(`/file-imports/${id}/columns`, choice),
      onMutate: show,
    }),
    readAgain: useMutation({
      ...choices,
      mutationFn: (request: ReadAgainRequest) => api.post<FileImportReply>(`/file-imports/${id}/read-again`, request),
      onMutate: ({ sheet, headerRow }) => sheet === null && headerRow !== null && show({ headerRow }),
    }),
    accept: useMutation({
      mutationFn: (planNumber: number) => api.post<FileImportReply>(`/file-imports/${id}/accept`, { planNumber }),
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
