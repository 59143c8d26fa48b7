import { defineMail } from '../define';
import { ACCOUNT, dayWords, takenWords } from '../words';
import { sampleBeforeCharge, type BeforeCharge } from '../facts';

export const renewalSoon = defineMail<BeforeCharge>()({
  template: 'renewal-soon',
  name: 'Renewal soon',
  when: 'Two weeks before a charge that comes after two months or more.',
  fields: ['tier', 'amount', 'date'],
  date: (mail) => mail.at,
  words: (mail, frame) => ({
    subject: `${mail.tierName} renews on ${dayWords(mail.at, frame)}`,
    lines: [
      `${mail.tierName} renews on ${dayWords(mail.at, frame)}: ${takenWords(mail)}. You need do nothing.`,
      'If you would rather stop, cancel in your account before then: it stays open to you until that day.',
    ],
    link: ACCOUNT,
  }),
  sample: sampleBeforeCharge,
});
