import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  Length,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { roleNames, roles, type Grant, type Role } from '#core/access';
import { passwordLength, type PasswordFault } from '#core/people';

/** How somebody can sign in: without an account, invited and without a password yet, with one, or not any more. */
export type AccountState = 'none' | 'invited' | 'active' | 'deactivated';

export interface AccountReply {
  readonly personId: number;
  /** "Reed, Tamsin". */
  readonly name: string;
  /** Empty where none is known: nobody can be invited there. */
  readonly email: string;
  readonly state: AccountState;
  /** Null without an account, as the two that follow. */
  readonly username: string | null;
  readonly grants: readonly Grant[] | null;
  readonly revision: string | null;
  /** Until when the last link can be used; null where none waits. */
  readonly linkUntil: string | null;
  readonly lastSignInAt: string | null;
}

/** The staff of a school, and those of no school. */
export interface AccountsReply {
  readonly accounts: readonly AccountReply[];
}

export class SendLinksRequest {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(5000)
  @IsInt({ each: true })
  personIds!: number[];
}

/** Why somebody got no link. */
export type NoLinkReason = 'no-address' | 'deactivated' | 'role-elsewhere';

export interface SentLinksReply extends AccountsReply {
  /** How many messages were written to the outbox. */
  readonly sent: number;
  readonly skipped: readonly { readonly personId: number; readonly reason: NoLinkReason }[];
}

export class GrantBody implements Grant {
  @IsIn(roles, { message: `one of ${roles.map((role) => roleNames[role]).join(', ')}` })
  role!: Role;

  /** Null for the whole district. */
  @ValidateIf((_body, value) => value !== null)
  @IsInt({ message: 'the number of a school, or null for the whole district' })
  schoolId!: number | null;
}

export class ChangeAccountRequest {
  /** Of the account that the change began from. */
  @IsString()
  revision!: string;

  @IsArray()
  @ArrayMinSize(1, { message: 'at least one role' })
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => GrantBody)
  grants!: GrantBody[];

  @IsBoolean()
  isActive!: boolean;
}

export class LookAtLinkRequest {
  @IsString()
  @Length(20, 100)
  token!: string;
}

/** Whose password a link sets. */
export interface LinkReply {
  readonly name: string;
  readonly username: string;
  /** Whether it is the first one. */
  readonly isFirst: boolean;
}

export class UseLinkRequest extends LookAtLinkRequest {
  @IsString()
  @Length(1, passwordLength.most, { message: `a password of at most ${passwordLength.most} signs` })
  password!: string;
}

export class ChangePasswordRequest {
  @IsString()
  @Length(1, passwordLength.most, { message: 'type your present password' })
  current!: string;

  @IsString()
  @Length(1, passwordLength.most, { message: `a password of at most ${passwordLength.most} signs` })
  password!: string;
}

/** What would be right for a password. */
export const passwordFaultSentences: Readonly<Record<PasswordFault, string>> = {
  'password-short': `at least ${passwordLength.fewest} signs, such as three or four words that do not belong together`,
  'password-long': `at most ${passwordLength.most} signs`,
  'password-common': 'more that is your own: common words, rows of keys and your name are guessed first',
};
