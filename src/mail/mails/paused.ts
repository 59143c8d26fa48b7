import { defineMail } from '../define';
import { accountLink } from '../words';
import { sampleLife, type Life } from '../facts';

export const paused = defineMail<Life>()({
  template: 'paused',
  fields: ['tier'],
  words: ({ tierName: tier }, { t }) => ({
    subject: t('mail-paused.subject', { tier }),
    lines: [t('mail-paused.words', { tier })],
    link: accountLink(t),
  }),
  sample: sampleLife,
});
