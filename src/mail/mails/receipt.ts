import type { Instant } from '@/core/instants';
import { defineMail, type NextChargeTold } from '../define';
import { methodIn, nextWords } from '../words';

type Facts = {
  tierName: string;
  amount: number;
  currency: string;
  joiningFee: number;
  /** Credit that was spent beside the payment. */
  credit: number;
  paidAt: Instant;
  /** The page of its invoice. */
  path: string;
  methodLabel: string | null;
  nextCharge: NextChargeTold | null;
};

export const receipt = defineMail<Facts>()({
  template: 'receipt',
  fields: ['tier', 'amount', 'date'],
  date: (mail) => mail.paidAt,
  words: (mail, { t }) => {
    const { amount, joiningFee, credit, currency, tierName: tier } = mail;
    const money = (part: number): string => t.money(part, currency);
    return {
      subject: t('mail-receipt.subject', { amount: money(amount), tier }),
      lines: [
        [
          t('mail-receipt.words', {
            amount: money(amount),
            date: t.date(mail.paidAt),
            tier,
            method: methodIn(mail.methodLabel, t),
          }),
          ...(joiningFee > 0 ? [t('mail-receipt.fee', { amount: money(joiningFee) })] : []),
          ...(credit > 0
            ? [t('mail-receipt.credit', { credit: money(credit), total: money(amount + credit) })]
            : []),
        ].join(' '),
        mail.nextCharge ? nextWords(mail.nextCharge, t) : t('mails.nothing-more'),
      ],
      link: { label: t('mail-receipt.link'), path: mail.path },
    };
  },
  sample: ({ tierName, nextCharge, methodLabel, ...of }) => ({
    tierName,
    amount: of.payment?.amount ?? of.amount,
    currency: of.payment?.currency ?? of.currency,
    joiningFee: of.payment?.joiningFee ?? 0,
    credit: 0,
    paidAt: of.payment?.at ?? of.now,
    path: '/account/receipts',
    methodLabel,
    nextCharge,
  }),
});
