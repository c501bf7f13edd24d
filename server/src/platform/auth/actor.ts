import type { Holder } from '#core/access';

/** Who is asking. */
export interface Actor extends Holder {
  readonly username: string;
  /** Given name and family name. */
  readonly name: string;
  /** Who looks at it as this person would, and so changes nothing; undefined where people act for themselves. */
  readonly behind?: { readonly personId: number; readonly name: string } | undefined;
}

/** What a session knows of who signed in; what they may do is asked of the database each time. */
export interface SignedIn {
  readonly personId: number;
  /** Of the password that they signed in with: another one ends the session. */
  readonly passwordMark: string;
  /** ISO instant. */
  readonly since: string;
  /** Whose view they look at instead of their own. */
  readonly seesAs?: number;
}

declare module 'express-session' {
  interface SessionData {
    signedIn: SignedIn;
    csrfToken: string;
  }
}

declare module 'express-serve-static-core' {
  interface Request {
    /** Put there by the guard, on every route that is not public. */
    actor?: Actor;
  }
}
