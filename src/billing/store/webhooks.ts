import type { Instant } from '@/core/instants';
import type { WebhookTopic } from '@/core/webhooks';
import { many, maybeOne, one, run, type Db } from '@/platform/store/db';
import { sealedColumn } from '@/platform/store/sealed';
import type { Mode } from '@/platform/store/site';

export type Webhook = {
  id: string;
  url: string;
  topics: WebhookTopic[];
  /** Ids; null: all. */
  tiers: string[] | null;
  mode: Mode;
  isOn: boolean;
  createdAt: Instant;
  /** Since when no message has arrived, real time; null: the last one did. */
  failingSince: Instant | null;
};
const COLUMNS = 'id, url, topics, tiers, mode, is_on, created_at, failing_since';

export const SEALED_WEBHOOKS = sealedColumn('secrets of outgoing webhooks', 'webhooks', 'secret_sealed');

export async function listWebhooks(db: Db, mode: Mode): Promise<Webhook[]> {
  return many(db, `SELECT ${COLUMNS} FROM webhooks WHERE mode = $1 ORDER BY created_at, id`, [mode]);
}

export async function findWebhook(db: Db, id: string): Promise<Webhook | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS} FROM webhooks WHERE id = $1`, [id]);
}

export async function findWebhookSecret(db: Db, id: string): Promise<string | undefined> {
  const row = await maybeOne<{ secretSealed: string }>(
    db,
    'SELECT secret_sealed FROM webhooks WHERE id = $1',
    [id],
  );
  return row?.secretSealed;
}

export async function insertWebhook(
  db: Db,
  {
    id,
    url,
    topics,
    tiers,
    mode,
    sealed,
  }: Pick<Webhook, 'id' | 'url' | 'topics' | 'tiers' | 'mode'> & { sealed: string },
): Promise<void> {
  await run(
    db,
    'INSERT INTO webhooks (id, url, secret_sealed, topics, tiers, mode) VALUES ($1, $2, $3, $4, $5, $6)',
    [id, url, sealed, topics, tiers, mode],
  );
}

/** False: there is none. */
export async function updateWebhook(
  db: Db,
  { id, url, topics, tiers, isOn }: Pick<Webhook, 'id' | 'url' | 'topics' | 'tiers' | 'isOn'>,
): Promise<boolean> {
  const changed = await run(
    db,
    `UPDATE webhooks SET url = $2, topics = $3, tiers = $4, is_on = $5,
       failing_since = CASE WHEN url = $2 AND is_on = $5 THEN failing_since END WHERE id = $1`,
    [id, url, topics, tiers, isOn],
  );
  return changed === 1;
}

export async function deleteWebhook(db: Db, id: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM webhooks WHERE id = $1', [id])) === 1;
}

export type NewMessage = { id: string; webhookId: string; topic: WebhookTopic; body: string; at: Instant };

export async function insertMessages(db: Db, messages: NewMessage[]): Promise<void> {
  await run(
    db,
    `INSERT INTO webhook_messages (id, webhook_id, topic, body, at)
     SELECT * FROM unnest($1::uuid[], $2::uuid[], $3::text[], $4::text[], $5::timestamptz[])`,
    [
      messages.map(({ id }) => id),
      messages.map(({ webhookId }) => webhookId),
      messages.map(({ topic }) => topic),
      messages.map(({ body }) => body),
      messages.map(({ at }) => at),
    ],
  );
}

export type QueuedMessage = {
  id: string;
  webhookId: string;
  body: string;
  attempts: number;
  url: string;
  secretSealed: string;
};

/** Takes up to `limit` messages for sending; each comes again after the lease unless it is marked by then. Those of a webhook that is off wait. */
export async function claimMessages(db: Db, limit: number, leaseSeconds: number): Promise<QueuedMessage[]> {
  return many(
    db,
    `UPDATE webhook_messages m SET attempts = attempts + 1, next_attempt_at = now() + make_interval(secs => $2)
     FROM webhooks w WHERE w.id = m.webhook_id AND m.id IN (
       SELECT q.id FROM webhook_messages q JOIN webhooks o ON o.id = q.webhook_id
       WHERE q.state = 'waiting' AND q.next_attempt_at <= now() AND o.is_on
       ORDER BY q.next_attempt_at LIMIT $1 FOR UPDATE OF q SKIP LOCKED
     ) RETURNING m.id, m.webhook_id, m.body, m.attempts, w.url, w.secret_sealed`,
    [limit, leaseSeconds],
  );
}

/** Notes what was answered. `retrySeconds` null: it is sent, or, with `isSent` false, given up. */
export async function markMessage(
  db: Db,
  { id, webhookId }: Pick<QueuedMessage, 'id' | 'webhookId'>,
  { isSent, answer, retrySeconds }: { isSent: boolean; answer: string; retrySeconds: number | null },
): Promise<void> {
  await run(
    db,
    `UPDATE webhook_messages SET answer = $2, sent_at = CASE WHEN $3 THEN now() END,
       state = CASE WHEN $3 THEN 'sent' WHEN $4::int IS NULL THEN 'failed' ELSE 'waiting' END,
       next_attempt_at = now() + make_interval(secs => coalesce($4::int, 0)) WHERE id = $1`,
    [id, answer, isSent, retrySeconds],
  );
  await run(
    db,
    `UPDATE webhooks SET failing_since = CASE WHEN $2 THEN NULL ELSE coalesce(failing_since, now()) END
     WHERE id = $1 AND (failing_since IS NULL) <> $2`,
    [webhookId, isSent],
  );
}

export type LoggedMessage = {
  id: string;
  topic: WebhookTopic;
  body: string;
  at: Instant;
  state: 'waiting' | 'sent' | 'failed';
  attempts: number;
  answer: string;
  createdAt: Instant;
  sentAt: Instant | null;
};

/** What was sent to an address, or waits to be, newest first; and how many there are. */
export async function listMessages(
  db: Db,
  webhookId: string,
  { limit, offset }: { limit: number; offset: number },
): Promise<{ rows: LoggedMessage[]; total: number }> {
  const { total } = await one<{ total: bigint }>(
    db,
    'SELECT count(*) AS total FROM webhook_messages WHERE webhook_id = $1',
    [webhookId],
  );
  const rows = await many<LoggedMessage>(
    db,
    `SELECT id, topic, body, at, state, attempts, answer, created_at, sent_at FROM webhook_messages
     WHERE webhook_id = $1 ORDER BY created_at DESC, id LIMIT $2 OFFSET $3`,
    [webhookId, limit, offset],
  );
  return { rows, total: Number(total) };
}

/** Has a message sent once more, from the first try on. False: there is none, or it waits already. */
export async function requeueMessage(db: Db, id: string): Promise<boolean> {
  const changed = await run(
    db,
    `UPDATE webhook_messages SET state = 'waiting', attempts = 0, next_attempt_at = now() WHERE id = $1 AND state <> 'waiting'`,
    [id],
  );
  return changed === 1;
}

/** Messages that are settled are kept for 30 days. */
export async function deleteOldMessages(db: Db): Promise<number> {
  return run(
    db,
    `DELETE FROM webhook_messages WHERE state <> 'waiting' AND created_at < now() - interval '30 days'`,
  );
}
