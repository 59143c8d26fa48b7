import { Feed } from 'feed';
import { config } from '@/platform/config';
import { toMs } from '@/core/instants';
import { currentSite, shown } from '@/app/session';
import { VISITOR_ACTOR } from '@/platform/actor';
import { listFeed } from '@/access/services/view-item';

/** The public feed (RSS 2.0): what a visitor may know of the newest posts, and no more. */
export async function GET(): Promise<Response> {
  const site = await currentSite();
  const base = config().SITE_URL;
  const posts = await shown(listFeed(VISITOR_ACTOR));
  const feed = new Feed({
    id: base,
    link: base,
    title: site.name,
    copyright: site.name,
    feedLinks: { rss: `${base}/feed.xml` },
  });
  for (const post of posts) {
    if (!post.publishedAt) continue;
    feed.addItem({
      id: `${base}${post.path}`,
      link: `${base}${post.path}`,
      title: post.title,
      description: post.summary,
      date: new Date(toMs(post.publishedAt)),
    });
  }
  return new Response(feed.rss2(), { headers: { 'content-type': 'application/rss+xml; charset=utf-8' } });
}
