import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { PeriodReply, SchoolReply, TermLineReply } from '#contract/calendar';
import { api } from './api';

export function useSchools() {
  return useQuery({ queryKey: ['schools'], staleTime: Infinity, queryFn: () => api.get<SchoolReply[]>('/schools') });
}

export function useTermLine(schoolId: number) {
  return useQuery({
    queryKey: ['term-line', schoolId],
    queryFn: () => api.get<TermLineReply>(`/schools/${schoolId}/term-line`),
    refetchInterval: 60_000,
  });
}

/** Everything that counts what is posted, found or sealed is asked for again. */
export function useRefreshCounts(): () => void {
  const client = useQueryClient();
  return useCallback(() => {
    for (const key of ['term-line', 'sheets', 'board', 'audit', 'readiness', 'scales'])
      void client.invalidateQueries({ queryKey: [key] });
  }, [client]);
}

/** The school and period that the address names; every screen works on them. */
export function useScope(): { schoolId: number; periodId: number; path: (place: string) => string } {
  const params = useParams();
  const [schoolId, periodId] = [Number(params['schoolId']), Number(params['periodId'])];
  const path = useCallback((place: string) => `/school/${schoolId}/period/${periodId}/${place}`, [schoolId, periodId]);
  return { schoolId, periodId, path };
}

/** The chosen period with what is posted in it, once the term line is there. */
export function usePeriod(): { termLine: TermLineReply | undefined; period: PeriodReply | undefined } {
  const { schoolId, periodId } = useScope();
  const { data: termLine } = useTermLine(schoolId);
  return { termLine, period: termLine?.periods.find(({ id }) => id === periodId) };
}

/** Goes to another period on the same screen, with what is chosen on it as far as the other period has it. */
export function useChoosePeriod(): (periodId: number) => void {
  const navigate = useNavigate();
  const { schoolId } = useScope();
  const place = useParams()['*'] ?? '';
  return (periodId) => {
    const kept = new URLSearchParams(location.search);
    // What lies in one period only is left behind.
    for (const name of ['finding', 'student', 'period']) kept.delete(name);
    const view = location.pathname.split('/')[5] ?? place;
    void navigate(`/school/${schoolId}/period/${periodId}/${view}${kept.size > 0 ? `?${kept}` : ''}`);
  };
}
