import type { MessageTemplate } from './message-template';

/** Why somebody gets a link that opens something of their account. */
export const accountLinkKinds = ['join', 'password', 'email'] as const;
export type AccountLinkKind = (typeof accountLinkKinds)[number];

interface Said {
  reader: string;
  /** Who asks; null where the reader asked themselves. */
  sender: string | null;
  school: string;
  link: string;
}

const letters: Record<AccountLinkKind, (said: Said) => { subject: string; says: string[] }> = {
  join: ({ sender, school, link }) => ({
    subject: `You are asked to join ${school}`,
    says: [
      `${sender ?? 'An administrator'} asks you to join the staff of ${school}. This link works once, for two weeks:`,
      link,
    ],
  }),
  password: ({ sender, link }) => ({
    subject: 'A new password',
    says: [
      `${sender ? `${sender} sends you this, because` : 'Somebody said that'} you need a new password. This link works once, for an hour:`,
      link,
      'If you did not ask for it, do nothing: your password stays as it is.',
    ],
  }),
  email: ({ link }) => ({
    subject: 'Is this your address?',
    says: [
      'You want to sign in with this address from now on. This link works once, for a day, and makes it so:',
      link,
      'If you do not know what this is about, do nothing.',
    ],
  }),
};

/**
 * What a message about an account says. A school does not word these: each is about the link in it.
 *
 * @example accountLetter('email', { reader: 'Ada', sender: null, school: 'Oak', link: 'https://…' }).subject // 'Is this your address?'
 */
export function accountLetter(kind: AccountLinkKind, said: Said): MessageTemplate {
  const { subject, says } = letters[kind](said);
  return { subject, body: [`Hello ${said.reader},`, ...says, said.school].join('\n\n') };
}
