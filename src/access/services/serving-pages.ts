import type { PageRole } from '@/core/content/page-roles';
import { listByIds } from '@/content/store/items';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { alikeUse } from '@/platform/use';
import { isLetIn, isOut, judge, openBody, readerOf } from './lib/reader';
import { keptLeads, keptRoles } from '@/content/services/lib/kept';

export type ServingPages = Partial<Record<PageRole, { path: string; title: string }>>;

/** The pages that serve as something, of those that are published. */
export const servingPages = alikeUse('serving-pages', nothing, async (actor) => {
  const reader = await readerOf(actor);
  const roles = await keptRoles();
  const heads = await keptLeads();
  const pages: ServingPages = {};
  for (const { role, itemId } of roles) {
    const page = heads.find(({ id }) => id === itemId);
    if (page && isOut(reader, page)) pages[role] = { path: page.path, title: page.title };
  }
  return done(pages);
});

/** What is shown where there is nothing: the owner's page for it, as far as the caller may read it; null without one. */
export const notFoundPage = alikeUse('not-found-page', nothing, async (actor) => {
  const role = (await keptRoles()).find((one) => one.role === 'not-found');
  const [page] = role ? await listByIds(pool(), [role.itemId]) : [];
  const reader = await readerOf(actor);
  if (!page || !isOut(reader, page) || !isLetIn((await judge(reader, [page]))(page.id))) return done(null);
  return done({ title: page.title, body: openBody(reader, page) });
});
