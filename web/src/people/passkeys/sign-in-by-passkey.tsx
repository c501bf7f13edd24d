import { Fingerprint } from 'lucide-react';
import type { SessionReply } from '#contract/people';
import { useSignInByPasskey } from '../../shell/session';
import { Button } from '../../ui/button';
import { canUsePasskeys, sayPasskeyError } from './queries';

/** The way in without a name and a password, where this browser and address know passkeys. */
export function SignInByPasskey({ onSuccess }: { onSuccess?: (session: SessionReply) => void }) {
  const signIn = useSignInByPasskey();
  if (!canUsePasskeys()) return null;
  return (
    <>
      <Button
        className="mt-3 w-full justify-center"
        writes={false}
        disabled={signIn.isPending}
        onClick={() => signIn.mutate(undefined, onSuccess && { onSuccess })}
      >
        <Fingerprint size={15} aria-hidden /> Sign in with a passkey
      </Button>
      {signIn.error && (
        <p role="alert" className="mt-3 text-waratah">
          {sayPasskeyError(signIn.error)}
        </p>
      )}
    </>
  );
}
