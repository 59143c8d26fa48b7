import type { Instant } from '@/core/instants';
import { defineMail, type MailSecret } from '../define';

/** A pass or a gift card that was bought, with its code. Amounts in minor units; `until` null: for good. */
type Facts = {
  kind: 'pass' | 'gift-card';
  name: string;
  amount: number;
  currency: string;
  at: Instant;
  until: Instant | null;
  receiptPath: string;
  secret: MailSecret;
};

export const bought = defineMail<Facts>()({
  template: 'bought',
  isAlwaysSent: true,
  fields: ['amount', 'date'],
  date: ({ at }) => at,
  words: ({ kind, name, amount, currency, at, until, secret, receiptPath }, { t, siteUrl }) => ({
    subject: t('mail-bought.subject', { name }),
    lines: [
      amount > 0
        ? t('mail-bought.paid', { name, amount: t.money(amount, currency), date: t.date(at) })
        : t('mail-bought.by-credit', { name }),
      t(`mail-bought.${kind}`),
      ...(kind === 'pass' && until ? [t('mail-bought.until', { date: t.until(until) })] : []),
      t('mail-bought.receipt', { url: `${siteUrl}${receiptPath}` }),
    ],
    code: secret.code,
    link: { label: t('mail-bought.link'), path: secret.path },
  }),
  sample: ({ tierName, amount, currency, at, now }) => ({
    kind: 'pass',
    name: tierName,
    amount,
    currency,
    at: now,
    until: at,
    receiptPath: '/account/receipts',
    secret: { path: '/code', code: 'k7mq-x2pd-9vhc-3f2m-a' },
  }),
});
