import { fromMs, type Instant } from '@/core/instants';
import type { Mode, Site } from '@/platform/store/site';

/** The only place that reads the system's time for the site's business. */
export function realNow(): Instant {
  return fromMs(Date.now());
}

/** What time the site believes it is: the rehearsal clock for test things, real time for live ones. */
export function siteNow(site: Pick<Site, 'clockAheadMs' | 'mode'>, mode: Mode = site.mode): Instant {
  return mode === 'test' ? fromMs(Date.now() + site.clockAheadMs) : realNow();
}
