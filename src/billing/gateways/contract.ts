import type { Instant, LocalMonth } from '@/core/instants';
import type { BillingStage, Carries } from '@/core/offers/carries';
import type { Mode } from '@/platform/store/site';
import type { Problem } from '@/core/problem';
import { isProblemCode, type ProblemCode } from '@/words/problems';

/**
 * What every gateway adapter can do. Adapters speak HTTP and nothing else: they neither read nor write the
 * database. Amounts are in minor units of the ISO 4217 currency beside them; instants are UTC.
 */
export type Keys = { siteKey: string; secretKey: string };
export type KeyField = 'siteKey' | 'secretKey';
export type KeyProblem = { field: KeyField; problem: Problem<ProblemCode> };

/**
 * card: the gateway keeps a card, we say when to charge. wallet: the payer approves on the wallet's page, and the
 * wallet bills by itself. transfer: the payer sends money with a reference, and staff confirm that it arrived.
 */
export type Nature = 'card' | 'wallet' | 'transfer';

export type SavedMethod = {
  state: 'saved';
  customerRef: string;
  methodRef: string;
  /** As `words/methods` writes it, in no language. */
  label: string;
  /** The last month in which it can pay, "2029-09"; null where that is not known. */
  expires: LocalMonth | null;
};

export type Declined = { state: 'declined'; ref: string | null; code: DeclineCode };
/** The gateway gave no answer that can be trusted. The outcome must be asked for, never guessed. */
export type Unknown = { state: 'unknown'; reason: string };
/** The money is the payer's or the wallet's to send: it is heard of later, and asked for by nobody. */
export type Awaited = { state: 'awaited' };
export type ChargeOutcome = { state: 'succeeded'; ref: string } | Declined | Unknown | Awaited;
/** `by-hand`: this gateway gives nothing back by a call; staff send the money themselves. */
export type RefundOutcome =
  { state: 'succeeded'; ref: string } | { state: 'refused'; reason: string } | { state: 'by-hand' } | Unknown;

export const DECLINE_CODES = [
  'declined',
  'no-funds',
  'expired',
  'bad-token',
  'needs-confirmation',
  'not-paid',
  'bad-request',
] as const;
export type DeclineCode = (typeof DECLINE_CODES)[number];

export type GatewayPayment = {
  ref: string;
  /** The idempotency key it was made with; null where the gateway billed by itself. */
  key: string | null;
  /** The agreement under which it was billed. */
  agreementRef: string | null;
  state: 'succeeded' | 'declined';
  code: DeclineCode | null;
  amount: number;
  currency: string;
  at: Instant;
  refunds: { ref: string; key: string | null; amount: number }[];
  dispute: 'open' | 'won' | 'lost' | null;
};

/** How a payment ended, as a charge's outcome. */
export function outcomeOf({
  state,
  ref,
  code,
}: GatewayPayment): { state: 'succeeded'; ref: string } | Declined {
  return state === 'succeeded' ? { state, ref } : { state, ref, code: code ?? 'declined' };
}

export type NewAgreement = {
  currency: string;
  /** The site's zone, in which the wallet counts its periods as we do. */
  zone: string;
  startsAt: Instant;
  stages: BillingStage[];
  /** Where the first stage has run before: when it began, and how many of its periods are gone. Its calendar continues. */
  takesUp: { from: Instant; n: number } | null;
  /** Days after a first failure at which the wallet tries again. */
  retryDays: number[];
  /** Where the payer comes back to, whatever they decide. */
  returnUrl: string;
  note: string;
  idempotencyKey: string;
};
export type Agreement = { ref: string; state: 'asked' | 'running' | 'ended' | 'refused'; approveUrl: string };

export type WebhookReading =
  { ok: true; messageId: string; payload: WebhookPayload } | { ok: false; reason: string };
/** A message is a hint: the payment or agreement it names is fetched. */
export type WebhookPayload = { type: string; paymentRef?: string; agreementRef?: string };

export type Answer<T> = ({ ok: true } & T) | { ok: false; reason: string };

