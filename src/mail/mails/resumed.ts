import { defineMail } from '../define';
import { ACCOUNT } from '../words';
import { sampleLife, type Life } from '../facts';

export const resumed = defineMail<Life>()({
  template: 'resumed',
  name: 'Resumed',
  when: 'A pause ends.',
  fields: ['tier'],
  words: (mail) => ({
    subject: `${mail.tierName} has resumed`,
    lines: [`${mail.tierName} has resumed, and everything it opens is open to you again.`],
    link: ACCOUNT,
  }),
  sample: sampleLife,
});
