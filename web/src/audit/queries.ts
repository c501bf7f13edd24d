import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef } from 'react';
import type {
  AssigneeReply,
  AuditProgressReply,
  AuditReply,
  CertifyRequest,
  CourseCertificatesReply,
  DistributionsReply,
  SeenFindingsRequest,
  FindingReply,
  GoneFindingReply,
  MendReply,
  MendRequest,
  NoteFindingsRequest,
  SendFindingsReply,
  SendFindingsRequest,
  WaiveRequest,
} from '#contract/audit';
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
        run: run && {
          ...run,
          findings: inOrder(
            run.findings.map((finding) => ({ ...finding, student: finding.student ?? '' })),
            'student',
          ).map((finding) => ({ ...finding, subject: finding.student || finding.subject })),
        },
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
    // Somebody else settled something meanwhile: what is so now is shown.
    onError: () => client.invalidateQueries({ queryKey: ['audit', periodId] }),
  });
}

const progressKey = (periodId: number) => ['audit-progress', periodId];

/** How often it is asked how far an audit is, in milliseconds: while one is under way, and whether somebody else began one. */
const [soon, later] = [400, 15_000];

/** How far the audit of a period is, whoever began it. What it found is asked for once another one is done. */
export function useAuditProgress(periodId: number) {
  const refreshCounts = useRefreshCounts();
  const { data } = useQuery({
    queryKey: progressKey(periodId),
    queryFn: () => api.get<AuditProgressReply>(`/audit/progress?period=${periodId}`),
    refetchInterval: ({ state }) => (state.data?.task?.state === 'running' ? soon : later),
  });
  const runId = data?.runId;
  const known = useRef(runId);
  useEffect(() => {
    if (known.current !== undefined && known.current !== runId) refreshCounts();
    known.current = runId;
  }, [runId, refreshCounts]);
  return data?.task ?? null;
}

/** What begins or stops an audit answers how far it is then. */
function useSteerAudit(periodId: number, send: () => Promise<AuditProgressReply>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (reply) => keepReply(client, progressKey(periodId), reply),
  });
}

export function useStartAudit(periodId: number) {
  return useSteerAudit(periodId, () => api.post<AuditProgressReply>('/audit/runs', { periodId }));
}

export function useStopAudit(periodId: number) {
  return useSteerAudit(periodId, () => api.remove<AuditProgressReply>(`/audit/runs?period=${periodId}`));
}

/** Which courses are certified by themselves, and how far the others are from it. */
export function useCourseCertificates(periodId: number) {
  return useQuery({
    queryKey: ['audit', periodId, 'courses'],
    queryFn: () => api.get<CourseCertificatesReply>(`/audit/certificates?period=${periodId}`),
  });
}

/** Closes the audit with a certificate. */
export function useCertify(periodId: number) {
  return useAuditMutation(periodId, (certificate: Omit<CertifyRequest, 'periodId'>) =>
    api.post<AuditReply>('/audit/certificates', { periodId, ...certificate }),
  );
}

export interface SheetOfPeriod {
  readonly periodId: number;
  readonly sectionId: number;
  readonly itemId: number;
}

export function useDistributions({ periodId, sectionId, itemId }: SheetOfPeriod) {
  return useQuery({
    queryKey: ['distributions', periodId, sectionId, itemId],
    queryFn: () =>
      api.get<DistributionsReply>(`/audit/distributions?period=${periodId}&section=${sectionId}&item=${itemId}`),
  });
}

/** A request about findings of the period that is looked at. */
type Of<Request> = Omit<Request, 'periodId' | 'findings'> & { readonly findings: readonly FindingReply[] };

const keyOf = ({ ruleId, enrollmentId, sectionId, courseId, itemId }: FindingReply) => ({
  ruleId,
  enrollmentId,
  sectionId,
  courseId,
  itemId,
});

const waivedOf = (finding: FindingReply) => ({ ...keyOf(finding), revision: finding.waiverRevision });

export function useWaive(periodId: number) {
  return useAuditMutation(periodId, ({ findings, ...decision }: Of<WaiveRequest>) =>
    api.put<AuditReply>('/audit/waivers', { periodId, findings: findings.map(waivedOf), ...decision }),
  );
}

export function useEndWaivers(periodId: number) {
  return useAuditMutation(periodId, ({ findings }: Of<SeenFindingsRequest>) =>
    api.post<AuditReply>('/audit/waivers/end', { periodId, findings: findings.map(waivedOf) }),
  );
}

/** What the run before found and the last one did not. */
export function useGoneFindings(periodId: number) {
  return useQuery({
    queryKey: ['audit', 'gone', periodId],
    queryFn: () => api.get<GoneFindingReply[]>(`/audit/gone?period=${periodId}`),
  });
}

/** Who may be given a finding of the period. */
export function useAssignees(periodId: number) {
  return useQuery({
    queryKey: ['assignees', periodId],
    queryFn: () => api.get<AssigneeReply[]>(`/audit/assignees?period=${periodId}`),
  });
}

export function useNoteFindings(periodId: number) {
  return useAuditMutation(periodId, ({ findings, ...says }: Of<NoteFindingsRequest>) => {
    const noted = findings.map((finding) => ({ ...keyOf(finding), revision: finding.noteRevision }));
    return api.put<AuditReply>('/audit/notes', { periodId, findings: noted, ...says });
  });
}

/** What rules would set right of some findings, as the grades are now. */
export function useMendPreview(periodId: number, findings: readonly FindingReply[], takesBackSignOffs: boolean) {
  return useQuery({
    queryKey: ['mending', periodId, findings.map(({ key }) => key), takesBackSignOffs],
    gcTime: 0,
    placeholderData: keepPreviousData,
    queryFn: () => api.post<MendReply>('/audit/mend', { periodId, findings: findings.map(keyOf), takesBackSignOffs }),
  });
}

/** What teachers would be told of some findings. */
export function useSendPreview(periodId: number, findings: readonly FindingReply[], note: string) {
  return useQuery({
    queryKey: ['findings-messages', periodId, findings.map(({ key }) => key), note],
    gcTime: 0,
    placeholderData: keepPreviousData,
    queryFn: () => api.post<SendFindingsReply>('/audit/messages', { periodId, findings: findings.map(keyOf), note }),
  });
}

export function useSendFindings(periodId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ findings, ...request }: Of<SendFindingsRequest> & { readonly fingerprint: string }) =>
      api.post<SendFindingsReply>('/audit/messages', { periodId, findings: findings.map(keyOf), ...request }),
    onSuccess: () => {
      for (const key of ['audit', 'mails']) void client.invalidateQueries({ queryKey: [key] });
    },
    // What changed meanwhile is looked at before it is sent.
    onError: () => client.invalidateQueries({ queryKey: ['findings-messages'] }),
  });
}

/** Sets right what was looked at; afterwards everything is asked for anew. */
export function useMend(periodId: number) {
  const client = useQueryClient();
  const refreshCounts = useRefreshCounts();
  return useMutation({
    mutationFn: ({ findings, ...request }: Of<MendRequest> & { readonly fingerprint: string }) =>
      api.post<MendReply>('/audit/mend', { periodId, findings: findings.map(keyOf), ...request }),
    onSuccess: async () => {
      refreshCounts();
      await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'mending' });
    },
    // What was looked at is no longer so: it is looked at anew.
    onError: () => client.invalidateQueries({ queryKey: ['mending'] }),
  });
}
