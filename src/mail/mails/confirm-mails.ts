import { defineMail } from '../define';
import type { MailSecret } from '../define';

type Facts = { secret: MailSecret; hours: number };

/** Someone who has no account asked for mails, and confirms that the address is theirs. */
export const confirmMails = defineMail<Facts>()({
  template: 'confirm-mails',
  isAlwaysSent: true,
  fields: [],
  words: ({ secret, hours }, { t, siteName }) => ({
    subject: t('mail-confirm.subject', { site: siteName }),
    lines: [t('mail-confirm.words', { site: siteName, hours }), t('mail-confirm.not-you')],
    link: { label: t('mail-confirm.link'), path: secret.path },
  }),
  sample: () => ({ secret: { path: '/' }, hours: 24 }),
});
