import { addLength } from '@/core/calendar';
import type { Instant } from '@/core/instants';
import { pool, transaction, type Transaction } from '@/platform/store/db';
import {
  claimReminder,
  expireUnconfirmed,
  listToExpire,
  listUnfinished,
  type Checkout,
} from '@/billing/store/checkouts';
import { inBook } from '@/billing/services/lib/in-book';
import { WORKER } from '@/platform/actor';
import { findOffer, listOffers } from '@/tiers/store/offers';
import { findTier, listTiers, type Tier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { newToken } from '@/platform/tokens';
import type { Mode } from '@/platform/store/site';
import { writeMail } from '@/mail/services/lib/write-mail';
import { staffUse, systemUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { findMember, type Member } from '@/people/store/members';
import { insertSignInLink } from '@/people/store/sign-in-links';

/** Hours after which a person is reminded, once, of a checkout left unfinished; days after which it expires. */
const REMIND_HOURS = 1;
const EXPIRE_DAYS = 7;
const MOST_LISTED = 200;

export type UnfinishedCheckout = Pick<Checkout, 'email' | 'name' | 'lastProblem' | 'at' | 'remindedAt'> & {
  tier: Tier | undefined;
  offerName: string;
  expiresAt: Instant;
};

/** What people began and did not finish, newest first, with the reason. */
async function listAll(): Promise<{
  zone: string;
  checkouts: UnfinishedCheckout[];
  total: number;
}> {
  const site = await currentSite();
  const tiers = new Map((await listTiers(pool())).map((tier) => [tier.id, tier]));
  const offers = new Map((await listOffers(pool())).map((offer) => [offer.id, offer]));
  const { rows, total } = await listUnfinished(pool(), site.mode, MOST_LISTED);
  const checkouts = rows.map(({ email, name, lastProblem, at, remindedAt, offerId }) => {
    const offer = offers.get(offerId);
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
  });
  return { zone: site.zone, checkouts, total };
}

/** Reminds people, once each, of what they left unfinished, and ends what has been left for too long. */
async function remindAll(): Promise<number> {
  const site = await currentSite();
  const now = siteNow(site);
  const expired = await expireAll(site.mode, addLength(now, { n: -EXPIRE_DAYS, unit: 'day' }, site.zone));
  const before = addLength(now, { n: -REMIND_HOURS, unit: 'hour' }, site.zone);
  let reminded = 0;
  while (
    await transaction(async (db) => {
      const checkout = await claimReminder(db, site.mode, before, now);
      const member = checkout?.memberId ? await findMember(db, checkout.memberId) : undefined;
      if (!checkout || !member) return false;
      const offer = await findOffer(db, checkout.offerId);
      const tier = offer && (await findTier(db, offer.tierId));
      await writeMail(db, site, {
        to: member,
        content: {
          template: 'unfinished',
          tierName: tier?.name ?? site.name,
          secret: { path: await pathFor(db, member, checkout) },
          days: EXPIRE_DAYS,
        },
        key: `unfinished:${checkout.id}`,
        at: now,
      });
      return true;
    })
  )
    reminded++;
  return expired + reminded;
}

/** Ends what has been left for too long; its credit is free again. */
async function expireAll(mode: Mode, before: Instant): Promise<number> {
  let expired = await expireUnconfirmed(pool(), mode, before);
  for (const { id, memberId } of await listToExpire(pool(), mode, before, 200)) {
    if (!memberId) continue;
    const ended = await inBook(
      WORKER,
      { memberId, mode },
      { checkouts: [id] },
      { do: 'expire', checkout: id },
    );
    if (ended.ok) expired += 1;
  }
  return expired;
}

export const remindAndExpire = systemUse('remind-and-expire', nothing, async () => done(await remindAll()));

/**
 * Where the mail leads: to the checkout, by a link that signs in. Staff sign in as always: a link that lies in a mailbox
 * for days must not open the Desk.
 */
async function pathFor(db: Transaction, member: Member, checkout: Checkout): Promise<string> {
  const returnTo = `/join/${checkout.offerId}?to=${encodeURIComponent(checkout.returnTo)}`;
  if (member.staffRole) return returnTo;
  const { token, hash } = newToken();
  await insertSignInLink(db, hash, member.id, returnTo, EXPIRE_DAYS);
  return `/sign-in/link/${token}`;
}

/** What people began and did not finish. */
export const unfinishedCheckouts = staffUse('see members')('unfinished-checkouts', nothing, async () =>
  done({ ...(await listAll()), expireDays: EXPIRE_DAYS }),
);
