import { z } from 'zod';
import { joinFieldSchema, type JoinField } from '@/core/tiers/join-fields';
import { lock, pool, transaction } from '@/store/db';
import { listJoinFields, saveJoinFields as store } from '@/store/join-fields';
import { listTiers } from '@/store/tiers';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { currentSite } from './site';

const fieldsSchema = z
  .array(joinFieldSchema)
  .max(40, 'At most 40 fields.')
  .superRefine((fields, context) => {
    const seen = new Set<string>();
    for (const [index, field] of fields.entries()) {
      if (seen.has(field.id))
        context.addIssue({ code: 'custom', path: [index, 'id'], message: 'Two fields have the same id.' });
      seen.add(field.id);
    }
  });

/** Replaces what is asked for at joining; their order is the order of asking. Problems stand under "2.label". */
export async function saveJoinFields(actor: Actor, raw: unknown): Promise<Result<JoinField[]>> {
  requireRight(actor, 'set tiers');
  const parsed = fieldsSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const fields = parsed.data;
  if (fields.filter((field) => field.kind === 'name').length !== 1)
    return refusedField('', 'The name is always one of the fields; switch it off to do without.');
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    await lock(db, 'join fields');
    const tierIds = new Set((await listTiers(db)).map((tier) => tier.id));
    // A tier that is gone cannot ask for anything; a field that was its alone would otherwise be asked by every tier.
    const kept = fields.map((field) => {
      const left = field.tierIds.filter((id) => tierIds.has(id));
      return { ...field, tierIds: left, isOn: field.isOn && (field.tierIds.length === 0 || left.length > 0) };
    });
    await store(db, kept);
    await record(db, actor, at, 'joining fields changed', 'site', { count: kept.length });
    return done(kept);
  });
}

export const joinFields = (): Promise<JoinField[]> => listJoinFields(pool());
