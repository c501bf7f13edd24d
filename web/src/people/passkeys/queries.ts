import { browserSupportsWebAuthn, startRegistration, WebAuthnError } from '@simplewebauthn/browser';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { NewPasskeyOptionsReply, PasskeyReply } from '#contract/people';
import { api, ProblemError } from '../../shell/api';

const key = ['passkeys'];

/** Whether this browser has passkeys, for a site that has a name: they are bound to it, and a bare address is none. */
export function canUsePasskeys(): boolean {
  return browserSupportsWebAuthn() && !/^[\d.]+$|:/.test(window.location.hostname);
}

/** The keys of one's own devices. */
export function usePasskeys() {
  return useQuery({ queryKey: key, queryFn: () => api.get<PasskeyReply[]>('/session/passkeys') });
}

/** Has this device make a key, which the server keeps what is public of. */
export function useAddPasskey() {
  return useKeysAfter(async (name: string) => {
    const optionsJSON = await api.post<NewPasskeyOptionsReply>('/session/passkeys/options');
    return api.post<PasskeyReply[]>('/session/passkeys', { name, response: await startRegistration({ optionsJSON }) });
  });
}

export function useRemovePasskey() {
  return useKeysAfter((id: number) => api.remove<PasskeyReply[]>(`/session/passkeys/${id}`));
}

function useKeysAfter<Given>(change: (given: Given) => Promise<PasskeyReply[]>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: change, onSuccess: (reply) => client.setQueryData(key, reply) });
}

/** Why a device did not do what it was asked, in a sentence. */
export function sayPasskeyError(error: unknown): string {
  if (error instanceof ProblemError) return error.problem.detail;
  if (error instanceof WebAuthnError && error.code === 'ERROR_AUTHENTICATOR_PREVIOUSLY_REGISTERED')
    return 'This device has a passkey for your account already.';
  return 'The device did not answer, or it was cancelled. Nothing was changed; try again.';
}
