import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { PersonReply, SessionReply } from '#contract/people';
import { useSignIn } from '../shell/session';
import { noteSession, useSessionState } from '../shell/session-state';
import { Dialog } from '../ui/dialog';
import { SignInByPasskey } from './passkeys/sign-in-by-passkey';
import { SignInForm } from './sign-in-form';

/** Over the page of somebody whose session ended: the way to go on with it, and with what was typed. */
export function SignInAgain({ person }: { person: PersonReply }) {
  const hasEnded = useSessionState(({ state }) => state === 'ended');
  const [request, setRequest] = useState({ username: '', password: '' });
  const signIn = useSignIn();
  const navigate = useNavigate();
  const onChange = (next: typeof request) => {
    setRequest(next);
    if (signIn.isError) signIn.reset();
  };
  const goOn = (session: SessionReply) => {
    setRequest({ username: '', password: '' });
    if (session.person.personId !== person.personId) void navigate('/');
  };
  return (
    <Dialog
      isOpen={hasEnded}
      onOpenChange={(isOpen) => noteSession(isOpen ? 'ended' : 'lasts')}
      title="Your session has ended"
      description={`Sign in again, ${person.name}, to go on where you are. What you typed is still here and not saved.`}
      savesAtOnce
    >
      <SignInForm
        signIn={signIn}
        request={request}
        onChange={onChange}
        onSubmit={() => signIn.mutate(request, { onSuccess: goOn })}
      />
      <SignInByPasskey onSuccess={goOn} />
    </Dialog>
  );
}
