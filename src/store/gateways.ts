import type { Instant } from '@/core/calendar';
import { many, maybeOne, one, run, type Db } from './db';
import type { Mode } from './site';

export type GatewayAccount = {
  id: string;
  gateway: string;
  mode: Mode;
  label: string;
  siteKey: string;
  secretKeySealed: string;
  webhookRef: string | null;
  webhookSecretSealed: string | null;
  webhookError: string | null;
  heardAt: Instant | null;
  checkedAt: Instant;
  isOn: boolean;
};

export async function listGatewayAccounts(db: Db): Promise<GatewayAccount[]> {
  return many(db, 'SELECT * FROM gateway_accounts ORDER BY created_at');
}

export async function findGatewayAccount(db: Db, id: string): Promise<GatewayAccount | undefined> {
  return maybeOne(db, 'SELECT * FROM gateway_accounts WHERE id = $1', [id]);
}

/** The account that takes money in a mode: the first that is switched on. */
export async function findActiveAccount(db: Db, mode: Mode): Promise<GatewayAccount | undefined> {
  return maybeOne(
    db,
    'SELECT * FROM gateway_accounts WHERE mode = $1 AND is_on ORDER BY created_at LIMIT 1',
    [mode],
  );
}

/** Adds an account, or renews the secret of the one with the same site key. Instants of gateways are real time. */
export async function saveGatewayAccount(
  db: Db,
  account: Pick<GatewayAccount, 'gateway' | 'mode' | 'label' | 'siteKey' | 'secretKeySealed'>,
): Promise<GatewayAccount> {
  return one(
    db,
    `INSERT INTO gateway_accounts (gateway, mode, label, site_key, secret_key_sealed, checked_at) VALUES ($1, $2, $3, $4, $5, now())
     ON CONFLICT (gateway, site_key) DO UPDATE SET label = $3, secret_key_sealed = $5, checked_at = now(), is_on = true
     RETURNING *`,
    [account.gateway, account.mode, account.label, account.siteKey, account.secretKeySealed],
  );
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

export async function setAccountOn(db: Db, id: string, isOn: boolean): Promise<boolean> {
  return (await run(db, 'UPDATE gateway_accounts SET is_on = $2 WHERE id = $1', [id, isOn])) === 1;
}

export type GatewayEventState = 'new' | 'done' | 'ignored' | 'refused';
export type GatewayEventRow = {
  id: string;
  gatewayAccountId: string;
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
    gatewayAccountId: string;
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

export async function listGatewayEvents(
  db: Db,
  accountId: string,
  limit: number,
): Promise<GatewayEventRow[]> {
  return many(
    db,
    'SELECT * FROM gateway_events WHERE gateway_account_id = $1 ORDER BY received_at DESC LIMIT $2',
    [accountId, limit],
  );
}
