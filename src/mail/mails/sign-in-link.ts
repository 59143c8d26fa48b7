import { defineMail, type MailSecret } from '../define';

type Facts = { secret: MailSecret; days: number };

export const signInLink = defineMail<Facts>()({
  template: 'sign-in-link',
  isAlwaysSent: true,
  fields: [],
  words: ({ secret, days }, { t, siteName: site }) => ({
    subject: t('mail-sign-in-link.subject', { site }),
    lines: [t('mail-sign-in-link.words', { site, days }), t('mail-sign-in-link.not-you')],
    link: { label: t('mail-sign-in-link.link'), path: secret.path },
  }),
  sample: () => ({ secret: { path: '/account' }, days: 3 }),
});
