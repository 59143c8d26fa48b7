import { z } from 'zod';
import { isConflict, transaction } from '@/store/db';
import { deleteJoiningCode, insertJoiningCode } from '@/store/joining-codes';
import { findTier } from '@/store/tiers';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { optionalCount, optionalDate } from './form-fields';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { currentSite } from './site';

const codeSchema = z.object({
  tierId: z.string().min(1),
  code: z
    .string()
    .trim()
    .min(4, 'A code has at least 4 characters, so that it is not guessed.')
    .max(40, 'A code has at most 40 characters.')
    .regex(/^[\p{L}\p{N}-]+$/u, 'Letters, figures and hyphens only.'),
  mostUses: optionalCount('At least once.'),
  lastDay: optionalDate,
});

/** Adds a code that admits to joining a tier. */
export async function addJoiningCode(actor: Actor, raw: unknown): Promise<Result<null>> {
  requireRight(actor, 'set tiers');
  const parsed = codeSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const at = siteNow(await currentSite());
  try {
    return await transaction(async (db) => {
      if (!(await findTier(db, parsed.data.tierId)))
        return refusedField('', 'This tier is not there any more.');
      await insertJoiningCode(db, parsed.data);
      await record(db, actor, at, 'joining code added', `tier:${parsed.data.tierId}`);
      return done(null);
    });
  } catch (error) {
    if (isConflict(error)) return refusedField('code', 'This tier has that code already.');
    throw error;
  }
}

export async function removeJoiningCode(actor: Actor, tierId: string, id: string): Promise<Result<null>> {
  requireRight(actor, 'set tiers');
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    if (!z.uuid().safeParse(id).success) return refusedField('', 'This code is not there any more.');
    await deleteJoiningCode(db, tierId, id);
    await record(db, actor, at, 'joining code removed', `tier:${tierId}`);
    return done(null);
  });
}
