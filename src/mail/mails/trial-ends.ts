import { defineMail } from '../define';
import { ACCOUNT, dayWords, takenWords } from '../words';
import { sampleBeforeCharge, type BeforeCharge } from '../facts';

export const trialEnds = defineMail<BeforeCharge>()({
  template: 'trial-ends',
  name: 'Trial ends soon',
  when: 'Three days before the first charge after a trial.',
  fields: ['tier', 'amount', 'date'],
  date: (mail) => mail.at,
  words: (mail, frame) => ({
    subject: `Your trial of ${mail.tierName} ends on ${dayWords(mail.at, frame)}`,
    lines: [
      `The trial of ${mail.tierName} ends on ${dayWords(mail.at, frame)}. Then ${takenWords(mail)}, and it continues: ${mail.sentence}`,
      'If it does not suit you, cancel in your account before then, with one click, and nothing is charged.',
    ],
    link: ACCOUNT,
  }),
  sample: sampleBeforeCharge,
});
