import type { MetadataRoute } from 'next';
import { listAll } from '@/access/services/list-items';
import { shown } from '@/app/session';
import { VISITOR_ACTOR } from '@/platform/actor';
import { config } from '@/platform/config';

// What is published changes without a new build.
export const dynamic = 'force-dynamic';

/** The site map (sitemaps.org): every address that a visitor may know of, and the join page. */
export default async function sitemap(): Promise<MetadataRoute.Sitemap> {
  const base = config().SITE_URL;
  const items = await shown(listAll(VISITOR_ACTOR));
  return [
    ...items.map(({ path, publishedAt }) => ({
      url: `${base}${path}`,
      ...(publishedAt && { lastModified: publishedAt }),
    })),
    { url: `${base}/posts` },
    { url: `${base}/join` },
  ];
}
