import { passwordFault } from '#core/people';
import { passwordFaultSentences } from '#contract/people';
import { TextField } from '../../ui/field';

export interface NewPassword {
  readonly password: string;
  readonly again: string;
}

interface PasswordFieldsProps {
  readonly value: NewPassword;
  /** What everybody knows of who chooses it. */
  readonly known: readonly string[];
  /** What the server says is wrong with it. */
  readonly fault: string | undefined;
  readonly onChange: (value: NewPassword) => void;
}

/** Whether a password can be sent: it is none that is guessed first, and was typed the same twice. */
export function isChosen({ password, again }: NewPassword, known: readonly string[]): boolean {
  return password === again && passwordFault(password, known) === undefined;
}

/** A new password, typed twice; what would be right is said as soon as something is typed. */
export function PasswordFields({ value, known, fault, onChange }: PasswordFieldsProps) {
  const { password, again } = value;
  const found = password === '' ? undefined : passwordFault(password, known);
  return (
    <>
      <TextField
        label="New password"
        type="password"
        autoComplete="new-password"
        value={password}
        fault={found ? passwordFaultSentences[found] : fault}
        onChange={({ target }) => onChange({ ...value, password: target.value })}
      />
      {password === '' && <p className="text-[13px] text-quiet">{passwordFaultSentences['password-short']}.</p>}
      <TextField
        label="The same again"
        type="password"
        autoComplete="new-password"
        value={again}
        fault={again !== '' && again.length >= password.length && again !== password ? 'the same as above' : undefined}
        onChange={({ target }) => onChange({ ...value, again: target.value })}
      />
    </>
  );
}
