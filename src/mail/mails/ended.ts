import { defineMail } from '../define';
import { joinLink } from '../words';
import { sampleLife, type Life } from '../facts';

export const ended = defineMail<Life>()({
  template: 'ended',
  fields: ['tier'],
  words: ({ tierName: tier }, { t }) => ({
    subject: t('mail-ended.subject', { tier }),
    lines: [t('mail-ended.words', { tier })],
    link: joinLink(t),
  }),
  sample: sampleLife,
});
