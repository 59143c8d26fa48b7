import type { ItemView } from '@/access/services/view-item';
import { hasClosedParts } from '@/core/content/sections';
import { config } from '@/platform/config';

/**
 * What search engines are told of an item (schema.org, "Subscription and paywalled content"): nothing that its reader is
 * not shown. JSON that is safe in a script element.
 */
export function structuredData(
  seen: Extract<ItemView, { kind: 'open' | 'doorstep' }>,
  site: { name: string; language: string },
): string {
  const { item, summary } = seen;
  const isFree = seen.kind === 'open' && !hasClosedParts(seen.body);
  const about = {
    '@context': 'https://schema.org',
    '@type': item.type === 'page' || item.type === 'file' ? 'WebPage' : 'Article',
    [item.type === 'page' || item.type === 'file' ? 'name' : 'headline']: item.title,
    url: `${config().SITE_URL}${item.path}`,
    inLanguage: site.language,
    ...(summary && { description: summary }),
    ...(item.picture && { image: `${config().SITE_URL}/pictures/${item.picture.id}` }),
    ...(item.publishedAt && { datePublished: item.publishedAt }),
    ...(item.author && { author: { '@type': 'Person', name: item.author } }),
    publisher: { '@type': 'Organization', name: site.name },
    isAccessibleForFree: isFree,
    ...(!isFree && {
      hasPart: { '@type': 'WebPageElement', isAccessibleForFree: false, cssSelector: '.closed-part' },
    }),
  };
  return JSON.stringify(about).replaceAll('<', '\\u003c');
}
