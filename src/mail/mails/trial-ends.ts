import { defineMail } from '../define';
import { accountLink, takenWords } from '../words';
import { sampleBeforeCharge, type BeforeCharge } from '../facts';

export const trialEnds = defineMail<BeforeCharge>()({
  template: 'trial-ends',
  fields: ['tier', 'amount', 'date'],
  date: (mail) => mail.at,
  words: (mail, { t }) => {
    const told = { tier: mail.tierName, date: t.date(mail.at) };
    return {
      subject: t('mail-trial.subject', told),
      lines: [
        t('mail-trial.words', { ...told, taken: takenWords(mail, t), sentence: mail.sentence }),
        t('mail-trial.cancel'),
      ],
      link: accountLink(t),
    };
  },
  sample: sampleBeforeCharge,
});
