import { defineMail } from '../define';
import { ACCOUNT } from '../words';
import type { Life } from '../facts';

export const paused = defineMail<Life>()({
  template: 'paused',
  name: 'Paused',
  when: 'A pause begins.',
  fields: ['tier'],
  words: (mail) => ({
    subject: `${mail.tierName} is paused`,
    lines: [
      `${mail.tierName} is paused. Nothing is charged and its pages are closed until you resume it; the next period then begins that day.`,
    ],
    link: ACCOUNT,
  }),
  sample: ({ tierName, sentence, at }) => ({ tierName, nextTry: at, until: at, sentence }),
});
