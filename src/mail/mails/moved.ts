import { defineMail } from '../define';
import { accountLink } from '../words';
import { sampleLife, type Life } from '../facts';

export const moved = defineMail<Life>()({
  template: 'moved',
  name: 'Moved',
  when: 'A switch that was asked for comes at the end of a period.',
  fields: ['tier'],
  words: ({ tierName: tier, sentence }, { t }) => ({
    subject: t('mail-switched.subject', { tier }),
    lines: [t('mail-moved.words', { tier, sentence })],
    link: accountLink(t),
  }),
  sample: sampleLife,
});
