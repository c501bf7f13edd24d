import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type { AuditReply, EndWaiversRequest, WaiveRequest } from '#contract/audit';
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

/** What answers with the audit as it is from then on. */
function useAuditMutation<Request>(periodId: number, send: (request: Request) => Promise<AuditReply>) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  return useMutation({
    mutationFn: send,
    onSuccess: (audit) => {
      refreshCounts();
      keepReply(client, ['audit', periodId], audit);
    },
  });
}

export function useRunAudit(periodId: number) {
  return useAuditMutation<void>(periodId, () => api.post<AuditReply>('/audit/runs', { periodId }));
}

export function useWaive(periodId: number) {
  return useAuditMutation(periodId, (request: Omit<WaiveRequest, 'periodId'>) =>
    api.put<AuditReply>('/audit/waivers', { periodId, ...request }),
  );
}

export function useEndWaivers(periodId: number) {
  return useAuditMutation(periodId, (request: Omit<EndWaiversRequest, 'periodId'>) =>
    api.post<AuditReply>('/audit/waivers/end', { periodId, ...request }),
  );
}
