import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { CardTime, ReportCardReply } from '#contract/report-cards';
import { api } from '../shell/api';

export function useReportCard(studentId: number, periodId: number, when: CardTime) {
  return useQuery({
    queryKey: ['report-card', studentId, periodId, when],
    queryFn: () => api.get<ReportCardReply>(`/report-cards/${studentId}?period=${periodId}&when=${when}`),
    placeholderData: keepPreviousData,
  });
}
