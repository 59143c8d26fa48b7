import { defineMail } from '../define';
import { accountLink } from '../words';
import { sampleLife, type Life } from '../facts';

export const cancelled = defineMail<Life>()({
  template: 'cancelled',
  fields: ['tier', 'date'],
  date: (mail) => mail.until,
  words: ({ tierName: tier, until }, { t }) => ({
    subject: t('mail-cancelled.subject', { tier }),
    lines: [t('mail-cancelled.words', { tier, date: until ? t.until(until) : t('mails.later') })],
    link: accountLink(t),
  }),
  sample: sampleLife,
});
