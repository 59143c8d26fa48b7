import { defineMail, type MailSecret } from '../define';

type Facts = { tierName: string; secret: MailSecret; days: number };

export const unfinished = defineMail<Facts>()({
  template: 'unfinished',
  name: 'Unfinished checkout',
  when: 'An hour after someone starts a checkout and leaves.',
  fields: ['tier'],
  words: (mail, frame) => ({
    subject: `Finish joining ${mail.tierName}`,
    lines: [
      `You started to join ${frame.siteName} as ${mail.tierName}, but didn’t finish. Nothing was charged. This link takes you back to your checkout. It works once, for ${mail.days} days.`,
      'Changed your mind? You don’t need to do anything. This is the only reminder.',
    ],
    link: { label: 'Continue to checkout', path: mail.secret.path },
  }),
  sample: ({ tierName }) => ({ tierName, secret: { path: '/join' }, days: 7 }),
});
