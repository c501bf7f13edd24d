import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { DemoPersonReply, SessionReply, SignInRequest } from '#contract/people';
import { setDistrictZone } from '../ui/format';
import { setReader } from '../ui/reader';
import { api, ProblemError, setCsrfToken } from './api';

const sessionKey = ['session'];

function begin(session: SessionReply): SessionReply {
  setCsrfToken(session.csrfToken);
  setDistrictZone(session.timeZone);
  setReader(session.person.personId);
  return session;
}

/** Who is signed in; null for nobody. */
export function useSession() {
  return useQuery({
    queryKey: sessionKey,
    staleTime: Infinity,
    queryFn: async () => {
      try {
        return begin(await api.get<SessionReply>('/session'));
      } catch (error) {
        if (error instanceof ProblemError && error.problem.status === 401) return null;
        throw error;
      }
    },
  });
}

export function useSignIn() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: SignInRequest) => api.post<SessionReply>('/session', request),
    onSuccess: (session) => {
      client.clear();
      client.setQueryData(sessionKey, begin(session));
    },
  });
}

export function useSignOut() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => api.remove('/session'),
    onSuccess: () => {
      client.clear();
      client.setQueryData(sessionKey, null);
    },
  });
}

export function useDemoPeople() {
  return useQuery({ queryKey: ['demo-people'], queryFn: () => api.get<DemoPersonReply[]>('/session/demo-people') });
}
