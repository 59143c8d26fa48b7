import type { Instant } from '@/core/instants';
import { defineMail } from '../define';

type Facts = {
  tierName: string;
  amount: number;
  currency: string;
  payee: string;
  account: string;
  bank: string;
  reference: string;
  until: Instant;
  path: string;
};

export const transferDue = defineMail<Facts>()({
  template: 'transfer-due',
  isAlwaysSent: true,
  fields: ['tier', 'amount', 'date'],
  date: (mail) => mail.until,
  words: (mail, { t }) => {
    const told = { amount: t.money(mail.amount, mail.currency), tier: mail.tierName };
    const { payee, account, reference } = mail;
    return {
      subject: t('mail-transfer.subject', told),
      lines: [
        t('mail-transfer.words', { ...told, payee, account, bank: mail.bank || 'none' }),
        t('mail-transfer.reference', { reference }),
        t('mail-transfer.by', { date: t.date(mail.until) }),
      ],
      link: { label: t('mail-transfer.link'), path: mail.path },
    };
  },
  sample: ({ tierName, amount, currency, siteName, at }) => ({
    tierName,
    amount,
    currency,
    payee: siteName,
    account: '…',
    bank: '',
    reference: '…',
    until: at,
    path: '/account',
  }),
});
