import { defineMail } from '../define';
import { accountLink, dayWords } from '../words';
import { sampleLife, type Life } from '../facts';

export const paymentFailed = defineMail<Life>()({
  template: 'payment-failed',
  fields: ['tier', 'date'],
  date: (mail) => mail.nextTry,
  words: ({ tierName: tier, nextTry }, { t }) => ({
    subject: t('mail-failed.subject', { tier }),
    lines: [t('mail-failed.words', { tier }), t('mail-failed.again', { date: dayWords(nextTry, t) })],
    link: accountLink(t),
  }),
  sample: sampleLife,
});
