import { useState } from 'react';
import { Navigate } from 'react-router';
import { ProblemError } from '../shell/api';
import { useDemoPeople, useSession, useSignIn } from '../shell/session';
import { Button } from '../ui/button';
import { TextField } from '../ui/field';

/** The way in. While demo data is loaded, the people of the demo are listed to choose from. */
export function SignInPage() {
  const { data: session } = useSession();
  const { data: demoPeople = [] } = useDemoPeople();
  const signIn = useSignIn();
  const [request, setRequest] = useState({ username: '', password: '' });
  const problem = signIn.error instanceof ProblemError ? signIn.error : undefined;
  const set = (change: Partial<typeof request>) => setRequest({ ...request, ...change });
  if (session) return <Navigate to="/" replace />;
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
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          signIn.mutate(request);
        }}
        className="w-[340px] space-y-4 rounded-md border border-hairline bg-surface p-7"
      >
        <TextField
          label="Sign-in name"
          autoComplete="username"
          autoFocus
          value={request.username}
          fault={problem?.fault('username')}
          onChange={({ target }) => set({ username: target.value })}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          value={request.password}
          fault={problem?.fault('password')}
          onChange={({ target }) => set({ password: target.value })}
        />
        {problem && (
          <p role="alert" className="text-waratah">
            {problem.problem.detail}
          </p>
        )}
        <Button look="main" type="submit" disabled={signIn.isPending} className="w-full justify-center">
          Sign in
        </Button>
      </form>
    </main>
  );
}
