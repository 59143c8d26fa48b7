import { formatDate, type Instant, formatUntil } from '@/core/calendar';
import { formatMoney } from '@/core/money';
import type { MailContent, MailFrame, NextChargeTold } from './content';

/** A mail in words: what stands in it of ours, before the owner's own. */
export type Words = {
  subject: string;
  lines: string[];
  /** Shown large, by itself. */
  code?: string;
  link: { label: string; path: string };
};

export function mailWords(mail: MailContent, frame: MailFrame): Words {
  const day = (at: Instant | null): string => (at ? formatDate(at, frame.zone) : 'later');
  const account = { label: 'Your account', path: '/account' };
  const next = ({ at, amount, credit, currency }: NextChargeTold): string =>
    amount === 0 && credit > 0
      ? `Your credit pays the next charge, ${formatMoney(credit, currency)} on ${day(at)}.`
      : `The next charge is ${formatMoney(amount, currency)} on ${day(at)}${credit > 0 ? `; ${formatMoney(credit, currency)} more is taken from your credit` : ''}.`;
  switch (mail.template) {
    case 'welcome':
    case 'switched':
      return {
        subject:
          mail.template === 'welcome'
            ? `Welcome to ${frame.siteName}${frame.firstName ? `, ${frame.firstName}` : ''}`
            : `You now hold ${mail.tierName}`,
        lines: [
          `You now hold ${mail.tierName}. ${mail.sentence}`,
          ...mail.words.split(/\n+/).filter(Boolean),
          mail.nextCharge
            ? `${next(mail.nextCharge)} You can cancel before then, in your account, with one click.`
            : 'Nothing more will be charged.',
        ],
        link: account,
      };
    case 'receipt': {
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
          `We received ${formatMoney(mail.amount, mail.currency)} on ${day(mail.paidAt)} for ${mail.tierName}${mail.methodLabel ? `, from the ${mail.methodLabel}` : ''}.${fee}${credit}`,
          mail.nextCharge ? next(mail.nextCharge) : 'Nothing more will be charged.',
        ],
        link: { label: 'Your receipt, to read, print or keep', path: mail.path },
      };
    }
    case 'payment-failed':
      return {
        subject: `A payment for ${mail.tierName} did not go through`,
        lines: [
          `We could not collect the payment for ${mail.tierName}: the card was refused.`,
          `We try again on ${day(mail.nextTry)}. Until then nothing changes for you; see that the card can pay.`,
        ],
        link: account,
      };
    case 'moved':
      return {
        subject: `You now hold ${mail.tierName}`,
        lines: [`From today on your membership is ${mail.tierName}. ${mail.sentence}`],
        link: account,
      };
    case 'paused':
      return {
        subject: `${mail.tierName} is paused`,
        lines: [
          `${mail.tierName} is paused. Nothing is charged and its pages are closed until you resume it; the next period then begins that day.`,
        ],
        link: account,
      };
    case 'resumed':
      return {
        subject: `${mail.tierName} goes on`,
        lines: [`${mail.tierName} goes on, and everything it opens is open to you.`],
        link: account,
      };
    case 'dispute-lost':
      return {
        subject: `${mail.tierName} has ended`,
        lines: [
          `Your bank took a payment for ${mail.tierName} back, so ${mail.tierName} has ended. If that was a mistake, write to us.`,
        ],
        link: { label: 'Join again', path: '/join' },
      };
    case 'refunded': {
      const money = formatMoney(mail.amount, mail.currency);
      return {
        subject: `${money} for ${mail.tierName} is refunded to you`,
        lines: [
          `We refund ${money} of what you paid for ${mail.tierName}. ${mail.byHand ? 'We send it to you ourselves; it takes a few days.' : 'It goes to the payment method that you paid with; your bank may take a few days to show it.'}`,
          mail.endsAccess
            ? `${mail.tierName} has ended with it.`
            : `What ${mail.tierName} opens stays open to you.`,
        ],
        link: account,
      };
    }
    case 'transfer-due':
      return {
        subject: `Please transfer ${formatMoney(mail.amount, mail.currency)} for ${mail.tierName}`,
        lines: [
          `Transfer ${formatMoney(mail.amount, mail.currency)} to ${mail.payee}, account ${mail.account}${mail.bank ? `, ${mail.bank}` : ''}.`,
          `Write this reference with it, and nothing else: ${mail.reference}. It tells us that the money is yours.`,
          `Please see that it is there by ${day(mail.until)}.`,
        ],
        link: { label: 'See how it stands', path: mail.path },
      };
    case 'trial-ends':
      return {
        subject: `Your trial of ${mail.tierName} ends on ${day(mail.at)}`,
        lines: [
          `The trial of ${mail.tierName} ends on ${day(mail.at)}. Then ${takenWords(mail)}, and it continues: ${mail.sentence}`,
          'If it does not suit you, cancel in your account before then, with one click, and nothing is charged.',
        ],
        link: account,
      };
    case 'renewal-soon':
      return {
        subject: `${mail.tierName} renews on ${day(mail.at)}`,
        lines: [
          `${mail.tierName} renews on ${day(mail.at)}: ${takenWords(mail)}. You need do nothing.`,
          'If you would rather stop, cancel in your account before then: it stays open to you until that day.',
        ],
        link: account,
      };
    case 'card-expires':
      return {
        subject: `The card for ${mail.tierName} expires soon`,
        lines: [
          `The ${mail.methodLabel ?? 'card'} that pays for ${mail.tierName} can be charged until the end of ${monthWords(mail.expires)}. The next charge is on ${day(mail.at)}.`,
          'Fill in another card before then, and nothing is interrupted.',
        ],
        link: { label: 'Change the card', path: mail.path },
      };
    case 'price-changes':
      return {
        subject: `What ${mail.tierName} costs from ${day(mail.from)} on`,
        lines: [
          `Until now: ${mail.before}`,
          `From your next period, on ${day(mail.from)}: ${mail.after}`,
          ...(mail.approvePath
            ? ['Your wallet bills only what you told it yes to: please approve this before that day.']
            : []),
          'Nothing changes before that day. If it does not suit you, you can cancel in your account until then.',
        ],
        link: mail.approvePath ? { label: 'Approve it', path: mail.approvePath } : account,
      };
    case 'code': {
      const what = {
        'sign-in': `to sign in to ${frame.siteName}`,
        join: `to join ${frame.siteName}`,
        'new-address': `to use this email address at ${frame.siteName}`,
      }[mail.why];
      return {
        subject: `Your code ${what}`,
        lines: [
          `Type this code ${what}. It works once, for ${mail.minutes} minutes, in the browser where you asked for it.`,
          'Didn’t ask for a code? Ignore this email: nothing happens without the code.',
        ],
        code: mail.secret.code,
        link: { label: 'Or open this link in the same browser', path: mail.secret.path },
      };
    }
    case 'no-account':
      return {
        subject: `Signing in to ${frame.siteName}`,
        lines: [
          `Someone asked to sign in to ${frame.siteName} with this email address, but it has no account here.`,
          'If that was you, you may have joined with another address. If not, ignore this email.',
        ],
        link: { label: 'See how to join', path: '/join' },
      };
    case 'address-changed':
      return {
        subject: `Your address at ${frame.siteName} has changed`,
        lines: [
          `Your account now has the address ${mail.email}. Mail goes there from now on, and you sign in with it.`,
          'If it was not you, write to us at once.',
        ],
        link: account,
      };
    case 'unfinished':
      return {
        subject: `Finish joining ${mail.tierName}`,
        lines: [
          `You started to join ${frame.siteName} as ${mail.tierName}, but didn’t finish. Nothing was charged. This link takes you back to your checkout. It works once, for ${mail.days} days.`,
          'Changed your mind? You don’t need to do anything. This is the only reminder.',
        ],
        link: { label: 'Continue to checkout', path: mail.secret.path },
      };
    case 'cancelled':
      return {
        subject: `${mail.tierName} is cancelled`,
        lines: [
          `As you asked, ${mail.tierName} ends on ${mail.until ? formatUntil(mail.until, frame.zone) : 'a later day'}. Nothing more will be charged. Until then everything stays open to you, and you can change your mind.`,
        ],
        link: account,
      };
    case 'ended':
      return {
        subject: `${mail.tierName} has ended`,
        lines: [
          `${mail.tierName} has ended. Thank you for having been with us. You can join again whenever you like.`,
        ],
        link: { label: 'Join again', path: '/join' },
      };
    case 'ended-unpaid':
      return {
        subject: `${mail.tierName} has ended: the payment did not go through`,
        lines: [
          `We tried several times to collect the payment for ${mail.tierName}, and it was refused each time. ${mail.tierName} has ended, and no more tries will be made. You can join again with another card.`,
        ],
        link: { label: 'Join again', path: '/join' },
      };
  }
}

/** "2028-11" as "November 2028". */
function monthWords(month: string): string {
  const [year = 0, number = 1] = month.split('-').map(Number);
  return new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
    Date.UTC(year, number - 1),
  );
}

/** What a charge takes from whom: money, credit, or both. */
function takenWords({
  amount,
  credit,
  currency,
  methodLabel,
}: NextChargeTold & { methodLabel: string | null }): string {
  const fromCredit = `${formatMoney(credit, currency)} is taken from your credit`;
  if (amount === 0 && credit > 0) return fromCredit;
  const charged = `${formatMoney(amount, currency)} is charged${methodLabel ? ` to the ${methodLabel}` : ''}`;
  return credit > 0 ? `${charged} and ${fromCredit}` : charged;
}
