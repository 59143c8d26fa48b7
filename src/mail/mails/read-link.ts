import { defineMail, type MailSecret } from '../define';

type Facts = { passName: string; secret: MailSecret; hours: number };

export const readLink = defineMail<Facts>()({
  template: 'read-link',
  isAlwaysSent: true,
  fields: [],
  words: (mail, { t, siteName: site }) => ({
    subject: t('mail-read-link.subject', { site }),
    lines: [
      t('mail-read-link.words', { site, name: mail.passName, hours: mail.hours }),
      t('mail-read-link.not-you'),
    ],
    link: { label: t('mail-read-link.link'), path: mail.secret.path },
  }),
  sample: () => ({ passName: 'Reading pass', secret: { path: '/' }, hours: 24 }),
});
