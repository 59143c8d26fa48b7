import { formatUntil } from '@/core/instants';
import { defineMail } from '../define';
import { ACCOUNT } from '../words';
import { sampleLife, type Life } from '../facts';

export const cancelled = defineMail<Life>()({
  template: 'cancelled',
  name: 'Cancelled',
  when: 'A member cancels. The subscription continues to the end of the paid period.',
  fields: ['tier', 'date'],
  date: (mail) => mail.until,
  words: (mail, frame) => ({
    subject: `${mail.tierName} is cancelled`,
    lines: [
      `As you asked, ${mail.tierName} ends on ${mail.until ? formatUntil(mail.until, frame.zone) : 'a later day'}. Nothing more will be charged. Until then everything stays open to you, and you can change your mind.`,
    ],
    link: ACCOUNT,
  }),
  sample: sampleLife,
});
