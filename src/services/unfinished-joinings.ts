import { addLength, type Instant } from '@/core/calendar';
import { pool, transaction } from '@/store/db';
import {
  claimReminder,
  expireJoinings,
  findJoiningByHash,
  listUnfinishedJoinings,
  type Joining,
} from '@/store/joinings';
import { findOffer } from '@/store/offers';
import { findTier, listTiers, type Tier } from '@/store/tiers';
import { siteNow } from './clock';
import { currentSite } from './site';
import { hashToken, newToken } from './tokens';
import { writeMail } from './write-mail';

/** Hours after which a person is reminded, once, of a joining left unfinished; days after which it expires. */
const REMIND_HOURS = 1;
export const EXPIRE_DAYS = 7;

export type UnfinishedJoining = Pick<
  Joining,
  'id' | 'email' | 'name' | 'state' | 'lastProblem' | 'at' | 'remindedAt'
> & { tier: Tier | undefined; offerName: string; expiresAt: Instant };

/** What people began and did not finish, newest first, with what stood in the way. */
export async function unfinishedJoinings(): Promise<{ zone: string; joinings: UnfinishedJoining[] }> {
  const site = await currentSite();
  const tiers = new Map((await listTiers(pool())).map((tier) => [tier.id, tier]));
  const rows = await listUnfinishedJoinings(pool(), site.mode, 200);
  const joinings = await Promise.all(
    rows.map(async ({ id, email, name, state, lastProblem, at, remindedAt, offerId }) => {
      const offer = await findOffer(pool(), offerId);
      return {
        id,
        email,
        name,
        state,
        lastProblem,
        at,
        remindedAt,
        tier: tiers.get(offer?.tierId ?? ''),
        offerName: offer?.name ?? '',
        expiresAt: addLength(at, { n: EXPIRE_DAYS, unit: 'day' }, site.zone),
      };
    }),
  );
  return { zone: site.zone, joinings };
}

/** The joining that a mailed link resumes; null where the link is dead. */
export async function joiningToResume(token: string): Promise<Joining | null> {
  const joining = await findJoiningByHash(pool(), hashToken(token));
  const { mode } = await currentSite();
  return joining?.state === 'open' && joining.mode === mode ? joining : null;
}

/** Reminds people, once each, of what they left unfinished, and ends what has been left for too long. */
export async function remindAndExpire(): Promise<number> {
  const site = await currentSite();
  const now = siteNow(site);
  const expired = await expireJoinings(
    pool(),
    site.mode,
    addLength(now, { n: -EXPIRE_DAYS, unit: 'day' }, site.zone),
  );
  const before = addLength(now, { n: -REMIND_HOURS, unit: 'hour' }, site.zone);
  let reminded = 0;
  while (
    await transaction(async (db) => {
      const { token, hash } = newToken();
      const joining = await claimReminder(db, site.mode, before, now, hash);
      if (!joining) return false;
      const offer = await findOffer(db, joining.offerId);
      const tier = offer && (await findTier(db, offer.tierId));
      await writeMail(
        db,
        site,
        { id: joining.memberId, email: joining.email, name: joining.name },
        {
          template: 'unfinished',
          tierName: tier?.name ?? site.name,
          path: `/join/resume/${token}`,
          days: EXPIRE_DAYS,
        },
        `unfinished:${joining.id}`,
        now,
      );
      return true;
    })
  )
    reminded++;
  return expired + reminded;
}
