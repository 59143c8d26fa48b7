import { formatMoney } from '@/core/money';
import { defineMail } from '../define';
import { ACCOUNT } from '../words';

type Facts = {
  tierName: string;
  amount: number;
  currency: string;
  /** Sent by staff themselves, because the gateway gives nothing back by a call. */
  byHand: boolean;
  endsAccess: boolean;
};

export const refunded = defineMail<Facts>()({
  template: 'refunded',
  name: 'Refund',
  when: 'Money is refunded.',
  fields: ['tier', 'amount'],
  words: (mail) => {
    const money = formatMoney(mail.amount, mail.currency);
    return {
      subject: `${money} for ${mail.tierName} is refunded to you`,
      lines: [
        `We refund ${money} of what you paid for ${mail.tierName}. ${mail.byHand ? 'We send it to you ourselves; it takes a few days.' : 'It goes to the payment method that you paid with; your bank may take a few days to show it.'}`,
        mail.endsAccess
          ? `${mail.tierName} has ended with it.`
          : `What ${mail.tierName} opens stays open to you.`,
      ],
      link: ACCOUNT,
    };
  },
  sample: ({ tierName, payment, amount, currency }) => ({
    tierName,
    amount: payment?.amount ?? amount,
    currency,
    byHand: false,
    endsAccess: false,
  }),
});
