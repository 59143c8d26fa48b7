import 'server-only';
import type { Feed } from 'feed';
import { emptyFeed, type FEEDS } from '@/app/public-feed';
import { refusal } from '@/app/session';
import { privateFeed } from '@/access/services/private-feed';
import { plainHtml } from '@/core/content/html';
import { toMs } from '@/core/instants';
import { VISITOR_ACTOR } from '@/platform/actor';
import { config } from '@/platform/config';

export type TokenProps = { params: Promise<{ token: string }> };

/** The feed of one member, with the texts that they may read, and sound and film as enclosures. */
export async function privateFeedAs(
  { params }: TokenProps,
  type: keyof typeof FEEDS,
  write: (feed: Feed) => string,
): Promise<Response> {
  const { token } = await params;
  const found = await privateFeed(VISITOR_ACTOR, { token });
  if (!found.ok) return refusal(found);
  const base = config().SITE_URL;
  const files = `${base}/feeds/${token}/files`;
  const fileHref = (id: string, { name }: { name: string }): string =>
    `${files}/${id}/${encodeURIComponent(name)}`;
  const feed = await emptyFeed(`/feeds/${token}`);
  for (const item of found.value.items) {
    if (!item.publishedAt) continue;
    const [first] = item.enclosures;
    feed.addItem({
      id: `${base}${item.path}`,
      link: `${base}${item.path}`,
      title: item.title,
      description: item.summary,
      date: new Date(toMs(item.publishedAt)),
      ...(item.body && { content: plainHtml(item.body, { base, fileHref, shown: item.shown }) }),
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
  return new Response(write(feed), {
    headers: {
      'content-type': `${type}; charset=utf-8`,
      'cache-control': 'private, no-store',
      // What is private is no page of the site to those who list pages.
      'x-robots-tag': 'noindex, nofollow',
      'referrer-policy': 'no-referrer',
    },
  });
}
