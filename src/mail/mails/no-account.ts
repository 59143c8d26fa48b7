import { defineMail } from '../define';

type Facts = object;

export const noAccount = defineMail<Facts>()({
  template: 'no-account',
  name: 'No account',
  when: 'Someone asks to sign in with an address that has no account.',
  isAlwaysSent: true,
  fields: [],
  words: (_, frame) => ({
    subject: `Signing in to ${frame.siteName}`,
    lines: [
      `Someone asked to sign in to ${frame.siteName} with this email address, but it has no account here.`,
      'If that was you, you may have joined with another address. If not, ignore this email.',
    ],
    link: { label: 'See how to join', path: '/join' },
  }),
  sample: () => ({}),
});
