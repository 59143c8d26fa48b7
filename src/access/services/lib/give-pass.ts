import { randomUUID } from 'node:crypto';
import { addLength } from '@/core/calendar';
import type { Instant } from '@/core/instants';
import { giveHeldPass, holdsPass, type Why } from '@/billing/store/held-passes';
import { listPassesOfBrowser } from '@/billing/store/holdings';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { lock, type Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { hashToken, newToken } from '@/platform/tokens';
import type { Pass } from '@/tiers/store/passes';

/** When a pass that is got at an instant ends; null: never. */
export const untilOf = ({ lasts }: Pass, since: Instant, { zone }: Site): Instant | null =>
  lasts && addLength(since, lasts, zone);

/** Puts a pass into the caller's hands, where they don't hold it yet. @returns what their browser is to carry from now on */
export async function givePassTo(
  db: Transaction,
  { memberId, ...actor }: Actor,
  site: Site,
  { pass, why, since, until }: { pass: string; why: Why; since: Instant; until: Instant | null },
): Promise<string | null> {
  const now = siteNow(site);
  const fresh = newToken();
  const known = actor.browser?.passes ? hashToken(actor.browser.passes) : null;
  // Something that someone else has put there is not made good by us.
  const isOurs = known !== null && (await listPassesOfBrowser(db, known, site.mode, now)).length > 0;
  const browser = memberId ? null : isOurs ? known : fresh.hash;
  await lock(db, 'passes', memberId ?? browser?.toString('hex') ?? '');
  const hands = { memberId, browser };
  if (!(await holdsPass(db, pass, hands, site.mode, now))) {
    const given = { ...hands, ...why, id: randomUUID(), passId: pass, mode: site.mode, since, until };
    await giveHeldPass(db, given);
    const whose = memberId ? `member:${memberId}` : `pass:${pass}`;
    await record(db, { ...actor, memberId }, now, 'pass got', whose, { pass, why: why.why });
  }
  return memberId || isOurs ? null : fresh.token;
}
