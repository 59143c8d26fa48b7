import { z } from 'zod';
import { namesPass } from '@/core/access/rule';
import { lengthSchema } from '@/core/offers/offer-schema';
import { deletePass as remove, findPass, listPasses, setPassPassword, type Pass } from '@/tiers/store/passes';
import { storePass } from '@/tiers/services/lib/store-pass';
import { listProducts } from '@/tiers/store/products';
import {
  countPassHolders,
  endHeldByPassword,
  endHeldPass,
  listPassHolders,
  type PassHolder,
} from '@/billing/store/held-passes';
import { listRules } from '@/access/store/rules';
import { itemsWithSectionsFor } from '@/content/store/items';
import { siteNow } from '@/platform/clock';
import { idIfKnown } from '@/platform/form-fields';
import { nothing, slug, uuid } from '@/platform/inputs';
import { hashPassword } from '@/platform/passwords';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';

export type { PassHolder } from '@/billing/store/held-passes';

const PAGE_SIZE = 100;

/** All passes: how many hold each now, and the rules that open something to it. */
export const passesPlace = staffUse('look')('passes-place', nothing, async () => {
  const site = await currentSite();
  const [passes, rules] = [await listPasses(pool()), await listRules(pool())];
  const holders = await countPassHolders(pool(), site.mode, siteNow(site));
  return done(
    passes.map((pass) => ({
      ...pass,
      holders: holders.get(pass.id) ?? 0,
      rules: rules.filter((rule) => namesPass(rule, pass.id)).map(({ id, name }) => ({ id, name })),
    })),
  );
});

type PassOnDesk = { pass: Pass | null; holders: PassHolder[]; total: number; pages: number };

/** A pass with a page of those who hold it; "new" for one that is about to be made. */
export const passEditor = staffUse('set access')(
  'pass-editor',
  z.object({ id: slug, page: z.number().int().min(1).max(100_000).default(1) }),
  async (_, { id, page }): Promise<Result<PassOnDesk>> => {
    const pass = id === 'new' ? null : await findPass(pool(), id);
    if (pass === undefined) return missing();
    if (!pass) return done({ pass, holders: [], total: 0, pages: 1 });
    const site = await currentSite();
    const now = { mode: site.mode, at: siteNow(site) };
    const total = (await countPassHolders(pool(), now.mode, now.at)).get(id) ?? 0;
    const within = { ...now, limit: PAGE_SIZE, offset: (page - 1) * PAGE_SIZE };
    const pages = Math.max(1, Math.ceil(total / PAGE_SIZE));
    return done({ pass, holders: await listPassHolders(pool(), id, within), total, pages });
  },
);

const passSchema = z.object({
  id: idIfKnown,
  name: z.string().trim().min(1, say('pass.no-name')).max(60),
  byAddress: z.boolean().optional(),
  lasts: lengthSchema.nullable().optional(),
  version: z.number().int().optional(),
});

/** Makes a pass, or changes one. Those who hold it already hold it as long as they were told. */
export const savePass = staffUse('set access')(
  'save-pass',
  passSchema,
  async (actor, input): Promise<Result<{ id: string }>> => transaction((db) => storePass(db, actor, input)),
);

const passwordSchema = z.object({
  id: slug,
  /** Null: none gives the pass from now on. */
  password: z.string().min(8, say('pass.short-password')).max(200).nullable(),
  /** Whether those who got it by the password before lose it now. */
  endsOld: z.boolean(),
});

/** Sets the shared password that gives a pass, changes it, or removes it. The answer is how many lost the pass. */
export const setSharedPassword = staffUse('set access')(
  'set-shared-password',
  passwordSchema,
  async (actor, { id, password, endsOld }): Promise<Result<{ ended: number }>> => {
    const at = siteNow(await currentSite());
    const hash = password === null ? null : await hashPassword(password);
    return transaction(async (db) => {
      const before = await findPass(db, id);
      if (!before || !(await setPassPassword(db, id, hash))) return refusedField('', 'pass.gone');
      const ended = endsOld ? await endHeldByPassword(db, id, at) : 0;
      const what = hash === null ? 'shared password removed' : 'shared password set';
      await record(db, actor, at, what, `pass:${id}`, { replaced: before.hasPassword, ended });
      return done({ ended });
    });
  },
);

/** Ends a pass in one person's hands. */
export const revokePass = staffUse('set access')(
  'revoke-pass',
  z.object({ pass: slug, id: uuid }),
  async (actor, { pass, id }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      const ended = await endHeldPass(db, pass, id, at);
      if (!ended) return refusedField('', 'pass.not-held');
      const whose = ended.memberId ? `member:${ended.memberId}` : `pass:${pass}`;
      await record(db, actor, at, 'pass revoked', whose, { pass });
      return done(null);
    });
  },
);

/** Deletes a pass, also for those who hold it; refused while a rule or a section opens something to it. */
export const deletePass = staffUse('set access')(
  'delete-pass',
  slug,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      await lock(db, 'rules');
      const rule = (await listRules(db)).find((one) => namesPass(one, id));
      if (rule) return refusedField('', 'pass.in-rule', { rule: rule.name });
      const [used] = await itemsWithSectionsFor(db, { kind: 'pass', id });
      if (used) return refusedField('', 'pass.in-section', { title: used.title });
      if ((await listProducts(db)).some(({ passId }) => passId === id))
        return refusedField('', 'pass.is-sold');
      const before = await findPass(db, id);
      if (!before || !(await remove(db, id))) return refusedField('', 'pass.gone');
      await record(db, actor, at, 'pass deleted', `pass:${id}`, { before });
      return done(null);
    });
  },
);
