import { z } from 'zod';
import { isConflict, transaction } from '@/platform/store/db';
import { deleteJoiningCode, insertJoiningCode } from '@/tiers/store/joining-codes';
import { findTier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { optionalCount, optionalDate } from '@/platform/form-fields';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { slug } from '@/platform/inputs';
import { say } from '@/words/problems';

const codeSchema = z.object({
  tierId: z.string().min(1),
  code: z
    .string()
    .trim()
    .min(4, say('join-code.too-short'))
    .max(40)
    .regex(/^[\p{L}\p{N}-]+$/u, say('join-code.letters')),
  mostUses: optionalCount(say('join-code.uses')),
  lastDay: optionalDate,
});

/** Adds a code that admits to joining a tier. */
export const addJoiningCode = staffUse('set tiers')(
  'add-joining-code',
  codeSchema,
  async (actor, input): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    try {
      return await transaction(async (db) => {
        if (!(await findTier(db, input.tierId))) return refusedField('', 'tier.gone');
        await insertJoiningCode(db, input);
        await record(db, actor, at, 'joining code added', `tier:${input.tierId}`);
        return done(null);
      });
    } catch (error) {
      if (isConflict(error)) return refusedField('code', 'join-code.taken');
      throw error;
    }
  },
);

const removeSchema = z.object({ tierId: slug, id: z.uuid() });

export const removeJoiningCode = staffUse('set tiers')(
  'remove-joining-code',
  removeSchema,
  async (actor, { tierId, id }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await deleteJoiningCode(db, tierId, id);
      await record(db, actor, at, 'joining code removed', `tier:${tierId}`);
      return done(null);
    });
  },
);
