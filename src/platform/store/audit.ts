import { z } from 'zod';
import type { Instant } from '@/core/instants';
import { containing, where } from './conditions';
import { many, maybeOne, one, run, type Db, prepared } from './db';

export type ActorKind = 'staff' | 'member' | 'visitor' | 'worker' | 'gateway' | 'setup';
/** Who does something: carried into every service that changes anything. */
export type AuditEntry = {
  /** The site's clock. */
  at: Instant;
  actorKind: ActorKind;
  actorId: string | null;
  action: string;
  /** What it was done to, as "kind:id". */
  subject: string;
  detail: Record<string, unknown>;
};

const WRITE_AUDIT = prepared(
  'write-audit',
  `INSERT INTO audit (at, actor_kind, actor_id, action, subject, detail) VALUES ($1, $2, $3, $4, $5, $6)`,
);

export async function writeAudit(db: Db, entry: AuditEntry): Promise<void> {
  await run(db, WRITE_AUDIT, [
    entry.at,
    entry.actorKind,
    entry.actorId,
    entry.action,
    entry.subject,
    entry.detail,
  ]);
}

const DETAIL = { detail: z.record(z.string(), z.unknown()) };

export type AuditRow = AuditEntry & { id: bigint };

/** What happened to the given subjects, newest first. */
export async function listAudit(db: Db, subjects: string[], limit: number): Promise<AuditRow[]> {
  return many(
    db,
    'SELECT * FROM audit WHERE subject = ANY ($1) ORDER BY at DESC, id DESC LIMIT $2',
    [subjects, limit],
    DETAIL,
  );
}

/** One entry about a subject. */
export async function findAudit(db: Db, id: bigint, subject: string): Promise<AuditRow | undefined> {
  return maybeOne(db, 'SELECT * FROM audit WHERE id = $1 AND subject = $2', [id, subject], DETAIL);
}

/** The newest entry about a subject: in a transaction that has just written one, that one. */
export async function newestAudit(db: Db, subject: string): Promise<bigint> {
  const row = await one<{ id: bigint }>(db, 'SELECT max(id) AS id FROM audit WHERE subject = $1', [subject]);
  return row.id;
}

/** What narrows the audit; instants of the site's clock. */
export type AuditFilter = {
  action?: string;
  actorKind?: ActorKind;
  actorId?: string;
  subject?: string;
  from?: Instant;
  until?: Instant;
};

/** Entries by a filter, the newest first; those before an id, where one is given. */
export async function searchAudit(
  db: Db,
  { action, actorKind, actorId, subject, from, until }: AuditFilter,
  { limit, before }: { limit: number; before?: bigint },
): Promise<AuditRow[]> {
  const narrowed = where([
    action && ['action LIKE ?', containing(action)],
    actorKind && ['actor_kind = ?', actorKind],
    actorId && ['actor_id = ?::uuid', actorId],
    subject && ['subject = ?', subject],
    from && ['at >= ?', from],
    until && ['at < ?', until],
    before !== undefined && ['id < ?', before],
  ]);
  return many(
    db,
    `SELECT * FROM audit ${narrowed.sql} ORDER BY id DESC LIMIT ${narrowed.add(limit)}`,
    narrowed.values,
    DETAIL,
  );
}
