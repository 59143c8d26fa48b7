import type { SiteDefault } from '@/core/access/decide';
import type { TeaserSetting } from '@/core/content/teaser';
import { maybeOne, run, type Db } from './db';

export type Mode = 'test' | 'live';
/** What somebody who is not let in sees. */
export type Doorstep = {
  teaser: TeaserSetting;
  visitorNotice: string;
  memberNotice: string;
  showSignIn: boolean;
};

export type Site = {
  name: string;
  zone: string;
  currency: string;
  mode: Mode;
  accessDefault: SiteDefault;
  /** Milliseconds by which the rehearsal clock runs ahead of real time. */
  clockAheadMs: number;
  retryDays: number[];
  graceDays: number;
  doorstep: Doorstep;
  senderName: string;
  senderAddress: string;
  /** Whether members may delete their own account. */
  mayDeleteAccount: boolean;
};

/** The site, or undefined before it was set up. */
export async function findSite(db: Db): Promise<Site | undefined> {
  const row = await maybeOne<Omit<Site, 'clockAheadMs'> & { clockAheadMs: bigint }>(db, 'SELECT * FROM site');
  return row && { ...row, clockAheadMs: Number(row.clockAheadMs) };
}

export async function insertSite(db: Db, site: Omit<Site, 'mayDeleteAccount'>): Promise<void> {
  await run(
    db,
    `INSERT INTO site (name, zone, currency, mode, access_default, clock_ahead_ms, retry_days, grace_days, doorstep, sender_name, sender_address)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)`,
    [
      site.name,
      site.zone,
      site.currency,
      site.mode,
      site.accessDefault,
      site.clockAheadMs,
      site.retryDays,
      site.graceDays,
      site.doorstep,
      site.senderName,
      site.senderAddress,
    ],
  );
}

/** Moves the rehearsal clock forward by milliseconds. Only in test mode; never back. */
export async function addToClock(db: Db, ms: number): Promise<boolean> {
  return (
    (await run(
      db,
      `UPDATE site SET clock_ahead_ms = clock_ahead_ms + $1::bigint WHERE mode = 'test' AND $1::bigint > 0`,
      [ms],
    )) === 1
  );
}
