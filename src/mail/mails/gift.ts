import type { Instant } from '@/core/instants';
import { defineMail } from '../define';
import { accountLink } from '../words';

/** `name`: of the tier or pass that was given. `until` null: for good. */
type Facts = { name: string; until: Instant | null };

export const gift = defineMail<Facts>()({
  template: 'gift',
  fields: [],
  words: ({ name, until }, { t, siteName: site }) => ({
    subject: t('mail-gift.subject', { name, site }),
    lines: [
      until
        ? t('mail-gift.words-until', { name, site, date: t.until(until) })
        : t('mail-gift.words', { name, site }),
      t('mail-gift.free'),
    ],
    link: accountLink(t),
  }),
  sample: ({ tierName, at }) => ({ name: tierName, until: at }),
});