export interface Gateway {
  readonly id: string;
  /** Its name, as people read it. */
  readonly name: string;
  /** What it is called at checkout until the owner renames it; null for its own name. */
  readonly payLabel: 'pay.card' | 'pay.transfer' | null;
  readonly nature: Nature;
  readonly carries: Carries;
  /** keys: pasted; consent: given on the gateway's own page; details: told by the owner, nobody is asked. */
  readonly connectedBy: 'keys' | 'consent' | 'details';
  readonly hasWebhooks: boolean;
  /** Where an owner finds the keys to paste, and how they begin in a mode; null where none are pasted. */
  readonly pasted: { page: string; example: (field: KeyField, mode: Mode) => string } | null;
  /** What is wrong with pasted keys by their form alone; null where nothing is. */
  inspectKeys(keys: Keys, mode: Mode): KeyProblem | null;
  /** Asks the gateway whether it knows the keys, and whether the two belong together. */
  checkKeys(
    keys: Keys,
  ): Promise<
    { ok: true; accountName: string } | { ok: false; field: KeyField | null; problem: Problem<ProblemCode> }
  >;
  /** Where the owner gives consent; the gateway brings them back to `back` with `state` and a code. */
  consentUrl(asked: { back: string; state: string; mode: Mode; siteName: string }): string | null;
  /** Trades the code of the consent page for keys. A code works once. */
  keysFromConsent(code: string): Promise<Answer<{ keys: Keys; mode: Mode; accountName: string }>>;
  /** Tells the gateway where to send its messages; the answer's `secret` signs them. Replaces an earlier address. */
  registerWebhook(
    keys: Keys,
    address: string,
    siteName: string,
  ): Promise<Answer<{ ref: string; secret: string }>>;
  /** Asks for a signed test message to be sent, to one address or (null) to all. */
  requestPing(keys: Keys, webhookRef: string | null): Promise<Answer<object>>;
  /** Reads a message, where its signature and time are right. */
  readWebhook(secret: string, headers: Record<string, string>, body: string): WebhookReading;
  /**
   * The page of the gateway that is framed in checkout, and the origin that its messages come from; null: none. The page
   * and checkout speak as `card-frame.ts` says.
   */
  frame(siteKey: string, parentOrigin: string): { url: string; origin: string } | null;
  /** Saves the card behind the frame's token for later charges. */
  saveMethod(
    keys: Keys,
    method: { token: string; email: string; idempotencyKey: string },
  ): Promise<SavedMethod | Declined | Unknown>;
  /** Charges a saved method; where the money is not ours to take, it is awaited. The same key is never charged twice. */
  charge(
    keys: Keys,
    charge: {
      customerRef: string;
      methodRef: string;
      amount: number;
      currency: string;
      idempotencyKey: string;
      note: string;
    },
  ): Promise<ChargeOutcome>;
  /** Refunds a payment, in full or in part. The same key is never refunded twice. */
  refund(
    keys: Keys,
    refund: { paymentRef: string; amount: number; idempotencyKey: string },
  ): Promise<RefundOutcome>;
  /** What the gateway knows of a payment, by idempotency key or by its own reference; null: it never heard of it. */
  findPayment(
    keys: Keys,
    by: { key: string } | { ref: string },
  ): Promise<Answer<{ payment: GatewayPayment | null }>>;
  /** Every payment of the account, or of one agreement, oldest first. */
  listPayments(keys: Keys, agreementRef?: string): Promise<Answer<{ payments: GatewayPayment[] }>>;
  /** Asks the payer to approve what will be billed, on the wallet's page. The same key asks once. */
  beginAgreement(keys: Keys, agreement: NewAgreement): Promise<Answer<{ agreement: Agreement }>>;
  findAgreement(keys: Keys, ref: string): Promise<Answer<{ agreement: Agreement | null }>>;
  /** Asks for an agreement to be ended; whether it was is for `findAgreement` to say. */
  endAgreement(keys: Keys, ref: string): Promise<Answer<object>>;
  /** In test mode, tells a gateway that bills by itself what time it is; it never goes back. */
  setRehearsalTime(keys: Keys, now: Instant): Promise<Answer<object>>;
}

/** For adapters: what a gateway of another nature is never asked. */
export const NOT_A_CARD: Pick<Gateway, 'frame' | 'saveMethod'> = {
  frame: () => null,
  saveMethod: () => Promise.resolve({ state: 'declined', ref: null, code: 'bad-token' }),
};
const cannot = (reason: string) => () => Promise.resolve({ ok: false as const, reason });
export const NOT_A_WALLET: Pick<
  Gateway,
  'beginAgreement' | 'findAgreement' | 'endAgreement' | 'setRehearsalTime'
> = {
  beginAgreement: cannot('this gateway keeps no agreements'),
  findAgreement: cannot('this gateway keeps no agreements'),
  endAgreement: cannot('this gateway keeps no agreements'),
  setRehearsalTime: () => Promise.resolve({ ok: true }),
};
export const NO_CONSENT: Pick<Gateway, 'consentUrl' | 'keysFromConsent'> = {
  consentUrl: () => null,
  keysFromConsent: cannot('this gateway has no consent page'),
};

/** Why a payment was refused, in a word or two for staff. */
export function declineWords(code: string): string {
  return (
    {
      'no-funds': 'no funds',
      expired: 'card expired',
      'bad-token': 'card details unusable',
      'needs-confirmation': 'wants the payer’s confirmation',
      'not-paid': 'not paid in time',
      'bad-request': 'the gateway cannot charge this',
      'no-method': 'no payment method',
    }[code] ?? 'refused by the bank'
  );
}

/** Why a payment was refused, in a sentence that says what to do next. */
export function declineProblem(code: string): Problem<ProblemCode> {
  const known = `declined.${code}`;
  return { code: isProblemCode(known) ? known : 'declined.other' };
}
