import type { Instant } from '@/core/instants';
import { defineMail } from '../define';
import { accountLink } from '../words';

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
  isAlwaysSent: true,
  fields: ['tier', 'date'],
  date: (mail) => mail.from,
  words: (mail, { t }) => {
    const date = t.date(mail.from);
    return {
      subject: t('mail-price.subject', { tier: mail.tierName, date }),
      lines: [
        t('mail-price.before', { sentence: mail.before }),
        t('mail-price.after', { date, sentence: mail.after }),
        ...(mail.approvePath ? [t('mail-price.approve')] : []),
        t('mail-price.cancel'),
      ],
      link: mail.approvePath ? { label: t('mail-price.link'), path: mail.approvePath } : accountLink(t),
    };
  },
  sample: ({ tierName, at, sentence }) => ({
    tierName,
    from: at,
    before: sentence,
    after: sentence,
    approvePath: null,
  }),
});
