/** Who is asking. */
export interface Actor {
  readonly personId: number;
  readonly username: string;
  /** Given name and family name. */
  readonly name: string;
  readonly role: Role;
}

export type Role = 'registrar' | 'teacher';

declare module 'express-session' {
  interface SessionData {
    actor: Actor;
    csrfToken: string;
  }
}
