import { IsInt, IsString, Length } from 'class-validator';
import type { Grant } from '#core/access';
import type { OwnView } from '#core/people';

export class SignInRequest {
  @IsString()
  @Length(1, 100, { message: 'type your sign-in name' })
  username!: string;

  @IsString()
  @Length(1, 200, { message: 'type your password' })
  password!: string;
}

export class AskForLinkRequest {
  /** A sign-in name, or an address. */
  @IsString()
  @Length(1, 200, { message: 'your sign-in name or e-mail address' })
  name!: string;
}

export interface PersonReply {
  readonly personId: number;
  readonly name: string;
  /** What they may do, and where. */
  readonly grants: readonly Grant[];
}

export interface SessionReply {
  readonly person: PersonReply;
  /** Name of who looks at what this person sees, and changes nothing; null where people act for themselves. */
  readonly seenBy: string | null;
  /** To be sent back as the header x-csrf-token with every write. */
  readonly csrfToken: string;
  /** The session ends after so many seconds in which nobody did anything. */
  readonly pauseSeconds: number;
  /** The district's own, such as Europe/London; instants are shown in it. */
  readonly timeZone: string;
  /** Name of the district; null until one is set. */
  readonly district: string | null;
  /** How this person likes what they see. */
  readonly view: OwnView;
}

export class SeeAsRequest {
  @IsInt()
  personId!: number;
}

/** Somebody to sign in as; listed only while demo data is loaded. */
export interface DemoPersonReply {
  readonly username: string;
  readonly password: string;
  readonly name: string;
  readonly does: string;
}
