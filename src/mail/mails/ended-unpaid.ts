import { defineMail } from '../define';
import { joinLink } from '../words';
import { sampleLife, type Life } from '../facts';

export const endedUnpaid = defineMail<Life>()({
  template: 'ended-unpaid',
  fields: ['tier'],
  words: ({ tierName: tier }, { t }) => ({
    subject: t('mail-unpaid.subject', { tier }),
    lines: [t('mail-unpaid.words', { tier })],
    link: joinLink(t),
  }),
  sample: sampleLife,
});
