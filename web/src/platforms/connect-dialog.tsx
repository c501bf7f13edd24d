import { useState, type FormEvent } from 'react';
import { ProblemError } from '../shell/api';
import { useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { TextField } from '../ui/field';
import { usePlatformActions } from '../matching/queries';

const fields = [
  ['name', 'Name', 'What you call it', 'text'],
  ['address', 'Address', 'https://platform.example', 'text'],
  ['clientId', 'Client id', 'From the platform’s own settings', 'text'],
  ['clientSecret', 'Secret', 'Belongs to the client id', 'password'],
] as const;
type Field = (typeof fields)[number][0];

const blank: Record<Field, string> = { name: '', address: '', clientId: '', clientSecret: '' };

/** Asks for what it takes to read a platform; what is wrong stands beside the field. */
export function ConnectDialog({ isOpen, onOpenChange }: { isOpen: boolean; onOpenChange: (isOpen: boolean) => void }) {
  const { schoolId } = useScope();
  const { connect } = usePlatformActions(schoolId);
  const [typed, setTyped] = useState(blank);
  const problem = connect.error instanceof ProblemError ? connect.error : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    connect.mutate(
      { schoolId, ...typed },
      {
        onSuccess: () => {
          setTyped(blank);
          onOpenChange(false);
        },
      },
    );
  };
  return (
    <Dialog
      isOpen={isOpen}
      onOpenChange={onOpenChange}
      title="Connect a learning platform"
      description="Rosters and groups are read in the form of OneRoster 1.2, columns in that of LTI Assignment and Grade Services. Nothing is written to the platform."
    >
      <form onSubmit={submit} className="space-y-3">
        {fields.map(([field, label, placeholder, type]) => (
          <TextField
            key={field}
            label={label}
            type={type}
            autoComplete="off"
            placeholder={placeholder}
            value={typed[field]}
            fault={problem?.fault(field)}
            onChange={({ target }) => setTyped({ ...typed, [field]: target.value })}
          />
        ))}
        {problem && problem.problem.errors.length === 0 && (
          <p role="alert" className="text-waratah">
            {problem.problem.detail}
          </p>
        )}
        <Button look="main" type="submit" disabled={connect.isPending}>
          Connect and read
        </Button>
      </form>
    </Dialog>
  );
}
