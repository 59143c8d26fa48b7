import { defineMail } from '../define';

type Facts = object;

export const noAccount = defineMail<Facts>()({
  template: 'no-account',
  isAlwaysSent: true,
  fields: [],
  words: (_, { t, siteName: site }) => ({
    subject: t('mail-no-account.subject', { site }),
    lines: [t('mail-no-account.words', { site }), t('mail-no-account.not-you')],
    link: { label: t('mail-no-account.link'), path: '/join' },
  }),
  sample: () => ({}),
});
