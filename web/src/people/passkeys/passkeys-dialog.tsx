import { useState } from 'react';
import { Awaited } from '../../shell/awaited';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { TextField } from '../../ui/field';
import { showInstant } from '../../ui/format';
import { canUsePasskeys, sayPasskeyError, useAddPasskey, usePasskeys, useRemovePasskey } from './queries';

/** The keys of one's own devices, by which one signs in without a password. */
export function PasskeysDialog({ onClose }: { onClose: () => void }) {
  const passkeys = usePasskeys();
  const [name, setName] = useState('This device');
  const add = useAddPasskey();
  const remove = useRemovePasskey();
  const error = add.error ?? remove.error;
  const canAdd = canUsePasskeys();
  return (
    <Dialog
      isOpen
      savesAtOnce
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Your passkeys"
      description="A device that has one signs you in by its own lock: a finger, a face or a PIN. Your password stays as it is."
      footer={<Button onClick={onClose}>Close</Button>}
    >
      <Awaited query={passkeys} waiting="Looking for your passkeys">
        {(kept) =>
          kept.length === 0 ? (
            <p className="text-quiet">You have none yet.</p>
          ) : (
            <ul aria-label="Your passkeys" className="divide-y divide-hairline">
              {kept.map(({ id, name: called, madeAt, lastUsedAt }) => (
                <li key={id} className="flex items-center gap-3 py-1.5">
                  <span>
                    <b className="block font-semibold">{called}</b>
                    <span className="text-[13px] text-quiet">
                      added {showInstant(madeAt)};{' '}
                      {lastUsedAt ? `last used ${showInstant(lastUsedAt)}` : 'not used yet'}
                    </span>
                  </span>
                  <Button
                    look="quiet"
                    className="ml-auto"
                    disabled={remove.isPending}
                    aria-label={`Remove ${called}`}
                    onClick={() => remove.mutate(id)}
                  >
                    Remove
                  </Button>
                </li>
              ))}
            </ul>
          )
        }
      </Awaited>
      {canAdd ? (
        <form
          noValidate
          className="mt-4 flex items-end gap-3 border-t border-hairline pt-4"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() !== '') add.mutate(name.trim());
          }}
        >
          <TextField
            label="Name of the device"
            className="flex-1"
            maxLength={60}
            value={name}
            onChange={({ target }) => setName(target.value)}
          />
          <Button look="main" writes={false} type="submit" disabled={add.isPending || name.trim() === ''}>
            {add.isPending ? 'Waiting for the device …' : 'Add a passkey'}
          </Button>
        </form>
      ) : (
        <p className="mt-4 border-t border-hairline pt-4 text-quiet">
          This browser has no passkeys here: they need a site with a name, such as localhost, reached over https or on
          this machine.
        </p>
      )}
      {error && (
        <p role="alert" className="mt-3 text-waratah">
          {sayPasskeyError(error)}
        </p>
      )}
    </Dialog>
  );
}
