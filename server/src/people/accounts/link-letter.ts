import type { Letter } from '#server/platform';

/** How long a link can be used. */
export const linkDays = 3;

interface LinkFacts {
  readonly name: string;
  readonly address: string;
  readonly username: string;
  readonly isFirst: boolean;
  readonly link: string;
}

/** The message by which somebody chooses a password. */
export function linkLetter({ name, address, username, isFirst, link }: LinkFacts): Letter {
  const why = isFirst
    ? 'you have an account in Wombat, where your school keeps its grades.'
    : 'a new password was asked for your account in Wombat.';
  return {
    to: { name, address },
    subject: isFirst ? 'Your account in Wombat' : 'A new password for Wombat',
    text: `${name},

${why.charAt(0).toUpperCase()}${why.slice(1)} Choose ${isFirst ? 'your first' : 'another'} password here:

${link}

The link works once, and for ${linkDays} days. Your sign-in name is ${username}.

If you did not expect this message, leave it: nothing happens without the link.
`,
    about: `account ${username}`,
  };
}
