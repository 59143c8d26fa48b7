import type { Template } from './content';

/** What the owner is told of a mail, and what they may change. */
export type MailKind = {
  template: Template;
  name: string;
  when: string;
  /** Mails that something hangs on cannot be switched off. */
  canBeOff: boolean;
  /** Merge fields that it has besides those of every mail. */
  fields: ('tier' | 'amount' | 'date')[];
};

/** Fields that every mail has. */
export const COMMON_FIELDS = ['first name', 'name', 'e-mail', 'site'] as const;

const mail = (
  template: Template,
  name: string,
  when: string,
  fields: MailKind['fields'] = ['tier'],
  canBeOff = true,
): MailKind => ({ template, name, when, canBeOff, fields });

/** Every mail, in the order in which a member may get them. */
export const MAILS: MailKind[] = [
  mail(
    'code',
    'Confirmation code',
    'Someone joins, signs in without a password, or changes their email address.',
    [],
    false,
  ),
  mail('no-account', 'No account', 'Someone asks to sign in with an address that has no account.', [], false),
  mail('unfinished', 'Unfinished checkout', 'An hour after someone starts a checkout and leaves.'),
  mail('welcome', 'Welcome', 'Somebody has joined.'),
  mail('receipt', 'Receipt', 'A payment came.', ['tier', 'amount', 'date']),
  mail('transfer-due', 'Please transfer', 'A transfer is waited for.', ['tier', 'amount', 'date'], false),
  mail('trial-ends', 'Trial ends soon', 'Three days before the first charge after a trial.', [
    'tier',
    'amount',
    'date',
  ]),
  mail('renewal-soon', 'Renewal soon', 'Two weeks before a charge that comes after two months or more.', [
    'tier',
    'amount',
    'date',
  ]),
  mail('card-expires', 'Card expires soon', 'A month before the kept card cannot be charged any more.', [
    'tier',
    'date',
  ]),
  mail('payment-failed', 'Payment failed', 'Each time a charge is refused.', ['tier', 'date']),
  mail('switched', 'Switched', 'Somebody went over to another offer at once.'),
  mail('moved', 'Moved', 'A switch that was asked for comes at the end of a period.'),
  mail(
    'price-changes',
    'Price changes',
    'You move members to a new version of an offer.',
    ['tier', 'date'],
    false,
  ),
  mail('paused', 'Paused', 'A pause begins.'),
  mail('resumed', 'Goes on', 'A pause is over.'),
  mail('cancelled', 'Cancelled', 'Somebody cancels; it runs on to the end of what is paid.', [
    'tier',
    'date',
  ]),
  mail('ended', 'Ended', 'What was held is over.'),
  mail('ended-unpaid', 'Ended unpaid', 'The last try to charge was refused.'),
  mail('refunded', 'Refund', 'Money is refunded.', ['tier', 'amount']),
  mail('dispute-lost', 'Dispute lost', 'A bank took a payment back.'),
  mail('address-changed', 'Address changed', 'A member has another address; the old one is told.', [], false),
];

export const mailKind = (template: string): MailKind | undefined =>
  MAILS.find((kind) => kind.template === template);

export const fieldsOf = (kind: MailKind): string[] => [...COMMON_FIELDS, ...kind.fields];

/** Emails that grant access. The secret is deleted once they are sent or given up, so they cannot be resent. */
export const HOLDS_SECRET: Template[] = ['code', 'unfinished'];
