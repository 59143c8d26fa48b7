import { defineMail, type MailSecret } from '../define';

type Facts = { why: 'sign-in' | 'join' | 'new-address'; secret: MailSecret; minutes: number };

export const code = defineMail<Facts>()({
  template: 'code',
  isAlwaysSent: true,
  fields: [],
  words: (mail, { t, siteName: site }) => {
    const why = mail.why === 'new-address' ? 'address' : mail.why;
    return {
      subject: t('mail-code.subject', { why, site }),
      lines: [t('mail-code.words', { why, site, minutes: mail.minutes }), t('mail-code.not-you')],
      code: mail.secret.code,
      link: { label: t('mail-code.link'), path: mail.secret.path },
    };
  },
  sample: () => ({ why: 'sign-in', secret: { path: '/sign-in', code: '123456' }, minutes: 10 }),
});
