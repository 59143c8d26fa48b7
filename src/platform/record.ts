import type { Instant } from '@/core/instants';
import { writeAudit } from '@/platform/store/audit';
import type { Db } from '@/platform/store/db';
import type { Actor } from './actor';

/** Writes who did what into the audit, in the caller's transaction. `subject` is "kind:id". */
export async function record(
  db: Db,
  actor: Actor,
  at: Instant,
  action: string,
  subject: string,
  detail: Record<string, unknown> = {},
): Promise<void> {
  await writeAudit(db, { at, actorKind: actor.kind, actorId: actor.memberId, action, subject, detail });
}
