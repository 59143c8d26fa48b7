import { z } from 'zod';
import { layersOf } from '@/core/access/decide';
import { openWeekSchema } from '@/core/access/open-week-schema';
import { PAGE } from '@/core/content/item';
import { listRules, saveRule } from '@/access/store/rules';
import { listPublished } from '@/content/store/item-lists';
import { listItems } from '@/content/store/items';
import { siteNow } from '@/platform/clock';
import { freeId } from '@/platform/free-id';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { setAccessDefault, setOpenWeek } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { keptTiers } from '@/tiers/services/lib/kept';
import { findTier } from '@/tiers/store/tiers';
import { desk } from '@/words/desk';
import { say } from '@/words/problems';
import { keptPublished } from '@/content/services/lib/kept';
import { knownItems } from './lib/desk-items';
import { keptRules } from './lib/kept-rules';

/** Whom the site is open to where no rule speaks and how many items that are; its open week; its pages at the top of the tree. */
export const siteAccess = staffUse('look')('site-access', nothing, async (actor) => {
  const site = await currentSite();
  const now = siteNow(site);
  const pages = (await listItems(pool(), PAGE)).filter(
    ({ parentId, system }) => parentId === null && !system,
  );
  return done({
    accessDefault: site.accessDefault,
    decidesAbout: await keptPublished('without a rule', now, async () => {
      const { covering } = await keptRules();
      const published = await listPublished(pool(), now);
      return published.filter((item) => !item.system && layersOf(covering(item), item).length === 0).length;
    }),
    openWeek: site.openWeek,
    tiers: (await keptTiers()).map(({ id, name }) => ({ id, name })),
    pages: (await knownItems(actor, pages)).map(({ id, title, path }) => ({ id, title, path })),
  });
});

const defaultSchema = z.object({
  accessDefault: z.enum(['everyone', 'signed-in', 'paying']),
  /** The pages that stay open to everyone where the site is closed, each with all below it. */
  staysOpen: z.array(z.string().max(200)).max(200).default([]),
});

/** Opens what no rule covers to everyone, or closes it to all but some; then pages can stay open, by a rule that is made for them. */
export const saveAccessDefault = staffUse('set access')(
  'save-access-default',
  defaultSchema,
  async (actor, { accessDefault, staysOpen }): Promise<Result<null>> => {
    const site = await currentSite();
    const at = siteNow(site);
    return transaction(async (db) => {
      await lock(db, 'rules');
      await setAccessDefault(db, accessDefault);
      await record(db, actor, at, 'site default changed', 'site', {
        before: site.accessDefault,
        after: accessDefault,
      });
      if (accessDefault === 'everyone' || staysOpen.length === 0) return done(null);
      const id = freeId('open-pages', new Set((await listRules(db)).map((rule) => rule.id)));
      const rule = {
        id,
        name: desk('desk-access.pages-that-stay-open'),
        on: true,
        covers: staysOpen.map((page) => ({ kind: 'under' as const, id: page })),
        openTo: [{ who: { kind: 'everyone' as const } }],
        doorstep: null,
      };
      await saveRule(db, { ...rule, version: 0 });
      await record(db, actor, at, 'rule made', `rule:${id}`, { before: null, after: rule });
      return done(null);
    });
  },
);

const weekSchema = z
  .object({ openWeek: openWeekSchema.nullable() })
  .refine(({ openWeek }) => !openWeek || openWeek.from <= openWeek.until, {
    message: say('open-week.ends-first'),
    path: ['until'],
  });

/** Lets everyone read as holders of a tier for a time, or ends that. */
export const saveOpenWeek = staffUse('set access')(
  'save-open-week',
  weekSchema,
  async (actor, { openWeek }): Promise<Result<null>> => {
    const site = await currentSite();
    return transaction(async (db) => {
      const tier = openWeek && (await findTier(db, openWeek.tier));
      if (openWeek && !tier) return refusedField('tier', 'open-week.no-tier');
      await setOpenWeek(db, openWeek);
      await record(db, actor, siteNow(site), 'open week changed', 'site', {
        before: site.openWeek,
        after: openWeek,
      });
      return done(null);
    });
  },
);
