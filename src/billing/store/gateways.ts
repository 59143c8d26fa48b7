import { z } from 'zod';
import type { Instant } from '@/core/instants';
import { many, maybeOne, one, run, type Db, prepared } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import { sealedColumn } from '@/platform/store/sealed';
import type { GatewayAccountId, MemberId } from '@/core/ids';

export type GatewayAccount = {
  id: GatewayAccountId;
  gateway: string;
  /** Of the gateway, as its adapter says. */
  nature: 'card' | 'wallet' | 'transfer';
  mode: Mode;
  label: string;
  siteKey: string;
  secretKeySealed: string;
  webhookRef: string | null;
  webhookSecretSealed: string | null;
  webhookError: string | null;
  heardAt: Instant | null;
  checkedAt: Instant;
  /** Whether people can choose it at checkout; subscriptions that pay through it continue either way. */
  atCheckout: boolean;
  position: number;
  /** What a gateway without keys was told by the owner. */
  settings: TransferSettings | Record<string, never>;
  lastError: string | null;
  lastErrorAt: Instant | null;
};
/** Whom and where a transfer pays, and how many days it may take. */
const transferSettingsSchema = z.object({
  payee: z.string(),
  account: z.string(),
  bank: z.string(),
  daysToPay: z.number(),
});
export type TransferSettings = z.infer<typeof transferSettingsSchema>;

const SETTINGS = { settings: z.union([transferSettingsSchema, z.record(z.string(), z.never())]) };
const ACCOUNT = `id, gateway, nature, mode, label, site_key, secret_key_sealed, webhook_ref, webhook_secret_sealed, webhook_error, heard_at,
  checked_at, at_checkout, position, settings, last_error, last_error_at`;

const LIST_GATEWAY_ACCOUNTS = prepared(
  'list-gateway-accounts',
  `SELECT ${ACCOUNT} FROM gateway_accounts WHERE disconnected_at IS NULL ORDER BY mode, position, created_at`,
);

export async function listGatewayAccounts(db: Db): Promise<GatewayAccount[]> {
  return many(db, LIST_GATEWAY_ACCOUNTS, [], SETTINGS);
}

const FIND_GATEWAY_ACCOUNT = prepared(
  'find-gateway-account',
  `SELECT ${ACCOUNT} FROM gateway_accounts WHERE id = $1`,
);

export async function findGatewayAccount(db: Db, id: string): Promise<GatewayAccount | undefined> {
  return maybeOne(db, FIND_GATEWAY_ACCOUNT, [id], SETTINGS);
}

/** The accounts that people can choose between at checkout in a mode, in the owner's order. */
export async function listCheckoutAccounts(db: Db, mode: Mode): Promise<GatewayAccount[]> {
  return many(
    db,
    `SELECT ${ACCOUNT} FROM gateway_accounts WHERE mode = $1 AND at_checkout AND disconnected_at IS NULL ORDER BY position, created_at`,
    [mode],
    SETTINGS,
  );
}

/** Adds an account, or renews the secret of the one with the same site key. Instants of gateways are real time. */
export async function saveGatewayAccount(
  db: Db,
  account: Pick<
    GatewayAccount,
    'gateway' | 'nature' | 'mode' | 'label' | 'siteKey' | 'secretKeySealed' | 'settings'
  >,
): Promise<GatewayAccount> {
  return one(
    db,
    `INSERT INTO gateway_accounts (gateway, mode, label, site_key, secret_key_sealed, settings, nature, checked_at, position)
     VALUES ($1, $2, $3, $4, $5, $6, $7, now(), (SELECT count(*) FROM gateway_accounts))
     ON CONFLICT (gateway, site_key) DO UPDATE SET secret_key_sealed = $5, settings = $6, checked_at = now(), at_checkout = true, last_error = NULL, disconnected_at = NULL
     RETURNING ${ACCOUNT}`,
    [
      account.gateway,
      account.mode,
      account.label,
      account.siteKey,
      account.secretKeySealed,
      account.settings,
      account.nature,
    ],
    SETTINGS,
  );
}

/** Forgets the keys of an account, and takes it off checkout. What was paid through it stays. Real time. */
export async function setDisconnected(db: Db, id: string, at: Instant): Promise<void> {
  await run(
    db,
    `UPDATE gateway_accounts SET disconnected_at = $2, at_checkout = false, secret_key_sealed = '', webhook_ref = NULL,
       webhook_secret_sealed = NULL, webhook_error = NULL, last_error = NULL WHERE id = $1`,
    [id, at],
  );
}

