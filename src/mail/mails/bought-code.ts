import type { Instant } from '@/core/instants';
import { defineMail, type MailSecret } from '../define';

type Facts = { kind: 'pass' | 'gift-card'; name: string; until: Instant | null; secret: MailSecret };

/** The code of something that was bought, for its buyer who has lost it. */
export const boughtCode = defineMail<Facts>()({
  template: 'bought-code',
  isAlwaysSent: true,
  fields: [],
  words: ({ kind, name, until, secret }, { t }) => ({
    subject: t('mail-bought.code-subject', { name }),
    lines: [
      t(`mail-bought.${kind}`),
      ...(kind === 'pass' && until ? [t('mail-bought.until', { date: t.until(until) })] : []),
    ],
    code: secret.code,
    link: { label: t('mail-bought.link'), path: secret.path },
  }),
  sample: ({ tierName, at }) => ({
    kind: 'pass',
    name: tierName,
    until: at,
    secret: { path: '/code', code: 'k7mq-x2pd-9vhc-3f2m-a' },
  }),
});
