import type { Request } from 'express';
import { Refusal } from '#server/platform';

/** How long a device may take to answer, in milliseconds. */
const longestWait = 5 * 60_000;

declare module 'express-session' {
  interface SessionData {
    /** What a device was asked to sign, and until when it may answer. */
    passkeyChallenge?: { readonly challenge: string; readonly until: number };
  }
}

export function keepChallenge({ session }: Request, challenge: string): void {
  session.passkeyChallenge = { challenge, until: Date.now() + longestWait };
}

/** Each challenge is answered once. @throws Refusal passkey-refused */
export function takeChallengeOrThrow({ session }: Request): string {
  const kept = session.passkeyChallenge;
  delete session.passkeyChallenge;
  if (!kept || kept.until < Date.now()) throw new Refusal('passkey-refused');
  return kept.challenge;
}
