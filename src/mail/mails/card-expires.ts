import type { Instant, LocalMonth } from '@/core/instants';
import { methodWords } from '@/words/methods';
import { defineMail } from '../define';

type Facts = {
  tierName: string;
  methodLabel: string | null;
  /** The last month in which it can pay, "2028-11". */
  expires: LocalMonth;
  at: Instant;
  path: string;
};

export const cardExpires = defineMail<Facts>()({
  template: 'card-expires',
  fields: ['tier', 'date'],
  date: (mail) => mail.at,
  words: (mail, { t }) => ({
    subject: t('mail-card.subject', { tier: mail.tierName }),
    lines: [
      t('mail-card.words', {
        method: mail.methodLabel ? methodWords(mail.methodLabel, t) : t('mail-card.card'),
        tier: mail.tierName,
        month: t.month(mail.expires),
        date: t.date(mail.at),
      }),
      t('mail-card.change'),
    ],
    link: { label: t('mail-card.link'), path: mail.path },
  }),
  sample: ({ tierName, methodLabel, expires, at }) => ({
    tierName,
    methodLabel,
    expires: expires ?? (at.slice(0, 7) as LocalMonth),
    at,
    path: '/account',
  }),
});
