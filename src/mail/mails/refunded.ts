import { defineMail } from '../define';
import { accountLink } from '../words';

type Facts = {
  tierName: string;
  amount: number;
  currency: string;
  /** Sent by staff themselves, where the gateway has no refunds by API. */
  byHand: boolean;
  endsAccess: boolean;
};

export const refunded = defineMail<Facts>()({
  template: 'refunded',
  fields: ['tier', 'amount'],
  words: (mail, { t }) => {
    const told = { amount: t.money(mail.amount, mail.currency), tier: mail.tierName };
    return {
      subject: t('mail-refunded.subject', told),
      lines: [
        mail.byHand ? t('mail-refunded.by-hand', told) : t('mail-refunded.words', told),
        mail.endsAccess ? t('mail-refunded.ended', told) : t('mail-refunded.open', told),
      ],
      link: accountLink(t),
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
