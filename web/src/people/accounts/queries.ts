import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Grant } from '#core/access';
import type { AccountReply, AccountsReply, LinkReply, SentLinksReply } from '#contract/people';
import { api } from '../../shell/api';
import { keepReply } from '../../shell/keep-reply';
import { showProblem } from '../../shell/show-problem';

const accountsKey = (schoolId: number) => ['accounts', schoolId];

/** The accounts of a school's staff. */
export function useAccounts(schoolId: number) {
  return useQuery({
    queryKey: accountsKey(schoolId),
    queryFn: () => api.get<AccountsReply>(`/schools/${schoolId}/accounts`),
  });
}

/** Writes messages with links: an invitation, or for another password. */
export function useSendLinks(schoolId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (personIds: readonly number[]) =>
      api.post<SentLinksReply>(`/schools/${schoolId}/accounts/links`, { personIds }),
    onSuccess: (reply) => {
      keepReply<AccountsReply>(client, accountsKey(schoolId), reply);
      void client.invalidateQueries({ queryKey: ['mails'] });
    },
    onError: showProblem,
  });
}

/** Other roles, or in and out. */
export function useChangeAccount(schoolId: number, { personId, revision, grants, state }: AccountReply) {
  const client = useQueryClient();
  const now = { revision, grants, isActive: state !== 'deactivated' };
  return useMutation({
    mutationFn: (change: { readonly grants?: readonly Grant[]; readonly isActive?: boolean }) =>
      api.put<AccountsReply>(`/schools/${schoolId}/accounts/${personId}`, { ...now, ...change }),
    onSuccess: (reply) => keepReply(client, accountsKey(schoolId), reply),
    onError: (error) => {
      showProblem(error);
      void client.invalidateQueries({ queryKey: accountsKey(schoolId) });
    },
  });
}

/** Whose password a link sets; asked once, as the answer may be that it is gone. */
export function useLink(token: string) {
  return useQuery({
    queryKey: ['link', token],
    staleTime: Infinity,
    retry: false,
    queryFn: () => api.post<LinkReply>('/session/link', { token }),
  });
}
