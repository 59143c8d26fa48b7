import { csvLine } from '@/core/csv';
import { reportCodes } from '@/billing/store/code-uses';
import { siteNow } from '@/platform/clock';
import { nothing, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { deleteBatch, findBatch, listBatches, listCodes } from '@/tiers/store/codes';
import { listPasses } from '@/tiers/store/passes';
import { listTiers } from '@/tiers/store/tiers';

/** Codes of a batch that are shown, and that are exported. */
const [SHOWN, EXPORTED] = [20, 100_000];

const named = ({ id, name }: { id: string; name: string }) => ({ id, name });

/** The tiers and passes that codes can be about, and the currency of amounts. */
const choices = async () => {
  const site = await currentSite();
  return {
    tiers: (await listTiers(pool())).filter(({ retiredAt }) => retiredAt === null).map(named),
    passes: (await listPasses(pool())).map(named),
    currency: site.currency,
  };
};

/** All codes, with how often they were used and what was paid by those who used them, in the site's mode. */
export const codesPlace = staffUse('set tiers', 'see money')('codes-place', nothing, async () => {
  const { mode } = await currentSite();
  const [batches, reports] = [await listBatches(pool()), await reportCodes(pool(), mode)];
  const codes = batches.map((batch) => ({
    ...batch,
    uses: reports.get(batch.id)?.uses ?? 0,
    income: reports.get(batch.id)?.income ?? [],
  }));
  return done({ codes, ...(await choices()) });
});

/** What is needed to make a code. */
export const codeChoices = staffUse('set tiers')('code-choices', nothing, async () => done(await choices()));

/** One code, or a batch, with some of its words. */
export const codeEditor = staffUse('set tiers')('code-editor', uuid, async (_, id) => {
  const batch = await findBatch(pool(), id);
  if (!batch) return missing();
  const { mode } = await currentSite();
  return done({
    batch,
    words: (await listCodes(pool(), id, SHOWN)).map(({ word }) => word),
    report: (await reportCodes(pool(), mode)).get(id) ?? null,
    ...(await choices()),
  });
});

/** The words of a batch as CSV. */
export const exportCodes = staffUse('set tiers')('export-codes', uuid, async (actor, id) => {
  const batch = await findBatch(pool(), id);
  if (!batch) return missing();
  await record(pool(), actor, siteNow(await currentSite()), 'codes exported', `code:${id}`);
  const words = await listCodes(pool(), id, EXPORTED);
  return done({
    name: batch.name,
    csv: csvLine(['code']) + words.map(({ word }) => csvLine([word])).join(''),
  });
});

/** Deletes codes that nobody has used; those that were used are turned off. */
export const removeCodes = staffUse('set tiers')(
  'remove-codes',
  uuid,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db): Promise<Result<null>> => {
      const batch = await findBatch(db, id);
      if (!batch) return missing();
      for (const mode of ['test', 'live'] as const)
        if ((await reportCodes(db, mode)).has(id)) return refusedField('', 'code.was-used');
      await deleteBatch(db, id);
      await record(db, actor, at, 'codes deleted', `code:${id}`, { name: batch.name });
      return done(null);
    });
  },
);