/** What still needs an account: subscriptions that will be charged through it, and money that is under way. */
export async function countOnAccount(
  db: Db,
  id: string,
): Promise<{ subscriptions: number; payments: number; refunds: number }> {
  const row = await one<{ subscriptions: bigint; payments: bigint; refunds: bigint }>(
    db,
    `SELECT
       (SELECT count(*) FROM subscriptions WHERE gateway_account_id = $1 AND state <> 'ended' AND (due_at IS NOT NULL OR state IN ('pending', 'paused'))) AS subscriptions,
       (SELECT count(*) FROM payments WHERE gateway_account_id = $1 AND state = 'intent') AS payments,
       (SELECT count(*) FROM refunds r JOIN payments p ON p.id = r.payment_id WHERE p.gateway_account_id = $1 AND r.state = 'asked') AS refunds`,
    [id],
  );
  return {
    subscriptions: Number(row.subscriptions),
    payments: Number(row.payments),
    refunds: Number(row.refunds),
  };
}

export async function setWebhook(
  db: Db,
  id: string,
  webhook: { ref: string; secretSealed: string } | { error: string },
): Promise<void> {
  const [ref, secret, error] =
    'error' in webhook ? [null, null, webhook.error] : [webhook.ref, webhook.secretSealed, null];
  await run(
    db,
    `UPDATE gateway_accounts SET webhook_ref = $2, webhook_secret_sealed = $3, webhook_error = $4, heard_at = NULL WHERE id = $1`,
    [id, ref, secret, error],
  );
}

export async function setHeard(db: Db, id: string): Promise<void> {
  await run(db, 'UPDATE gateway_accounts SET heard_at = now() WHERE id = $1', [id]);
}

/** An account at checkout. */
export async function arrangeAccount(
  db: Db,
  id: string,
  a: Pick<GatewayAccount, 'label' | 'position' | 'atCheckout'>,
): Promise<void> {
  await run(db, 'UPDATE gateway_accounts SET label = $2, position = $3, at_checkout = $4 WHERE id = $1', [
    id,
    a.label,
    a.position,
    a.atCheckout,
  ]);
}

/** What went wrong last in talking with an account; null: it answers again. */
export async function noteAccountError(db: Db, id: string, error: string | null): Promise<void> {
  await run(
    db,
    `UPDATE gateway_accounts SET last_error = $2, last_error_at = CASE WHEN $2::text IS NULL THEN last_error_at ELSE now() END
     WHERE id = $1 AND last_error IS DISTINCT FROM $2`,
    [id, error],
  );
}

export async function setChecked(db: Db, id: string): Promise<void> {
  await run(db, 'UPDATE gateway_accounts SET checked_at = now(), last_error = NULL WHERE id = $1', [id]);
}

export async function insertConsent(
  db: Db,
  c: { stateHash: Buffer; gateway: string; mode: Mode; staffId: MemberId },
): Promise<void> {
  await run(db, 'INSERT INTO consents (state_hash, gateway, mode, staff_id) VALUES ($1, $2, $3, $4)', [
    c.stateHash,
    c.gateway,
    c.mode,
    c.staffId,
  ]);
}

/** Takes what was asked of a consent page, once; it is good for an hour. */
export async function takeConsent(
  db: Db,
  stateHash: Buffer,
): Promise<{ gateway: string; mode: Mode; staffId: MemberId } | undefined> {
  return maybeOne(
    db,
    `DELETE FROM consents WHERE state_hash = $1 AND created_at > now() - interval '1 hour' RETURNING gateway, mode, staff_id`,
    [stateHash],
  );
}

/** What was sent, whatever it is. */
const PAYLOAD = { payload: z.looseObject({ type: z.string().optional() }).catch({}) };

export type GatewayEventState = 'new' | 'done' | 'ignored' | 'refused';
export type GatewayEventRow = {
  id: string;
  gatewayAccountId: GatewayAccountId;
  messageId: string;
  payload: { type?: string; [key: string]: unknown };
  state: GatewayEventState;
  result: string;
  attempts: number;
  receivedAt: Instant;
};

/** Stores a message. False: one with this id is here already. */
export async function insertGatewayEvent(
  db: Db,
  event: {
    gatewayAccountId: GatewayAccountId;
    messageId: string;
    payload: unknown;
    state: 'new' | 'refused';
    result: string;
  },
): Promise<boolean> {
  const added = await run(
    db,
    `INSERT INTO gateway_events (gateway_account_id, message_id, payload, state, result) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT (gateway_account_id, message_id) WHERE state <> 'refused' DO NOTHING`,
    [event.gatewayAccountId, event.messageId, JSON.stringify(event.payload), event.state, event.result],
  );
  return added === 1;
}

/** Takes new messages for processing; each comes again after the lease unless it is finished by then. */
export async function claimGatewayEvents(
  db: Db,
  limit: number,
  leaseSeconds: number,
): Promise<GatewayEventRow[]> {
  return many(
    db,
    `UPDATE gateway_events SET attempts = attempts + 1, next_attempt_at = now() + make_interval(secs => $2)
     WHERE id IN (
       SELECT id FROM gateway_events WHERE state = 'new' AND next_attempt_at <= now()
       ORDER BY received_at LIMIT $1 FOR UPDATE SKIP LOCKED
     ) RETURNING *`,
    [limit, leaseSeconds],
    PAYLOAD,
  );
}

