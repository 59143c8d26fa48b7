import { defineMail } from '../define';
import { sampleLife, type Life } from '../facts';

export const ended = defineMail<Life>()({
  template: 'ended',
  name: 'Ended',
  when: 'A subscription has ended.',
  fields: ['tier'],
  words: (mail) => ({
    subject: `${mail.tierName} has ended`,
    lines: [
      `${mail.tierName} has ended. Thank you for having been with us. You can join again whenever you like.`,
    ],
    link: { label: 'Join again', path: '/join' },
  }),
  sample: sampleLife,
});
