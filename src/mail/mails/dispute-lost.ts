import { defineMail } from '../define';
import { sampleLife, type Life } from '../facts';

export const disputeLost = defineMail<Life>()({
  template: 'dispute-lost',
  name: 'Dispute lost',
  when: 'A bank took a payment back.',
  fields: ['tier'],
  words: (mail) => ({
    subject: `${mail.tierName} has ended`,
    lines: [
      `Your bank took a payment for ${mail.tierName} back, so ${mail.tierName} has ended. If that was a mistake, write to us.`,
    ],
    link: { label: 'Join again', path: '/join' },
  }),
  sample: sampleLife,
});
