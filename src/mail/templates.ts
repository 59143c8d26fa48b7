import { formatDate, type Instant } from '@/core/calendar';
import { formatMoney } from '@/core/money';

/** What each mail is about. Amounts in minor units; instants are shown as dates in the site's zone. */
export type MailContent =
  | {
      template: 'welcome';
      tierName: string;
      sentence: string;
      nextCharge: { at: Instant; amount: number; currency: string } | null;
    }
  | {
      template: 'receipt';
      tierName: string;
      amount: number;
      currency: string;
      joiningFee: number;
      paidAt: Instant;
      methodLabel: string | null;
      nextCharge: { at: Instant; amount: number; currency: string } | null;
    }
  | { template: 'payment-failed'; tierName: string; nextTry: Instant | null; until: Instant | null }
  | { template: 'cancelled'; tierName: string; until: Instant | null; nextTry: Instant | null }
  | { template: 'ended'; tierName: string; until: Instant | null; nextTry: Instant | null }
  | { template: 'ended-unpaid'; tierName: string; until: Instant | null; nextTry: Instant | null };

export type MailFrame = { siteName: string; siteUrl: string; zone: string; firstName: string };

type Words = { subject: string; lines: string[]; link: { label: string; path: string } };

function words(mail: MailContent, frame: MailFrame): Words {
  const day = (at: Instant | null): string => (at ? formatDate(at, frame.zone) : 'later');
  const account = { label: 'Your account', path: '/account' };
  switch (mail.template) {
    case 'welcome':
      return {
        subject: `Welcome to ${frame.siteName}, ${frame.firstName}`,
        lines: [
          `You are now ${article(mail.tierName)} ${mail.tierName}. ${mail.sentence}`,
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
      return {
        subject: `Receipt: ${formatMoney(mail.amount, mail.currency)} for ${mail.tierName}`,
        lines: [
          `We received ${formatMoney(mail.amount, mail.currency)} on ${day(mail.paidAt)} for ${mail.tierName}${mail.methodLabel ? `, from the ${mail.methodLabel}` : ''}.${fee}`,
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

const article = (name: string): string => (/^[aeiou]/i.test(name) ? 'an' : 'a');
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
