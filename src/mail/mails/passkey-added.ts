import { defineMail } from '../define';
import { accountLink } from '../words';

/** `passkey`: as its owner named it. */
type Facts = { passkey: string };

export const passkeyAdded = defineMail<Facts>()({
  template: 'passkey-added',
  isAlwaysSent: true,
  fields: [],
  words: (mail, { t, siteName: site }) => ({
    subject: t('mail-passkey.subject', { site }),
    lines: [t('mail-passkey.words', { name: mail.passkey }), t('mail-passkey.not-you')],
    link: accountLink(t),
  }),
  sample: () => ({ passkey: 'Laptop' }),
});
