import type { Instant } from '@/core/instants';
import { formatMoney } from '@/core/money';
import { defineMail, type NextChargeTold } from '../define';
import { dayWords, nextWords } from '../words';

type Facts = {
  tierName: string;
  amount: number;
  currency: string;
  joiningFee: number;
  /** Credit that was spent beside the payment. */
  credit: number;
  paidAt: Instant;
  /** Where its invoice stands. */
  path: string;
  methodLabel: string | null;
  nextCharge: NextChargeTold | null;
};

export const receipt = defineMail<Facts>()({
  template: 'receipt',
  name: 'Receipt',
  when: 'A payment came.',
  fields: ['tier', 'amount', 'date'],
  date: (mail) => mail.paidAt,
  words: (mail, frame) => {
    const fee =
      mail.joiningFee > 0
        ? ` It includes the joining fee of ${formatMoney(mail.joiningFee, mail.currency)}.`
        : '';
    const credit =
      mail.credit > 0
        ? ` Your credit of ${formatMoney(mail.credit, mail.currency)} paid the rest of ${formatMoney(mail.amount + mail.credit, mail.currency)}.`
        : '';
    return {
      subject: `Receipt: ${formatMoney(mail.amount, mail.currency)} for ${mail.tierName}`,
      lines: [
        `We received ${formatMoney(mail.amount, mail.currency)} on ${dayWords(mail.paidAt, frame)} for ${mail.tierName}${mail.methodLabel ? `, from the ${mail.methodLabel}` : ''}.${fee}${credit}`,
        mail.nextCharge ? nextWords(mail.nextCharge, frame) : 'Nothing more will be charged.',
      ],
      link: { label: 'Your receipt, to read, print or keep', path: mail.path },
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
