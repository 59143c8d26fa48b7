import { defineMail } from '../define';
import { accountLink } from '../words';

type Facts = { email: string };

export const addressChanged = defineMail<Facts>()({
  template: 'address-changed',
  isAlwaysSent: true,
  fields: [],
  words: (mail, { t, siteName: site }) => ({
    subject: t('mail-address.subject', { site }),
    lines: [t('mail-address.words', { email: mail.email }), t('mail-address.not-you')],
    link: accountLink(t),
  }),
  sample: ({ email }) => ({ email }),
});
