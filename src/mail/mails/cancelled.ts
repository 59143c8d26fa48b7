import { formatUntil } from '@/core/calendar';
import { defineMail } from '../define';
import { ACCOUNT } from '../words';
import type { Life } from '../facts';

export const cancelled = defineMail<Life>()({
  template: 'cancelled',
  name: 'Cancelled',
  when: 'Somebody cancels; it runs on to the end of what is paid.',
  fields: ['tier', 'date'],
  date: (mail) => mail.until,
  words: (mail, frame) => ({
    subject: `${mail.tierName} is cancelled`,
    lines: [
      `As you asked, ${mail.tierName} ends on ${mail.until ? formatUntil(mail.until, frame.zone) : 'a later day'}. Nothing more will be charged. Until then everything stays open to you, and you can change your mind.`,
    ],
    link: ACCOUNT,
  }),
  sample: ({ tierName, sentence, at }) => ({ tierName, nextTry: at, until: at, sentence }),
});
