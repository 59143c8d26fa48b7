import { defineMail } from '../define';
import { joinLink } from '../words';
import { sampleLife, type Life } from '../facts';

export const disputeLost = defineMail<Life>()({
  template: 'dispute-lost',
  fields: ['tier'],
  words: ({ tierName: tier }, { t }) => ({
    subject: t('mail-dispute.subject', { tier }),
    lines: [t('mail-dispute.words', { tier })],
    link: joinLink(t),
  }),
  sample: sampleLife,
});
