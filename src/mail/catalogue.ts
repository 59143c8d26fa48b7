import { code } from './mails/code';
import { noAccount } from './mails/no-account';
import { readLink } from './mails/read-link';
import { unfinished } from './mails/unfinished';
import { welcome } from './mails/welcome';
import { gift } from './mails/gift';
import { signInLink } from './mails/sign-in-link';
import { joinInvite } from './mails/join-invite';
import { staffInvite } from './mails/staff-invite';
import { boughtCode } from './mails/bought-code';
import { bought } from './mails/bought';
import { receipt } from './mails/receipt';
import { transferDue } from './mails/transfer-due';
import { trialEnds } from './mails/trial-ends';
import { renewalSoon } from './mails/renewal-soon';
import { cardExpires } from './mails/card-expires';
import { paymentFailed } from './mails/payment-failed';
import { switched } from './mails/switched';
import { moved } from './mails/moved';
import { priceChanges } from './mails/price-changes';
import { paused } from './mails/paused';
import { resumed } from './mails/resumed';
import { cancelled } from './mails/cancelled';
import { ended } from './mails/ended';
import { endedUnpaid } from './mails/ended-unpaid';
import { refunded } from './mails/refunded';
import { disputeLost } from './mails/dispute-lost';
import { commentReply } from './mails/comment-reply';
import { confirmMails } from './mails/confirm-mails';
import { letter } from './mails/letter';
import { newPost } from './mails/new-post';
import { addressChanged } from './mails/address-changed';
import { passkeyAdded } from './mails/passkey-added';
import type { MailDefinition, MailFrame, MailWords, SampleFacts } from './define';
import type { Instant } from '@/core/instants';

/** Every mail, in the order in which a member may get them. A new one is added here. */
export const MAILS = [
  code,
  noAccount,
  signInLink,
  staffInvite,
  joinInvite,
  readLink,
  unfinished,
  welcome,
  gift,
  receipt,
  bought,
  boughtCode,
  transferDue,
  trialEnds,
  renewalSoon,
  cardExpires,
  paymentFailed,
  switched,
  moved,
  priceChanges,
  paused,
  resumed,
  cancelled,
  ended,
  endedUnpaid,
  refunded,
  disputeLost,
  commentReply,
  newPost,
  letter,
  confirmMails,
  addressChanged,
  passkeyAdded,
] as const;

type Defined = (typeof MAILS)[number];
export type Template = Defined['template'];
type FactsOf<T extends Template> =
  Extract<Defined, { template: T }> extends MailDefinition<T, infer Facts> ? Facts : never;
/** What each mail is about. */
export type MailContent = { [T in Template]: { template: T } & FactsOf<T> }[Template];
export type MailKind = MailDefinition<Template, MailContent>;

// A definition is only ever given the facts of its own template.
const KINDS = MAILS as unknown as readonly MailKind[];

export const mailKind = (template: string): MailKind | undefined =>
  KINDS.find((kind) => kind.template === template);

/** @throws where there is no such mail */
function kindOf(template: Template): MailKind {
  const kind = mailKind(template);
  if (!kind) throw new Error(`no mail is called “${template}”`);
  return kind;
}

export const mailWords = (mail: MailContent, frame: MailFrame): MailWords =>
  kindOf(mail.template).words(mail, frame);

/** The value of the merge field `date` in a mail; null where it has none. */
export const mailDate = (mail: MailContent): Instant | null => kindOf(mail.template).date?.(mail) ?? null;

/** A sample of a mail, as it would be written to a member. */
export const sampleOf = (template: Template, of: SampleFacts): MailContent =>
  ({
    ...kindOf(template).sample(of),
    template,
  }) as MailContent;

/** Fields that every mail has. */
export const COMMON_FIELDS = ['first name', 'name', 'email', 'site'] as const;

export const fieldsOf = (kind: Pick<MailKind, 'fields'>): string[] => [...COMMON_FIELDS, ...kind.fields];

/** Emails that grant access. The secret is deleted once they are sent or given up, so they cannot be resent. */
export const HOLDS_SECRET: Template[] = [
  'code',
  'sign-in-link',
  'staff-invite',
  'unfinished',
  'read-link',
  'confirm-mails',
  'join-invite',
  'bought',
  'bought-code',
];
