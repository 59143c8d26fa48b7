import { z } from 'zod';
import { flat, treeOf } from '@/core/content/menu';
import { GIVEN_RIGHTS, powersOf, SET_ROLES, type Right } from '@/core/staff';
import { listCategories } from '@/content/store/categories';
import { confirmStaff } from '@/people/services/lib/confirm-password';
import { saveRole as store } from '@/platform/store/staff-roles';
import { siteNow } from '@/platform/clock';
import { nothing, passwordAgain, slug } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';

/** What each role that the owner sets may do and read, and the categories by which that can be narrowed. */
export const rolesPlace = staffUse('set up the site')('roles-place', nothing, async () => {
  const { roles } = await currentSite();
  return done({
    roles: SET_ROLES.map((role) => powersOf(role, roles)),
    categories: flat(treeOf(await listCategories(pool()))).map(({ row: { id, name }, depth }) => ({
      id,
      name,
      depth,
    })),
  });
});

/** By their ids, whether they are meant; of what is left out, what it was stays. */
const byCategory = z.record(slug, z.boolean()).default({});
const roleSchema = z.object({
  role: z.enum(SET_ROLES),
  rights: z.partialRecord(z.enum(GIVEN_RIGHTS as [Right, ...Right[]]), z.boolean()).default({}),
  readsAll: z.boolean().optional(),
  /** Whether they may write the posts of all categories, or of those in `writesIn` alone. */
  writes: z.enum(['all', 'some']).optional(),
  writesIn: byCategory,
  shutFrom: byCategory,
  password: passwordAgain,
});

const changed = <Id extends string>(before: readonly Id[], by: Partial<Record<Id, boolean>>): Id[] => [
  ...before.filter((id) => by[id] !== false),
  ...(Object.keys(by) as Id[]).filter((id) => by[id] && !before.includes(id)),
];

/** Sets what a role may do and read. It counts from the next request of its staff on. */
export const saveRole = staffUse('set up the site')(
  'save-role',
  roleSchema,
  async (actor, { role, password, ...asked }): Promise<Result<null>> => {
    const confirmed = await confirmStaff(actor, password);
    if (!confirmed.ok) return confirmed;
    return transaction(async (db) => {
      await lock(db, 'categories');
      const site = await currentSite(db);
      const before = powersOf(role, site.roles);
      const known = (await listCategories(db)).map(({ id }) => id);
      const there = (ids: string[]): string[] => ids.filter((id) => known.includes(id));
      const writes = asked.writes ?? (before.writesIn === null ? 'all' : 'some');
      // A right without the one that it needs is not stored: it would come to life with that one day.
      const after = powersOf(role, {
        [role]: {
          rights: changed(before.rights, asked.rights),
          readsAll: asked.readsAll ?? before.readsAll,
          writesIn: writes === 'all' ? null : there(changed(before.writesIn ?? [], asked.writesIn)),
          shutFrom: there(changed(before.shutFrom, asked.shutFrom)),
        },
      });
      await store(db, role, after);
      await record(db, actor, siteNow(site), 'staff role set', `role:${role}`, { before, after });
      return done(null);
    });
  },
);
