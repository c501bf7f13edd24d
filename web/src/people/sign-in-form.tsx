import type { SignInRequest } from '#contract/people';
import { ProblemError } from '../shell/api';
import type { useSignIn } from '../shell/session';
import { Button } from '../ui/button';
import { TextField } from '../ui/field';

interface SignInFormProps {
  /** How the last try went. */
  readonly signIn: Pick<ReturnType<typeof useSignIn>, 'error' | 'isPending'>;
  readonly request: SignInRequest;
  readonly onChange: (request: SignInRequest) => void;
  readonly onSubmit: () => void;
  readonly className?: string;
}

/** A name and a password, and what is wrong with them. */
export function SignInForm({ signIn, request, onChange, onSubmit, className = '' }: SignInFormProps) {
  const problem = signIn.error instanceof ProblemError ? signIn.error : undefined;
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        onSubmit();
      }}
      className={`space-y-4 ${className}`}
    >
      <TextField
        label="Sign-in name"
        autoComplete="username"
        autoFocus
        value={request.username}
        fault={problem?.fault('username')}
        onChange={({ target }) => onChange({ ...request, username: target.value })}
      />
      <TextField
        label="Password"
        type="password"
        autoComplete="current-password"
        value={request.password}
        fault={problem?.fault('password')}
        onChange={({ target }) => onChange({ ...request, password: target.value })}
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
  );
}
