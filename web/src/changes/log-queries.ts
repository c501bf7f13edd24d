import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { addDays, parseDay } from '#core/calendar';
import type { LogCheckReply, LogReply } from '#contract/changes';
import { api } from '../shell/api';
import { keepReply } from '../shell/keep-reply';
import { showProblem } from '../shell/show-problem';
import { instantOfLocal } from '../ui/day/zone-time';

/** How often a check that is under way is asked how far it is. */
const progressMilliseconds = 500;

/** What the server is asked for, from what the page's address says: days are days of the district, both included. */
export function logFilterOf(search: URLSearchParams): URLSearchParams {
  const filter = new URLSearchParams();
  const set = (name: string, value: string | null | undefined) => value && filter.set(name, value);
  set('text', search.get('text'));
  set('thing', search.get('thing'));
  set('personId', search.get('who'));
  const [from, to] = [search.get('from'), search.get('to')].map((day) => (day ? parseDay(day) : undefined));
  set('from', from && instantOfLocal(`${from}T00:00`));
  set('until', to && instantOfLocal(`${addDays(to, 1)}T00:00`));
  return filter;
}

/** The log, from its newest entries on. */
export function useLog(filter: URLSearchParams) {
  return useInfiniteQuery({
    queryKey: ['log', filter.toString()],
    initialPageParam: '',
    queryFn: ({ pageParam }) => api.get<LogReply>(`/log?${filter.toString()}${pageParam}`),
    getNextPageParam: ({ entries, hasMore }) => (hasMore ? `&before=${entries.at(-1)!.id}` : undefined),
  });
}

export function useLogCheck() {
  return useQuery({
    queryKey: ['log-check'],
    queryFn: () => api.get<LogCheckReply>('/log/check'),
    refetchInterval: ({ state: { data } }) =>
      data?.state === 'checking' || data?.state === 'waiting' ? progressMilliseconds : false,
  });
}

export function useStartLogCheck() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => api.post<LogCheckReply>('/log/check', {}),
    onSuccess: (state) => keepReply(client, ['log-check'], state),
    onError: showProblem,
  });
}
