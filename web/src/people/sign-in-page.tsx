import { useState } from 'react';
import { Navigate, useLocation } from 'react-router';
import { useDemoPeople, useSession, useSignIn } from '../shell/session';
import { Button } from '../ui/button';
import { ForgottenPassword } from './forgotten-password';
import { SignInByPasskey } from './passkeys/sign-in-by-passkey';
import { SignInForm } from './sign-in-form';

/**
 * The way in, and back to where one was when it was asked for. While demo data is loaded, the people of the demo are listed to
 * choose from.
 */
export function SignInPage() {
  const { data: session } = useSession();
  const { data: demoPeople = [] } = useDemoPeople();
  const signIn = useSignIn();
  const [isForgotten, setForgotten] = useState(false);
  const [request, setRequest] = useState({ username: '', password: '' });
  const from = (useLocation().state as { readonly from?: string } | null)?.from;
  if (session) return <Navigate to={from ?? '/'} replace />;
  return (
    <main className="mx-auto flex min-h-dvh max-w-[860px] items-center gap-14 px-8 py-10">
      <div className="flex-1">
        <img src="/mark.svg" alt="" width={52} height={52} />
        <h1 className="mt-5 text-[26px] leading-tight font-bold">Wombat</h1>
        <p className="mt-2 max-w-[320px] text-[16px] text-pretty text-quiet">
          Scales, report items, posted grades, their audit and the transcripts they are sealed into.
        </p>
        {demoPeople.length > 0 && (
          <section className="mt-8">
            <h2 className="font-bold">People of the demo district</h2>
            <ul className="mt-2 space-y-2">
              {demoPeople.map(({ username, password, name, does }) => (
                <li key={username}>
                  <button
                    type="button"
                    onClick={() => {
                      setRequest({ username, password });
                      signIn.mutate({ username, password });
                    }}
                    className="w-full rounded-md border border-hairline bg-surface px-4 py-2.5 text-left hover:border-control"
                  >
                    <span className="font-semibold">{name}</span>
                    <span className="block text-[13px] text-quiet">{does}</span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
      {isForgotten ? (
        <ForgottenPassword name={request.username} onBack={() => setForgotten(false)} />
      ) : (
        <div className="w-[340px] rounded-md border border-hairline bg-surface p-7">
          <SignInForm signIn={signIn} request={request} onChange={setRequest} onSubmit={() => signIn.mutate(request)} />
          <SignInByPasskey />
          <Button look="quiet" className="mt-2 w-full justify-center" onClick={() => setForgotten(true)}>
            Forgotten password?
          </Button>
        </div>
      )}
    </main>
  );
}
