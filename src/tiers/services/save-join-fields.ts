import { z } from 'zod';
import { joinFieldSchema, type JoinField } from '@/core/tiers/join-fields';
import { lock, transaction } from '@/platform/store/db';
import { saveJoinFields as store } from '@/tiers/store/join-fields';
import { listTiers } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';

const fieldsSchema = z
  .array(joinFieldSchema)
  .max(40, say('join-field.too-many'))
  .superRefine((fields, context) => {
    const seen = new Set<string>();
    for (const [index, field] of fields.entries()) {
      if (seen.has(field.id))
        context.addIssue({ code: 'custom', path: [index, 'id'], message: say('join-field.same-id') });
      seen.add(field.id);
    }
  });

/** Replaces the join questions; they are asked in this order. Problems are keyed like "2.label". */
export const saveJoinFields = staffUse('set tiers')(
  'save-join-fields',
  fieldsSchema,
  async (actor, input): Promise<Result<JoinField[]>> => {
    const fields = input;
    if (fields.filter((field) => field.kind === 'name').length !== 1)
      return refusedField('', 'join-field.no-name');
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'join fields');
      const tierIds = new Set((await listTiers(db)).map((tier) => tier.id));
      // A tier that is gone cannot ask for anything; a field that was its alone would otherwise be asked by every tier.
      const kept = fields.map((field) => {
        const left = field.tierIds.filter((id) => tierIds.has(id));
        return {
          ...field,
          tierIds: left,
          isOn: field.isOn && (field.tierIds.length === 0 || left.length > 0),
        };
      });
      await store(db, kept);
      await record(db, actor, at, 'joining fields changed', 'site', { count: kept.length });
      return done(kept);
    });
  },
);
