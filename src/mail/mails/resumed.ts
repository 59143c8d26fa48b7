import { defineMail } from '../define';
import { ACCOUNT } from '../words';
import type { Life } from '../facts';

export const resumed = defineMail<Life>()({
  template: 'resumed',
  name: 'Goes on',
  when: 'A pause is over.',
  fields: ['tier'],
  words: (mail) => ({
    subject: `${mail.tierName} goes on`,
    lines: [`${mail.tierName} goes on, and everything it opens is open to you.`],
    link: ACCOUNT,
  }),
  sample: ({ tierName, sentence, at }) => ({ tierName, nextTry: at, until: at, sentence }),
});
