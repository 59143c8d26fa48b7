import { defineMail } from '../define';
import { accountLink } from '../words';
import { sampleLife, type Life } from '../facts';

export const resumed = defineMail<Life>()({
  template: 'resumed',
  fields: ['tier'],
  words: ({ tierName: tier }, { t }) => ({
    subject: t('mail-resumed.subject', { tier }),
    lines: [t('mail-resumed.words', { tier })],
    link: accountLink(t),
  }),
  sample: sampleLife,
});
