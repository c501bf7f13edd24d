import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type { AuditReply } from '#contract/audit';
import { api } from '../shell/api';
import { keepReply } from '../shell/keep-reply';
import { useRefreshCounts } from '../shell/scope';
import { useInPeopleOrder } from '../ui/people-order';

export function useAudit(periodId: number) {
  const inOrder = useInPeopleOrder();
  return useQuery({
    queryKey: ['audit', periodId],
    queryFn: () => api.get<AuditReply>(`/audit?period=${periodId}`),
    select: useCallback(
      ({ run, ...audit }: AuditReply): AuditReply => ({
        ...audit,
        run: run && { ...run, findings: inOrder(run.findings, 'student') },
      }),
      [inOrder],
    ),
  });
}

export function useRunAudit(periodId: number) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  return useMutation({
    mutationFn: () => api.post<AuditReply>('/audit/runs', { periodId }),
    onSuccess: (audit) => {
      refreshCounts();
      keepReply(client, ['audit', periodId], audit);
    },
  });
}
