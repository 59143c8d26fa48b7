import type { MetadataRoute } from 'next';
import { config } from '@/platform/config';

// The address of the site is not known to the build.
export const dynamic = 'force-dynamic';

/** What robots may read (RFC 9309): nothing that belongs to one person. */
export default function robots(): MetadataRoute.Robots {
  return {
    rules: { userAgent: '*', allow: '/', disallow: ['/desk', '/account', '/sign-in', '/api', '/look'] },
    sitemap: `${config().SITE_URL}/sitemap.xml`,
  };
}
