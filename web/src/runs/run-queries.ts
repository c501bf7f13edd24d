import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  LastRunReply,
  NightlyRequest,
  PickRequest,
  PlanRunRequest,
  RunLetterReply,
  RunReply,
  RunRowsQuery,
  RunRowsReply,
  RunsReply,
} from '#contract/runs';
import { api } from '../shell/api';
import { keepReply } from '../shell/keep-reply';
import { useRefreshCounts } from '../shell/scope';
import { showProblem } from '../shell/show-problem';

/** How often a run under way is asked how far it is. */
const progressMilliseconds = 1_000;
/** And how often one may have begun that nobody here asked for. */
const restMilliseconds = 30_000;

export function useRuns(schoolId: number) {
  return useQuery({
    queryKey: ['runs', schoolId],
    queryFn: () => api.get<RunsReply>(`/runs?school=${schoolId}`),
    refetchInterval: ({ state: { data } }) =>
      data?.runs.some(({ state }) => state === 'working') ? progressMilliseconds : restMilliseconds,
  });
}

export function useRun(id: number) {
  return useQuery({
    queryKey: ['run', id],
    queryFn: () => api.get<RunReply>(`/runs/${id}`),
    refetchInterval: ({ state: { data } }) => (data?.state === 'working' ? progressMilliseconds : false),
  });
}

/** The lines of a ledger that a filter lets through; read again whenever the run has moved on. */
export function useRunRows({ id, stage, state, done }: RunReply, query: RunRowsQuery) {
  const asked = new URLSearchParams(Object.entries(query).map(([key, value]) => [key, String(value)]));
  return useQuery({
    queryKey: ['run-rows', id, asked.toString(), stage, state, state === 'working' ? done : 0],
    queryFn: () => api.get<RunRowsReply>(`/runs/${id}/rows?${asked}`),
    placeholderData: keepPreviousData,
  });
}

/** The last run that carried a section over. */
export function useLastRun(sectionId: number, periodId: number) {
  return useQuery({
    queryKey: ['last-run', sectionId, periodId],
    queryFn: async () =>
      (await api.get<{ last: LastRunReply | null }>(`/runs/last?section=${sectionId}&period=${periodId}`)).last,
  });
}

export function useRunLetters(runId: number) {
  return useQuery({
    queryKey: ['run-letters', runId],
    queryFn: () => api.get<RunLetterReply[]>(`/runs/${runId}/letters`),
  });
}

export function useWriteLetters(runId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => api.post<RunLetterReply[]>(`/runs/${runId}/letters`),
    onSuccess: () => client.invalidateQueries({ queryKey: ['mails'] }),
    onError: showProblem,
  });
}

export function usePlanRun() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: PlanRunRequest) => api.post<RunReply>('/runs', request),
    onSuccess: (run) => {
      keepReply(client, ['run', run.id], run);
      return client.invalidateQueries({ queryKey: ['runs'] });
    },
    onError: showProblem,
  });
}

/** How a platform runs by itself. */
export function usePlatformHabits(schoolId: number) {
  const client = useQueryClient();
  const onSuccess = (runs: RunsReply) => keepReply(client, ['runs', schoolId], runs);
  return {
    nightly: useMutation({
      mutationFn: ({ id, ...request }: NightlyRequest & { id: number }) =>
        api.put<RunsReply>(`/runs/of-platform/${id}/nightly`, request),
      onSuccess,
      onError: showProblem,
    }),
    defaultCategory: useMutation({
      mutationFn: ({ id, categoryId }: { id: number; categoryId: number | null }) =>
        api.put<RunsReply>(`/runs/of-platform/${id}/default-category`, { categoryId }),
      onSuccess,
      onError: showProblem,
    }),
  };
}

/** What can be done with a run; each answers with the run as it is then. */
export function useRunActions(id: number) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  const onSuccess = (run: RunReply) => {
    keepReply(client, ['run', id], run);
    for (const key of ['runs', 'run-rows', 'sheet', 'book', 'last-run'])
      void client.invalidateQueries({ queryKey: [key] });
    refreshCounts();
  };
  const step = (name: string) => ({
    mutationFn: () => api.post<RunReply>(`/runs/${id}/${name}`),
    onSuccess,
    onError: showProblem,
  });
  return {
    carryOut: useMutation(step('carry-out')),
    stop: useMutation(step('stop')),
    resume: useMutation(step('resume')),
    undo: useMutation(step('undo')),
    pick: useMutation({
      mutationFn: (request: PickRequest) => api.put<RunReply>(`/runs/${id}/picks`, request),
      onSuccess,
      onError: showProblem,
    }),
    discard: useMutation({
      mutationFn: () => api.remove(`/runs/${id}`),
      onSuccess: () => client.invalidateQueries({ queryKey: ['runs'] }),
      onError: showProblem,
    }),
  };
}
