import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ProblemError } from '../shell/api';
import { Button } from '../ui/button';
import { TextField } from '../ui/field';

interface ForgottenPasswordProps {
  /** What was typed as a sign-in name. */
  readonly name: string;
  readonly onBack: () => void;
}

/** Asks for a message with a link by which to choose a new password. */
export function ForgottenPassword({ name: typed, onBack }: ForgottenPasswordProps) {
  const [name, setName] = useState(typed);
  const ask = useMutation({ mutationFn: () => api.post('/session/link/ask', { name: name.trim() }) });
  const problem = ask.error instanceof ProblemError ? ask.error : undefined;
  return (
    <form
      noValidate
      className="w-[340px] space-y-4 rounded-md border border-hairline bg-surface p-7"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() !== '' && !ask.isPending) ask.mutate();
      }}
    >
      <h2 className="text-[16px] font-bold">A new password</h2>
      {ask.isSuccess ? (
        <p role="status">
          If there is an account of that name with an e-mail address, a message is on its way. Its link works once, and
          for three days.
        </p>
      ) : (
        <>
          <TextField
            label="Sign-in name or e-mail"
            autoComplete="username"
            autoFocus
            value={name}
            fault={problem?.fault('name')}
            onChange={({ target }) => setName(target.value)}
          />
          {problem && problem.problem.errors.length === 0 && (
            <p role="alert" className="text-waratah">
              {problem.problem.detail}
            </p>
          )}
          <Button
            look="main"
            type="submit"
            disabled={name.trim() === '' || ask.isPending}
            className="w-full justify-center"
          >
            Send a link
          </Button>
        </>
      )}
      <Button look="quiet" className="w-full justify-center" onClick={onBack}>
        Back to sign in
      </Button>
    </form>
  );
}
