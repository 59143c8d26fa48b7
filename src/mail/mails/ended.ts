import { defineMail } from '../define';
import type { Life } from '../facts';

export const ended = defineMail<Life>()({
  template: 'ended',
  name: 'Ended',
  when: 'What was held is over.',
  fields: ['tier'],
  words: (mail) => ({
    subject: `${mail.tierName} has ended`,
    lines: [
      `${mail.tierName} has ended. Thank you for having been with us. You can join again whenever you like.`,
    ],
    link: { label: 'Join again', path: '/join' },
  }),
  sample: ({ tierName, sentence, at }) => ({ tierName, nextTry: at, until: at, sentence }),
});
