import { defineMail } from '../define';
import { accountLink, takenWords } from '../words';
import { sampleBeforeCharge, type BeforeCharge } from '../facts';

export const renewalSoon = defineMail<BeforeCharge>()({
  template: 'renewal-soon',
  fields: ['tier', 'amount', 'date'],
  date: (mail) => mail.at,
  words: (mail, { t }) => {
    const told = { tier: mail.tierName, date: t.date(mail.at) };
    return {
      subject: t('mail-renewal.subject', told),
      lines: [t('mail-renewal.words', { ...told, taken: takenWords(mail, t) }), t('mail-renewal.cancel')],
      link: accountLink(t),
    };
  },
  sample: sampleBeforeCharge,
});
