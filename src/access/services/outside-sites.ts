import { z } from 'zod';
import { normalisePath } from '@/core/access/paths';
import { slugify } from '@/core/content/slug';
import {
  deleteOutsideSite as remove,
  findOutsideSite,
  insertOutsideSite,
  listOutsideSites,
  setOutsideSecret,
  updateOutsideSite,
  type OutsideSite,
} from '@/access/store/outside-sites';
import { config } from '@/platform/config';
import { siteNow } from '@/platform/clock';
import { idIfKnown } from '@/platform/form-fields';
import { freeId } from '@/platform/free-id';
import { nothing, slug } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { setFrameOrigins } from '@/platform/store/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { newToken } from '@/platform/tokens';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';
import { isSameHost } from './lib/outside';

export type { OutsideSite } from '@/access/store/outside-sites';

const NOT_SITES = ['new'];

/** All sites and folders outside, each with whether it is on the site's own host; and the origins that may show items in frames. */
export const outsideSites = staffUse('look')('outside-sites', nothing, async () =>
  done({
    sites: (await listOutsideSites(pool())).map((site) => ({ ...site, isHere: isSameHost(site) })),
    frameOrigins: (await currentSite()).frameOrigins,
    base: config().SITE_URL,
  }),
);

/** One of them, and the address of the site itself; "new" for one that is about to be made. */
export const outsideSite = staffUse('set access')('outside-site', slug, async (_, id) => {
  const site = id === 'new' ? null : await findOutsideSite(pool(), id);
  return site === undefined ? missing() : done({ site, here: new URL(config().SITE_URL).origin });
});

const originSchema = z
  .string()
  .trim()
  .max(300)
  .transform((typed, context) => {
    const url = URL.canParse(typed) ? new URL(typed) : null;
    if (url && /^https?:$/.test(url.protocol) && !url.username) return url.origin;
    context.addIssue({ code: 'custom', message: 'outside.no-origin' });
    return z.NEVER;
  });
const prefixSchema = z
  .string()
  .trim()
  .max(200)
  .transform((typed, context) => {
    const path = typed === '' || typed === '/' ? '/' : normalisePath(typed);
    if (path !== null && !path.includes('*')) return path === '/' ? '' : path;
    context.addIssue({ code: 'custom', message: 'outside.no-prefix' });
    return z.NEVER;
  });

const siteSchema = z.object({
  id: idIfKnown,
  name: z.string().trim().min(1, say('outside.no-name')).max(60),
  origin: originSchema,
  prefix: prefixSchema,
  version: z.number().int().optional(),
});

/** Adds a site or folder outside, or changes it. For a new one the answer holds the secret for its nginx, which is shown this once. */
export const saveOutsideSite = staffUse('set access')(
  'save-outside-site',
  siteSchema,
  async (
    actor,
    { id: asked, version = 0, ...input },
  ): Promise<Result<{ id: string; secret: string | null }>> => {
    const at = siteNow(await currentSite());
    if (input.prefix === '' && !isSameHost(input)) return refusedField('prefix', 'outside.prefix-needed');
    return transaction(async (db) => {
      await lock(db, 'outside sites');
      const sites = await listOutsideSites(db);
      const before = sites.find(({ id }) => id === asked);
      if (asked && !before) return refusedField('', 'outside.gone');
      if (sites.some(({ id, prefix }) => prefix === input.prefix && id !== before?.id))
        return refusedField('prefix', 'outside.prefix-taken');
      const taken = new Set([...NOT_SITES, ...sites.map(({ id }) => id)]);
      const id = before?.id ?? freeId(slugify(input.name), taken);
      const site: OutsideSite = { ...input, id, version };
      const { token, hash } = newToken();
      if (before && !(await updateOutsideSite(db, site)))
        return refusedField('', 'outside.changed-elsewhere');
      if (!before) await insertOutsideSite(db, site, hash);
      const what = before ? 'outside site changed' : 'outside site added';
      await record(db, actor, at, what, `outside:${id}`, { before: before ?? null, after: site });
      return done({ id, secret: before ? null : token });
    });
  },
);

/** Makes another secret for the nginx of a site; the one before is worth nothing from then on. */
export const newOutsideSecret = staffUse('set access')(
  'new-outside-secret',
  slug,
  async (actor, id): Promise<Result<{ secret: string }>> => {
    const at = siteNow(await currentSite());
    const { token, hash } = newToken();
    return transaction(async (db) => {
      if (!(await setOutsideSecret(db, id, hash))) return refusedField('', 'outside.gone');
      await record(db, actor, at, 'outside secret replaced', `outside:${id}`);
      return done({ secret: token });
    });
  },
);

/** Removes a site outside: its nginx lets nobody in from then on. */
export const deleteOutsideSite = staffUse('set access')(
  'delete-outside-site',
  slug,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      const before = await findOutsideSite(db, id);
      if (!before || !(await remove(db, id))) return refusedField('', 'outside.gone');
      await record(db, actor, at, 'outside site removed', `outside:${id}`, { before });
      return done(null);
    });
  },
);

const MOST_FRAMES = 50;

/** Says which other sites may show items in frames: their addresses, one to a line. */
export const saveFrameOrigins = staffUse('set access')(
  'save-frame-origins',
  z.string().max(20_000),
  async (actor, typed): Promise<Result<{ origins: string[] }>> => {
    const lines = typed.split(/\s+/).filter(Boolean);
    const origins = [...new Set(lines.map((line) => originSchema.safeParse(line).data))];
    const wrong = lines.find((line) => !originSchema.safeParse(line).success);
    if (wrong !== undefined) return refusedField('origins', 'frames.no-origin', { line: wrong.slice(0, 80) });
    if (origins.length > MOST_FRAMES)
      return refusedField('origins', 'frames.too-many', { most: MOST_FRAMES });
    const site = await currentSite();
    return transaction(async (db) => {
      const after = origins.filter((origin) => origin !== undefined);
      await setFrameOrigins(db, after);
      await record(db, actor, siteNow(site), 'frame origins changed', 'site', {
        before: site.frameOrigins,
        after,
      });
      return done({ origins: after });
    });
  },
);
