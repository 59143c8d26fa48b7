import 'server-only';
import { Feed } from 'feed';
import { shareWithAlike } from '@/access/services/share-with-alike';
import { listFeed } from '@/access/services/list-items';
import { currentActor, currentSite, shown } from '@/app/session';
import { toMs } from '@/core/instants';
import { VISITOR_ACTOR } from '@/platform/actor';
import { config } from '@/platform/config';

/** The addresses of the public feed, by media type: RSS 2.0, Atom (RFC 4287) and JSON Feed 1. */
export const FEEDS = {
  'application/rss+xml': '/feed.xml',
  'application/atom+xml': '/feed.atom',
  'application/feed+json': '/feed.json',
};

/** A feed of the site without its texts. `at`: what comes before the names of its three forms. */
export async function emptyFeed(at: string): Promise<Feed> {
  const [site, base] = [await currentSite(), config().SITE_URL];
  const feedLinks = {
    rss: `${base}${at}/feed.xml`,
    atom: `${base}${at}/feed.atom`,
    json: `${base}${at}/feed.json`,
  };
  return new Feed({
    id: base,
    link: base,
    title: site.name,
    copyright: site.name,
    language: site.language,
    feedLinks,
  });
}

/** What a visitor may know of the newest posts, and no more. */
async function publicFeed(): Promise<Feed> {
  const [feed, base] = [await emptyFeed(''), config().SITE_URL];
  const posts = await shown(listFeed(VISITOR_ACTOR));
  for (const post of posts) {
    if (!post.publishedAt) continue;
    feed.addItem({
      id: `${base}${post.path}`,
      link: `${base}${post.path}`,
      title: post.title,
      description: post.summary,
      date: new Date(toMs(post.publishedAt)),
      ...(post.author && { author: [{ name: post.author }] }),
    });
  }
  return feed;
}

/** The public feed as the answer of a route. */
export async function feedAs(type: keyof typeof FEEDS, write: (feed: Feed) => string): Promise<Response> {
  await shareWithAlike(await currentActor());
  return new Response(write(await publicFeed()), { headers: { 'content-type': `${type}; charset=utf-8` } });
}
