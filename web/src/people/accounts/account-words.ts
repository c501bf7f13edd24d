import type { AccountReply, AccountState, NoLinkReason } from '#contract/people';
import { showInstant } from '../../ui/format';

export const stateWords: Readonly<Record<AccountState, string>> = {
  none: 'no account',
  invited: 'invited',
  active: 'can sign in',
  deactivated: 'deactivated',
};

export const noLinkWords: Readonly<Record<NoLinkReason, string>> = {
  'no-address': 'no e-mail address; write it under People',
  deactivated: 'the account is deactivated',
  'role-elsewhere': 'a role is held where you have no say',
};

/** How an account stands, in a sentence. */
export function sentenceOf({ state, username, linkUntil, email }: AccountReply): string {
  const link = linkUntil === null ? '' : ` A link waits until ${showInstant(linkUntil)}.`;
  if (state === 'none')
    return email === ''
      ? 'Has no account, and no e-mail address to invite to. Write it under People.'
      : `Has no account. An invitation goes to ${email}.`;
  if (state === 'invited')
    return linkUntil === null
      ? 'Was invited, and the link has expired. Send another one.'
      : `Was invited, and has not chosen a password yet.${link}`;
  if (state === 'deactivated') return `Cannot sign in. What ${username} did stays in the log.`;
  return `Signs in as ${username}.${link}`;
}
