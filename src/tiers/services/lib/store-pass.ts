import { slugify } from '@/core/content/slug';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { freeId } from '@/platform/free-id';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, type Transaction } from '@/platform/store/db';
import { listPasses, savePass, type Pass } from '@/tiers/store/passes';

/** A new one is made at this address. */
const NOT_PASSES = ['new'];

/** What is left out of one that is changed stays as it was. */
type Given = Pick<Pass, 'name'> & { id?: string; version?: number } & Partial<
    Pick<Pass, 'byAddress' | 'lasts'>
  >;

/** Stores a new pass, or changes one, under the lock of the rules, which name passes. */
export async function storePass(
  db: Transaction,
  actor: Actor,
  { id: asked, version = 0, name, ...input }: Given,
): Promise<Result<{ id: string }>> {
  await lock(db, 'rules');
  const passes = await listPasses(db);
  const before = passes.find(({ id }) => id === asked);
  if (asked && !before && version > 0) return refusedField('', 'pass.gone');
  if (passes.some((one) => one.name.toLowerCase() === name.toLowerCase() && one.id !== before?.id))
    return refusedField('name', 'pass.taken');
  const taken = new Set([...NOT_PASSES, ...passes.map(({ id }) => id)]);
  const id = before?.id ?? freeId(asked || slugify(name), taken);
  const { byAddress = before?.byAddress ?? false, lasts = before?.lasts ?? null } = input;
  const pass = { id, name, byAddress, lasts, version };
  if (!(await savePass(db, pass))) return refusedField('', 'pass.changed-elsewhere');
  const at = siteNow(await currentSite(db));
  await record(db, actor, at, before ? 'pass changed' : 'pass made', `pass:${id}`, {
    before: before ?? null,
    after: pass,
  });
  return done({ id });
}
