import type { Mode } from '@/store/site';

/**
 * What every gateway adapter can do. Adapters speak HTTP and nothing else: they neither read nor write the
 * database. Amounts are in minor units of the ISO 4217 currency beside them.
 */
export type Keys = { siteKey: string; secretKey: string };
export type KeyField = 'siteKey' | 'secretKey';
export type KeyProblem = { field: KeyField; message: string };

export type SavedMethod = {
  state: 'saved';
  customerRef: string;
  methodRef: string;
  /** For people: "card ending 0017, expires 09/29". */
  label: string;
};

export type Declined = { state: 'declined'; ref: string | null; code: DeclineCode };
/** The gateway gave no answer that can be trusted. The outcome must be asked for, never guessed. */
export type Unknown = { state: 'unknown'; reason: string };
export type ChargeOutcome = { state: 'succeeded'; ref: string } | Declined | Unknown;

export const DECLINE_CODES = ['declined', 'no-funds', 'expired', 'bad-token'] as const;
export type DeclineCode = (typeof DECLINE_CODES)[number];

export type GatewayPayment = {
  ref: string;
  /** The idempotency key it was made with. */
  key: string;
  state: 'succeeded' | 'declined';
  code: DeclineCode | null;
  amount: number;
  currency: string;
};

export type WebhookReading =
  { ok: true; messageId: string; payload: WebhookPayload } | { ok: false; reason: string };
export type WebhookPayload = { type: string; paymentRef?: string };

export type Answer<T> = ({ ok: true } & T) | { ok: false; reason: string };

export interface Gateway {
  readonly id: string;
  /** Its name, as people read it. */
  readonly name: string;
  /** What is wrong with pasted keys by their form alone; null where nothing is. */
  inspectKeys(keys: Keys, mode: Mode): KeyProblem | null;
  /** Asks the gateway whether it knows the keys, and whether the two belong together. */
  checkKeys(
    keys: Keys,
  ): Promise<{ ok: true; accountName: string } | { ok: false; field: KeyField | null; message: string }>;
  /** Tells the gateway where to send its messages; the answer's `secret` signs them. Replaces an earlier address. */
  registerWebhook(keys: Keys, address: string): Promise<Answer<{ ref: string; secret: string }>>;
  /** Asks for a signed test message to be sent. */
  requestPing(keys: Keys, webhookRef: string): Promise<Answer<object>>;
  /** Reads a message, where its signature and time are right. */
  readWebhook(secret: string, headers: Record<string, string>, body: string): WebhookReading;
  /** The page of the gateway that is framed in checkout, and the origin that its messages come from. */
  frame(siteKey: string, parentOrigin: string): { url: string; origin: string };
  /** Keeps what the frame's token stands for, for later charges. */
  saveMethod(
    keys: Keys,
    method: { token: string; email: string; idempotencyKey: string },
  ): Promise<SavedMethod | Declined | Unknown>;
  /** Charges a saved method. The same idempotency key is never charged twice. */
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
  /** What the gateway knows of a payment, by idempotency key or by its own reference; null: it never heard of it. */
  findPayment(
    keys: Keys,
    by: { key: string } | { ref: string },
  ): Promise<Answer<{ payment: GatewayPayment | null }>>;
  /** Every payment of the account, oldest first. */
  listPayments(keys: Keys): Promise<Answer<{ payments: GatewayPayment[] }>>;
}

/** Why a payment was refused, in a word or two for staff. */
export function declineWords(code: string): string {
  return (
    { 'no-funds': 'no funds', expired: 'card expired', 'bad-token': 'card details unusable' }[code] ??
    'refused by the bank'
  );
}

/** Why a payment was refused, in a sentence that says what to do next. */
export function declineSentence(code: string): string {
  switch (code) {
    case 'no-funds':
      return 'There is not enough money on this card. Use another card, or try again when there is.';
    case 'expired':
      return 'This card has expired. Use another card.';
    case 'bad-token':
      return 'The card details could not be used. Type them again.';
    default:
      return 'The card’s bank refused it. Use another card, or ask the bank why.';
  }
}
