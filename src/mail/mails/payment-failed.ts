import { defineMail } from '../define';
import { ACCOUNT, dayWords } from '../words';
import { sampleLife, type Life } from '../facts';

export const paymentFailed = defineMail<Life>()({
  template: 'payment-failed',
  name: 'Payment failed',
  when: 'Each time a charge is refused.',
  fields: ['tier', 'date'],
  date: (mail) => mail.nextTry,
  words: (mail, frame) => ({
    subject: `A payment for ${mail.tierName} did not go through`,
    lines: [
      `We could not collect the payment for ${mail.tierName}: the card was refused.`,
      `We try again on ${dayWords(mail.nextTry, frame)}. Until then nothing changes for you; see that the card can pay.`,
    ],
    link: ACCOUNT,
  }),
  sample: sampleLife,
});