export async function finishGatewayEvent(
  db: Db,
  id: string,
  state: 'done' | 'ignored',
  result: string,
): Promise<void> {
  await run(db, 'UPDATE gateway_events SET state = $2, result = $3 WHERE id = $1', [id, state, result]);
}

export async function postponeGatewayEvent(
  db: Db,
  id: string,
  result: string,
  seconds: number,
): Promise<void> {
  await run(
    db,
    `UPDATE gateway_events SET result = $2, next_attempt_at = now() + make_interval(secs => $3) WHERE id = $1`,
    [id, result, seconds],
  );
}

/** Messages, newest first; of one account and in one state where these are given. */
export async function listGatewayEvents(
  db: Db,
  limit: number,
  {
    accountId = null,
    mode = null,
    state = null,
  }: { accountId?: GatewayAccountId | null; mode?: Mode | null; state?: string | null },
): Promise<GatewayEventRow[]> {
  return many(
    db,
    `SELECT e.* FROM gateway_events e JOIN gateway_accounts a ON a.id = e.gateway_account_id
     WHERE ($1::uuid IS NULL OR a.id = $1) AND ($2::money_mode IS NULL OR a.mode = $2) AND ($3::text IS NULL OR e.state = $3)
     ORDER BY e.received_at DESC LIMIT $4`,
    [accountId, mode, state, limit],
    PAYLOAD,
  );
}

/** How many messages came in a mode, or of those, how many are in a state. */
export async function countGatewayEvents(
  db: Db,
  { mode, state }: { mode: Mode; state: string | null },
): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) FROM gateway_events e JOIN gateway_accounts a ON a.id = e.gateway_account_id
     WHERE a.mode = $1 AND ($2::text IS NULL OR e.state = $2)`,
    [mode, state],
  );
  return Number(count);
}

/** Has a message processed once more, from the beginning. False: it is refused, or unknown. */
export async function reopenGatewayEvent(db: Db, id: string): Promise<boolean> {
  const changed = await run(
    db,
    `UPDATE gateway_events SET state = 'new', attempts = 0, next_attempt_at = now() WHERE id = $1 AND state <> 'refused'`,
    [id],
  );
  return changed === 1;
}

export const SEALED_KEYS = [
  sealedColumn('gateway secret keys', 'gateway_accounts', 'secret_key_sealed'),
  sealedColumn('webhook secrets', 'gateway_accounts', 'webhook_secret_sealed'),
];

const comparisonSchema = z.union([
  /** A bank has no list of its own to compare with. */
  z.object({ ok: z.literal(true), none: z.literal(true) }),
  z.object({ ok: z.literal(false), reason: z.string() }),
  z.object({
    ok: z.literal(true),
    /** Payments in the gateway's list; those that are under way; those that differ, and the first of them. */
    compared: z.number(),
    open: z.number(),
    differ: z.number(),
    differences: z.array(z.object({ key: z.string(), ours: z.string(), theirs: z.string() })),
  }),
]);
/** How an account's books compare with the gateway's own list. */
export type Comparison = z.infer<typeof comparisonSchema>;

/** The last comparison of an account's books, and when it was; real time. Null before the first. */
export async function findComparison(
  db: Db,
  accountId: GatewayAccountId,
): Promise<{ comparison: Comparison; comparedAt: Instant } | null> {
  const found = await maybeOne<{ comparison: Comparison | null; comparedAt: Instant | null }>(
    db,
    'SELECT comparison, compared_at FROM gateway_accounts WHERE id = $1',
    [accountId],
    { comparison: comparisonSchema },
  );
  return found?.comparison && found.comparedAt
    ? { comparison: found.comparison, comparedAt: found.comparedAt }
    : null;
}

export async function saveComparison(
  db: Db,
  accountId: GatewayAccountId,
  comparison: Comparison,
): Promise<void> {
  await run(
    db,
    'UPDATE gateway_accounts SET comparison = $2, compared_at = now(), comparing_until = NULL WHERE id = $1',
    [accountId, comparison],
  );
}

/** The account that was compared longest ago, at least so many minutes; leased for `leaseSeconds`, so that one worker compares it. */
export async function claimComparison(
  db: Db,
  minutes: number,
  leaseSeconds: number,
): Promise<string | undefined> {
  const claimed = await maybeOne<{ id: string }>(
    db,
    `UPDATE gateway_accounts SET comparing_until = now() + make_interval(secs => $2) WHERE id = (
       SELECT id FROM gateway_accounts
       WHERE nature <> 'transfer' AND disconnected_at IS NULL AND (compared_at IS NULL OR compared_at < now() - make_interval(mins => $1))
         AND (comparing_until IS NULL OR comparing_until < now())
       ORDER BY compared_at NULLS FIRST LIMIT 1 FOR UPDATE SKIP LOCKED)
     RETURNING id`,
    [minutes, leaseSeconds],
  );
  return claimed?.id;
}
