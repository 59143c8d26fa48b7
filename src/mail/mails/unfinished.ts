import { defineMail, type MailSecret } from '../define';

type Facts = { tierName: string; secret: MailSecret; days: number };

export const unfinished = defineMail<Facts>()({
  template: 'unfinished',
  fields: ['tier'],
  words: (mail, { t, siteName: site }) => ({
    subject: t('mail-unfinished.subject', { tier: mail.tierName }),
    lines: [
      t('mail-unfinished.words', { site, tier: mail.tierName, days: mail.days }),
      t('mail-unfinished.changed-mind'),
    ],
    link: { label: t('mail-unfinished.link'), path: mail.secret.path },
  }),
  sample: ({ tierName }) => ({ tierName, secret: { path: '/join' }, days: 7 }),
});
