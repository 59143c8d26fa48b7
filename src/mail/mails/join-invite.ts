import { defineMail, type MailSecret } from '../define';

/** An invitation to join a tier. `words`: what the owner adds, as plain text; '' for nothing. */
type Facts = { tierName: string; words: string; secret: MailSecret };

export const joinInvite = defineMail<Facts>()({
  template: 'join-invite',
  isAlwaysSent: true,
  fields: ['tier'],
  words: ({ tierName: tier, words, secret }, { t, siteName: site }) => ({
    subject: t('mail-join-invite.subject', { site }),
    lines: [
      t('mail-join-invite.words', { site, tier }),
      ...words.split(/\n+/).filter(Boolean),
      t('mail-join-invite.yours-alone'),
    ],
    link: { label: t('mail-join-invite.link', { tier }), path: secret.path },
  }),
  sample: ({ tierName, welcome }) => ({ tierName, words: welcome, secret: { path: '/join' } }),
});
