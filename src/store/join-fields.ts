import type { Instant } from '@/core/calendar';
import type { JoinAnswer, JoinField } from '@/core/tiers/join-fields';
import { many, run, type Db } from '@/platform/store/db';

/** Every field, in the order in which they are asked. */
export async function listJoinFields(db: Db): Promise<JoinField[]> {
  return many(
    db,
    'SELECT id, kind, label, hint, options, path, is_required, is_on, tier_ids FROM join_fields ORDER BY position, id',
  );
}

/** Replaces all fields; their order is the order of asking. Answers given to fields that are gone stay. */
export async function saveJoinFields(db: Db, fields: JoinField[]): Promise<void> {
  await run(db, 'DELETE FROM join_fields');
  for (const [position, f] of fields.entries()) {
    await run(
      db,
      `INSERT INTO join_fields (id, kind, label, hint, options, path, is_required, is_on, tier_ids, position)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
      [f.id, f.kind, f.label, f.hint, f.options, f.path, f.isRequired, f.isOn, f.tierIds, position],
    );
  }
}

export async function insertAnswers(
  db: Db,
  memberId: string,
  subscriptionId: string,
  answers: JoinAnswer[],
  at: Instant,
): Promise<void> {
  for (const answer of answers) {
    await run(
      db,
      `INSERT INTO join_answers (member_id, subscription_id, field_id, label, value, at) VALUES ($1, $2, $3, $4, $5, $6)
       ON CONFLICT (subscription_id, field_id) DO NOTHING`,
      [memberId, subscriptionId, answer.fieldId, answer.label, answer.value, at],
    );
  }
}

/** What a member answered, newest first. */
export async function listAnswers(db: Db, memberId: string): Promise<(JoinAnswer & { at: Instant })[]> {
  return many(
    db,
    'SELECT field_id, label, value, at FROM join_answers WHERE member_id = $1 ORDER BY at DESC, id',
    [memberId],
  );
}
