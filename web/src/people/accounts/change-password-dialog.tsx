import { useState } from 'react';
import { toast } from 'sonner';
import { ProblemError } from '../../shell/api';
import { useChangeOwnPassword } from '../../shell/session';
import { showProblem } from '../../shell/show-problem';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { TextField } from '../../ui/field';
import { isChosen, PasswordFields, type NewPassword } from './password-fields';

interface ChangePasswordDialogProps {
  /** Of who is signed in. */
  readonly name: string;
  readonly onClose: () => void;
}

/** One's own password: the present one, and the new one twice. */
export function ChangePasswordDialog({ name, onClose }: ChangePasswordDialogProps) {
  const [current, setCurrent] = useState('');
  const [value, setValue] = useState<NewPassword>({ password: '', again: '' });
  const change = useChangeOwnPassword();
  const problem = change.error instanceof ProblemError ? change.error : undefined;
  const canSend = current !== '' && isChosen(value, [name]) && !change.isPending;
  const submit = () =>
    change.mutate(
      { current, password: value.password },
      {
        onSuccess: () => {
          toast.success('Your password is changed. Your other sessions have ended.');
          onClose();
        },
        onError: (error) => !(error instanceof ProblemError && error.problem.errors.length > 0) && showProblem(error),
      },
    );
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Change your password"
      footer={
        <>
          <Button look="main" writes={false} type="submit" form="change-password" disabled={!canSend}>
            Change it
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <form
        id="change-password"
        noValidate
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (canSend) submit();
        }}
      >
        <TextField
          label="Present password"
          type="password"
          autoComplete="current-password"
          autoFocus
          value={current}
          fault={problem?.fault('current')}
          onChange={({ target }) => setCurrent(target.value)}
        />
        <PasswordFields value={value} known={[name]} fault={problem?.fault('password')} onChange={setValue} />
      </form>
    </Dialog>
  );
}
