import { addLength, type Instant } from '@/core/calendar';
import { pool, transaction, type Transaction } from '@/platform/store/db';
import { claimReminder, expireJoinings, listUnfinishedJoinings, type Joining } from '@/store/joinings';
import { findOffer } from '@/store/offers';
import { findTier, listTiers, type Tier } from '@/store/tiers';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { newToken } from '@/platform/tokens';
import { writeMail } from '@/services/lib/write-mail';
import { staffUse, systemUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { findMember, type Member } from '@/store/members';
import { insertSignInLink } from '@/store/sign-in-links';

/** Hours after which a person is reminded, once, of a joining left unfinished; days after which it expires. */
const REMIND_HOURS = 1;
const EXPIRE_DAYS = 7;

export type UnfinishedJoining = Pick<Joining, 'email' | 'name' | 'lastProblem' | 'at' | 'remindedAt'> & {
  tier: Tier | undefined;
  offerName: string;
  expiresAt: Instant;
};

/** What people began and did not finish, newest first, with what stood in the way. */
async function listAll(): Promise<{ zone: string; joinings: UnfinishedJoining[] }> {
  const site = await currentSite();
  const tiers = new Map((await listTiers(pool())).map((tier) => [tier.id, tier]));
  const rows = await listUnfinishedJoinings(pool(), site.mode, 200);
  const joinings = await Promise.all(
    rows.map(async ({ email, name, lastProblem, at, remindedAt, offerId }) => {
      const offer = await findOffer(pool(), offerId);
      return {
        email,
        name,
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

/** Reminds people, once each, of what they left unfinished, and ends what has been left for too long. */
async function remindAll(): Promise<number> {
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
      const joining = await claimReminder(db, site.mode, before, now);
      const member = joining?.memberId ? await findMember(db, joining.memberId) : undefined;
      if (!joining || !member) return false;
      const offer = await findOffer(db, joining.offerId);
      const tier = offer && (await findTier(db, offer.tierId));
      await writeMail(
        db,
        site,
        member,
        {
          template: 'unfinished',
          tierName: tier?.name ?? site.name,
          secret: { path: await pathFor(db, member, joining) },
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

export const remindAndExpire = systemUse('remind-and-expire', nothing, async () => done(await remindAll()));

/**
 * Where the mail leads: to the checkout, by a link that signs in. Staff sign in as always: a link that lies in a mailbox
 * for days must not open the Desk.
 */
async function pathFor(db: Transaction, member: Member, joining: Joining): Promise<string> {
  const returnTo = `/join/${joining.offerId}?to=${encodeURIComponent(joining.returnTo)}`;
  if (member.staffRole) return returnTo;
  const { token, hash } = newToken();
  await insertSignInLink(db, hash, member.id, returnTo, EXPIRE_DAYS);
  return `/sign-in/link/${token}`;
}

/** What people began and did not finish. */
export const unfinishedJoinings = staffUse('look')('unfinished-joinings', nothing, async () =>
  done({ ...(await listAll()), expireDays: EXPIRE_DAYS }),
);
