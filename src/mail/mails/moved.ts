import { defineMail } from '../define';
import { ACCOUNT } from '../words';
import { sampleLife, type Life } from '../facts';

export const moved = defineMail<Life>()({
  template: 'moved',
  name: 'Moved',
  when: 'A switch that was asked for comes at the end of a period.',
  fields: ['tier'],
  words: (mail) => ({
    subject: `You now hold ${mail.tierName}`,
    lines: [`From today on your membership is ${mail.tierName}. ${mail.sentence}`],
    link: ACCOUNT,
  }),
  sample: sampleLife,
});
