import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { AuditReply } from '#contract/audit';
import { api } from '../shell/api';
import { useRefreshCounts } from '../shell/scope';

export function useAudit(periodId: number) {
  return useQuery({ queryKey: ['audit', periodId], queryFn: () => api.get<AuditReply>(`/audit?period=${periodId}`) });
}

export function useRunAudit(periodId: number) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  return useMutation({
    mutationFn: () => api.post<AuditReply>('/audit/runs', { periodId }),
    onSuccess: (audit) => {
      refreshCounts();
      client.setQueryData(['audit', periodId], audit);
    },
  });
}
