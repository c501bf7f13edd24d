import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { ProblemError } from '../../shell/api';
import { useUseLink } from '../../shell/session';
import { Button } from '../../ui/button';
import { isChosen, PasswordFields, type NewPassword } from './password-fields';
import { useLink } from './queries';

/** Where a message leads: a password is chosen, and one is signed in. */
export function WelcomePage() {
  const token = useParams()['token'] ?? '';
  const link = useLink(token);
  const { data, error } = link;
  const gone = error instanceof ProblemError ? error.problem : undefined;
  return (
    <main className="mx-auto flex min-h-dvh max-w-[440px] flex-col justify-center px-8 py-10">
      <img src="/mark.svg" alt="" width={52} height={52} />
      {data ? (
        <ChoosePassword token={token} {...data} />
      ) : (
        <>
          <h1 className="mt-5 text-[22px] font-bold">
            {gone?.title ?? (error ? 'Wombat cannot be reached' : 'Opening the link')}
          </h1>
          {error && <p className="mt-2 text-quiet">{gone?.detail ?? 'Nothing was changed. Try again in a moment.'}</p>}
          {error && (
            <p className="mt-4 flex gap-3">
              {!gone && (
                <Button look="main" onClick={() => void link.refetch()}>
                  Try again
                </Button>
              )}
              <Link to="/sign-in" className="self-center font-semibold text-eucalypt hover:underline">
                Sign in
              </Link>
            </p>
          )}
        </>
      )}
    </main>
  );
}

interface ChoosePasswordProps {
  readonly token: string;
  readonly name: string;
  readonly username: string;
  readonly isFirst: boolean;
}

function ChoosePassword({ token, name, username, isFirst }: ChoosePasswordProps) {
  const [value, setValue] = useState<NewPassword>({ password: '', again: '' });
  const use = useUseLink();
  const navigate = useNavigate();
  const known = [name, username];
  const problem = use.error instanceof ProblemError ? use.error : undefined;
  return (
    <>
      <h1 className="mt-5 text-[22px] leading-tight font-bold">
        {isFirst ? `Welcome, ${name}` : `Another password for ${name}`}
      </h1>
      <p className="mt-2 text-quiet">
        Your sign-in name is <b className="text-ink">{username}</b>.
      </p>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          if (isChosen(value, known) && !use.isPending)
            use.mutate({ token, password: value.password }, { onSuccess: () => void navigate('/', { replace: true }) });
        }}
        className="mt-5 space-y-4 rounded-md border border-hairline bg-surface p-7"
      >
        <input type="hidden" autoComplete="username" value={username} readOnly />
        <PasswordFields value={value} known={known} fault={problem?.fault('password')} onChange={setValue} />
        {problem && problem.problem.errors.length === 0 && (
          <p role="alert" className="text-waratah">
            {problem.problem.detail}
          </p>
        )}
        <Button
          look="main"
          type="submit"
          disabled={!isChosen(value, known) || use.isPending}
          className="w-full justify-center"
        >
          {isFirst ? 'Choose it and sign in' : 'Change it and sign in'}
        </Button>
      </form>
    </>
  );
}
