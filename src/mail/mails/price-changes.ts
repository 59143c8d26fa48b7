import type { Instant } from '@/core/instants';
import { defineMail } from '../define';
import { dayWords, ACCOUNT } from '../words';

type Facts = {
  tierName: string;
  from: Instant;
  before: string;
  after: string;
  /** The page on which the member approves the new price at their wallet; null where no approval is needed. */
  approvePath: string | null;
};

export const priceChanges = defineMail<Facts>()({
  template: 'price-changes',
  name: 'Price changes',
  when: 'You move members to a new version of an offer.',
  isAlwaysSent: true,
  fields: ['tier', 'date'],
  date: (mail) => mail.from,
  words: (mail, frame) => ({
    subject: `What ${mail.tierName} costs from ${dayWords(mail.from, frame)} on`,
    lines: [
      `Until now: ${mail.before}`,
      `From your next period, on ${dayWords(mail.from, frame)}: ${mail.after}`,
      ...(mail.approvePath
        ? ['Your wallet bills only what you told it yes to: please approve this before that day.']
        : []),
      'Nothing changes before that day. If it does not suit you, you can cancel in your account until then.',
    ],
    link: mail.approvePath ? { label: 'Approve it', path: mail.approvePath } : ACCOUNT,
  }),
  sample: ({ tierName, at, sentence }) => ({
    tierName,
    from: at,
    before: sentence,
    after: sentence,
    approvePath: null,
  }),
});
