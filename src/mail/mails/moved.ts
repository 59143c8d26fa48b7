import { defineMail } from '../define';
import { accountLink } from '../words';
import { sampleLife, type Life } from '../facts';

export const moved = defineMail<Life>()({
  template: 'moved',
  fields: ['tier'],
  words: ({ tierName: tier, sentence }, { t }) => ({
    subject: t('mail-switched.subject', { tier }),
    lines: [t('mail-moved.words', { tier, sentence })],
    link: accountLink(t),
  }),
  sample: sampleLife,
});
