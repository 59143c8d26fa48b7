import { formatDate, type Instant } from '@/core/calendar';
import { formatMoney } from '@/core/money';

/** What each mail is about. Amounts in minor units; instants are shown as dates in the site's zone. */
export type MailContent =
  | {
      template: 'welcome' | 'switched';
      tierName: string;
      sentence: string;
      /** The owner's words after joining, as plain text; '' for none. */
      words: string;
      nextCharge: { at: Instant; amount: number; currency: string } | null;
    }
  | {
      template: 'receipt';
      tierName: string;
      amount: number;
      currency: string;
      joiningFee: number;
      /** Credit that was spent beside the payment. */
      credit: number;
      paidAt: Instant;
      methodLabel: string | null;
      nextCharge: { at: Instant; amount: number; currency: string } | null;
    }
  | {
      template:
        | 'payment-failed'
        | 'cancelled'
        | 'ended'
        | 'ended-unpaid'
        | 'moved'
        | 'paused'
        | 'resumed'
        | 'dispute-lost';
      tierName: string;
      nextTry: Instant | null;
      until: Instant | null;
      /** Of the offer it runs under from now on. */
      sentence: string;
    }
  | {
      template: 'refunded';
      tierName: string;
      amount: number;
      currency: string;
      /** Sent by staff themselves, because the gateway gives nothing back by a call. */
      byHand: boolean;
      endsAccess: boolean;
    }
  | {
      template: 'transfer-due';
      tierName: string;
      amount: number;
      currency: string;
      payee: string;
      account: string;
      bank: string;
      reference: string;
      until: Instant;
      path: string;
    }
  | { template: 'price-changes'; tierName: string; from: Instant; before: string; after: string }
  | { template: 'sign-in-link'; path: string; minutes: number }
  | { template: 'address-changed'; email: string }
  | { template: 'prove-address'; tierName: string; path: string }
  | { template: 'unfinished'; tierName: string; path: string; days: number };

export type MailFrame = { siteName: string; siteUrl: string; zone: string; firstName: string };

type Words = { subject: string; lines: string[]; link: { label: string; path: string } };

function words(mail: MailContent, frame: MailFrame): Words {
  const day = (at: Instant | null): string => (at ? formatDate(at, frame.zone) : 'later');
  const account = { label: 'Your account', path: '/account' };
  switch (mail.template) {
    case 'welcome':
    case 'switched':
      return {
        subject:
          mail.template === 'welcome'
            ? `Welcome to ${frame.siteName}, ${frame.firstName}`
            : `You now hold ${mail.tierName}`,
        lines: [
          `You now hold ${mail.tierName}. ${mail.sentence}`,
          ...mail.words.split(/\n+/).filter(Boolean),
          mail.nextCharge
            ? `The next charge is ${formatMoney(mail.nextCharge.amount, mail.nextCharge.currency)} on ${day(mail.nextCharge.at)}. You can cancel before then, in your account, with one click.`
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
          mail.nextCharge
            ? `The next charge is ${formatMoney(mail.nextCharge.amount, mail.nextCharge.currency)} on ${day(mail.nextCharge.at)}.`
            : 'Nothing more will be charged.',
        ],
        link: account,
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
          `${mail.tierName} is paused, as was asked. Nothing is charged and its pages are closed until you take it up again: the next period then begins that day.`,
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
        subject: `${money} goes back to you`,
        lines: [
          `We give back ${money} of what you paid for ${mail.tierName}. ${mail.byHand ? 'We send it to you ourselves; it takes a few days.' : 'It goes back the way it came; your bank may take a few days to show it.'}`,
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
    case 'price-changes':
      return {
        subject: `What ${mail.tierName} costs from ${day(mail.from)} on`,
        lines: [
          `Until now: ${mail.before}`,
          `From your next period, on ${day(mail.from)}: ${mail.after}`,
          'Nothing changes before that day. If it does not suit you, you can cancel in your account until then.',
        ],
        link: account,
      };
    case 'sign-in-link':
      return {
        subject: `Your link to sign in at ${frame.siteName}`,
        lines: [
          `Somebody, you we hope, asked for a link to sign in. It works once, for ${mail.minutes} minutes.`,
          'If it was not you, do nothing: without the link nothing happens.',
        ],
        link: { label: 'Sign in', path: mail.path },
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
    case 'prove-address':
      return {
        subject: `One more step to ${mail.tierName}`,
        lines: [
          `Somebody, you we hope, asked to join ${frame.siteName} with this address, for ${mail.tierName}. Follow the link to say that it is yours, and everything opens.`,
          'If it was not you, do nothing: without the link nothing happens.',
        ],
        link: { label: 'Yes, this is my address', path: mail.path },
      };
    case 'unfinished':
      return {
        subject: `Your joining of ${mail.tierName} waits for you`,
        lines: [
          `You began to join ${frame.siteName}, for ${mail.tierName}, and did not finish. Nothing was charged. The link brings you back to where you were; it works for ${mail.days} days.`,
          'If you have changed your mind, do nothing: this is the only reminder.',
        ],
        link: { label: 'Go on where you were', path: mail.path },
      };
    case 'cancelled':
      return {
        subject: `${mail.tierName} is cancelled`,
        lines: [
          `As you asked, ${mail.tierName} ends on ${day(mail.until)}. Nothing more will be charged. Until then everything stays open to you, and you can change your mind.`,
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

const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** The mail as subject, plain part and HTML part. Everything a person typed is escaped in the HTML. */
export function renderMail(
  mail: MailContent,
  frame: MailFrame,
): { subject: string; text: string; html: string } {
  const { subject, lines, link } = words(mail, frame);
  const url = `${frame.siteUrl}${link.path}`;
  const text = [`Hello ${frame.firstName},`, ...lines, `${link.label}: ${url}`, frame.siteName].join('\n\n');
  const paragraphs = [`Hello ${frame.firstName},`, ...lines]
    .map((line) => `<p style="margin:0 0 16px">${escape(line)}</p>`)
    .join('');
  const html = `<!doctype html><html lang="en"><body style="margin:0;background:#F6F3EC;color:#1D2B2F;font:16px/1.6 Georgia,serif">
<div style="max-width:560px;margin:0 auto;padding:32px 24px"><p style="margin:0 0 24px;font-size:18px;font-weight:bold">${escape(frame.siteName)}</p>
<div style="background:#FFFDF8;border:1px solid #DCD5C6;padding:24px">${paragraphs}
<p style="margin:0"><a href="${escape(url)}" style="color:#1F5A4C">${escape(link.label)}</a></p></div></div></body></html>`;
  return { subject, text, html };
}
