import { startAuthentication } from '@simplewebauthn/browser';
import { useMutation, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import type {
  ChangePasswordRequest,
  DemoPersonReply,
  PasskeyOptionsReply,
  SessionReply,
  SignInRequest,
  UseLinkRequest,
} from '#contract/people';
import { usualView } from '#core/people';
import { setDistrictZone } from '../ui/format';
import { setReader } from '../ui/reader';
import { api, ProblemError, setCsrfToken } from './api';
import { closeDrawer } from './drawer-store';
import { showDraftsOf } from './kept-drafts';
import { borrowOwnView, followOwnView } from './kept-view';
import { notePause } from './session-pause';
import { noteSession, tellOtherTabs } from './session-state';

const sessionKey = ['session'];

/** From now on the screen is that person's. */
function begin(session: SessionReply): SessionReply {
  const { personId } = session.person;
  const isOwn = !session.seenBy;
  setCsrfToken(session.csrfToken);
  setDistrictZone(session.timeZone);
  setReader(personId);
  // What somebody typed and did not save is nobody else's to see.
  showDraftsOf(isOwn ? personId : 0);
  if (isOwn) followOwnView(session.view);
  else borrowOwnView(session.view);
  notePause(session.pauseSeconds);
  noteSession('lasts');
  tellOtherTabs(personId);
  return session;
}

/** From now on it is nobody's: nothing of the person before is left on it or in memory. */
function end(client: QueryClient): void {
  notePause(null);
  noteSession('left');
  setCsrfToken('');
  closeDrawer();
  toast.dismiss();
  client.setQueryData(sessionKey, null);
  forgetAnswers(client);
  showDraftsOf(0);
  setReader(0);
  borrowOwnView(usualView);
  tellOtherTabs(0);
}

/** All that the server told somebody, but for who is signed in now. */
function forgetAnswers(client: QueryClient): void {
  client.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== sessionKey[0] });
  client.getMutationCache().clear();
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
  return useBegin((request: SignInRequest) => api.post<SessionReply>('/session', request));
}

/** Signs in by a key that this device has. */
export function useSignInByPasskey() {
  return useBegin(async () => {
    const optionsJSON = await api.post<PasskeyOptionsReply>('/session/passkey/options');
    return api.post<SessionReply>('/session/passkey', { response: await startAuthentication({ optionsJSON }) });
  });
}

/** Chooses a password by a link, and signs in with it. */
export function useUseLink() {
  return useBegin((request: UseLinkRequest) => api.put<SessionReply>('/session/link', request));
}

/** Changes one's own password; the session goes on as another one. */
export function useChangeOwnPassword() {
  return useBegin((request: ChangePasswordRequest) => api.put<SessionReply>('/session/password', request));
}

/** Whoever was signed in before and signs in again goes on where they were; for anybody else everything begins anew. */
function useBegin<Request>(send: (request: Request) => Promise<SessionReply>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (session: SessionReply) => {
      const before = client.getQueryData<SessionReply | null>(sessionKey);
      client.setQueryData(sessionKey, begin(session));
      if (before?.person.personId === session.person.personId) void client.invalidateQueries();
      else forgetAnswers(client);
    },
  });
}

/** From now on one sees what somebody else sees, or what is one's own again. */
export function useSeeAs() {
  return useBegin((personId: number | null) =>
    personId === null
      ? api.remove<SessionReply>('/session/seeing')
      : api.post<SessionReply>('/session/seeing', { personId }),
  );
}

export function useSignOut() {
  const client = useQueryClient();
  return useMutation({ mutationFn: () => api.remove('/session'), onSuccess: () => end(client) });
}

export function useDemoPeople() {
  return useQuery({ queryKey: ['demo-people'], queryFn: () => api.get<DemoPersonReply[]>('/session/demo-people') });
}
