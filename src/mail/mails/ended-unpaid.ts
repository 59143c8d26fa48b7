import { defineMail } from '../define';
import { sampleLife, type Life } from '../facts';

export const endedUnpaid = defineMail<Life>()({
  template: 'ended-unpaid',
  name: 'Ended unpaid',
  when: 'The last try to charge was refused.',
  fields: ['tier'],
  words: (mail) => ({
    subject: `${mail.tierName} has ended: the payment did not go through`,
    lines: [
      `We tried several times to collect the payment for ${mail.tierName}, and it was refused each time. ${mail.tierName} has ended, and no more tries will be made. You can join again with another card.`,
    ],
    link: { label: 'Join again', path: '/join' },
  }),
  sample: sampleLife,
});
