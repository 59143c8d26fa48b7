import type { Instant } from '@/core/instants';
import { defineMail } from '../define';
import { dayWords, monthWords } from '../words';

type Facts = {
  tierName: string;
  methodLabel: string | null;
  /** The last month in which it can pay, "2028-11". */
  expires: string;
  at: Instant;
  path: string;
};

export const cardExpires = defineMail<Facts>()({
  template: 'card-expires',
  name: 'Card expires soon',
  when: 'A month before the saved card expires.',
  fields: ['tier', 'date'],
  date: (mail) => mail.at,
  words: (mail, frame) => ({
    subject: `The card for ${mail.tierName} expires soon`,
    lines: [
      `The ${mail.methodLabel ?? 'card'} that pays for ${mail.tierName} can be charged until the end of ${monthWords(mail.expires)}. The next charge is on ${dayWords(mail.at, frame)}.`,
      'Fill in another card before then, and nothing is interrupted.',
    ],
    link: { label: 'Change the card', path: mail.path },
  }),
  sample: ({ tierName, methodLabel, expires, at }) => ({
    tierName,
    methodLabel,
    expires: expires ?? at.slice(0, 7),
    at,
    path: '/account',
  }),
});
