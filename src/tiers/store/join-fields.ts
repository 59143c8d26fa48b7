import type { JoinField } from '@/core/tiers/join-fields';
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
