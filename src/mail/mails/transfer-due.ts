import type { Instant } from '@/core/instants';
import { formatMoney } from '@/core/money';
import { defineMail } from '../define';
import { dayWords } from '../words';

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
  name: 'Please transfer',
  when: 'A transfer is waited for.',
  isAlwaysSent: true,
  fields: ['tier', 'amount', 'date'],
  date: (mail) => mail.until,
  words: (mail, frame) => ({
    subject: `Please transfer ${formatMoney(mail.amount, mail.currency)} for ${mail.tierName}`,
    lines: [
      `Transfer ${formatMoney(mail.amount, mail.currency)} to ${mail.payee}, account ${mail.account}${mail.bank ? `, ${mail.bank}` : ''}.`,
      `Write this reference with it, and nothing else: ${mail.reference}. It tells us that the money is yours.`,
      `Please see that it is there by ${dayWords(mail.until, frame)}.`,
    ],
    link: { label: 'See how it stands', path: mail.path },
  }),
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
