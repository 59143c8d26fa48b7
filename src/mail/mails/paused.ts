import { defineMail } from '../define';
import { ACCOUNT } from '../words';
import { sampleLife, type Life } from '../facts';

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
  sample: sampleLife,
});
