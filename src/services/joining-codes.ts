import { z } from 'zod';
import { isLocalDate } from '@/core/calendar';
import { isConflict, transaction } from '@/store/db';
import { deleteJoiningCode, insertJoiningCode } from '@/store/joining-codes';
import { findTier } from '@/store/tiers';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
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
  mostUses: z.union([
    z.literal('').transform(() => null),
    z.coerce
      .number('Type a whole number, or leave it empty.')
      .int('Whole numbers only.')
      .min(1, 'At least once.'),
  ]),
  lastDay: z
    .string()
    .refine((day) => day === '' || isLocalDate(day), 'That date does not exist.')
    .transform((day) => day || null),
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
