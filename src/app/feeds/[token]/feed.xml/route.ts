import { Feed } from 'feed';
import { currentSite, refusal } from '@/app/session';
import { privateFeed } from '@/access/services/private-feed';
import { feedHtml } from '@/content/ui/feed-html';
import { toMs } from '@/core/instants';
import { VISITOR_ACTOR } from '@/platform/actor';
import { config } from '@/platform/config';

type Props = { params: Promise<{ token: string }> };

/** The feed of one member: RSS 2.0 with the texts that they may read, and sound and film as enclosures. */
export async function GET(_: Request, { params }: Props): Promise<Response> {
  const { token } = await params;
  const found = await privateFeed(VISITOR_ACTOR, { token });
  if (!found.ok) return refusal(found);
  const [site, base] = [await currentSite(), config().SITE_URL];
  const files = `${base}/feeds/${token}/files`;
  const feed = new Feed({
    id: base,
    link: base,
    title: site.name,
    copyright: site.name,
    language: site.language,
    feedLinks: { rss: `${base}/feeds/${token}/feed.xml` },
  });
  for (const item of found.value.items) {
    if (!item.publishedAt) continue;
    const [first] = item.enclosures;
    feed.addItem({
      id: `${base}${item.path}`,
      link: `${base}${item.path}`,
      title: item.title,
      description: item.summary,
      date: new Date(toMs(item.publishedAt)),
      ...(item.body && { content: feedHtml(item.body, { base, files, shown: item.shown }) }),
      ...(item.author && { author: [{ name: item.author }] }),
      ...(first && {
        enclosure: {
          url: `${files}/${first.id}/${encodeURIComponent(first.name)}`,
          length: first.size,
          type: first.mediaType,
        },
      }),
    });
  }
  return new Response(feed.rss2(), {
    headers: {
      'content-type': 'application/rss+xml; charset=utf-8',
      'cache-control': 'private, no-store',
      // What is private is no page of the site to those who list pages.
      'x-robots-tag': 'noindex, nofollow',
      'referrer-policy': 'no-referrer',
    },
  });
}
