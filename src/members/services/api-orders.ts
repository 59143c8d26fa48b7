import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import { orderInput, putOrderInput, type orderOutput } from '@/core/api/schemas';
import { isBefore, type Instant } from '@/core/instants';
import { readInstant } from '@/core/calendar';
import { giveInBook } from '@/billing/services/lib/give-in-book';
import { happen, openBook } from '@/billing/services/lib/open-book';
import { endHeldPass, giveHeldPass, setPassEnd } from '@/billing/store/held-passes';
import { findOrder, saveOrder, type OutsideOrder } from '@/billing/store/outside-orders';
import { findMemberByEmail, insertMember, lockMember, type Member } from '@/people/store/members';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, missing, refusedField, refusedWith, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { lock, pool, transactionUnlessRefused, type Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { keyUse } from '@/platform/use';
import { findPass } from '@/tiers/store/passes';
import { findTier } from '@/tiers/store/tiers';
import { refusal } from '@/words/problems';

type Told = z.input<typeof orderOutput>;

const told = (order: OutsideOrder, now: Instant): Told => ({
  order: order.number,
  member: order.memberId,
  kind: order.kind,
  item: order.item,
  since: order.since,
  until: order.until,
  isHeld: isHeld(order, now),
});
const isHeld = ({ until }: Pick<OutsideOrder, 'until'>, now: Instant): boolean =>
  until === null || isBefore(now, until);

/** What was given by an order. */
export const apiOrder = keyUse('members:read')(
  'api-order',
  orderInput,
  async (_, { order: number }): Promise<Result<Told>> => {
    const site = await currentSite();
    const order = await findOrder(pool(), site.mode, number);
    return order ? done(told(order, siteNow(site))) : missing();
  },
);

/** What happens with orders, one after the other; a member's book is locked after their row. */
type Work = { db: Transaction; site: Site; actor: Actor; at: Instant };

async function inOrder(
  actor: Actor,
  number: string,
  work: (on: Work, known: OutsideOrder | undefined) => Promise<Result<null>>,
): Promise<Result<Told>> {
  const site = await currentSite();
  const at = siteNow(site);
  return transactionUnlessRefused(async (db): Promise<Result<Told>> => {
    // The same order that comes twice at once finds here what the first one did.
    await lock(db, 'outside orders');
    const result = await work({ db, site, actor, at }, await findOrder(db, site.mode, number));
    if (!result.ok) return result;
    const order = await findOrder(db, site.mode, number);
    return order ? done(told(order, at)) : missing();
  });
}

/**
 * Gives a tier or a pass by an order, or changes when what it gave ends. Sent again it changes nothing; what has ended is given
 * anew.
 */
export const apiPutOrder = keyUse('members:write')(
  'api-put-order',
  putOrderInput,
  async (actor, { order: number, email, name, tier, pass, until: written }): Promise<Result<Told>> => {
    if ((tier === undefined) === (pass === undefined)) return refusedField('tier', 'api.tier-or-pass');
    const [kind, item] = tier === undefined ? (['pass', pass ?? ''] as const) : (['tier', tier] as const);
    const until = written === null ? null : readInstant(written);
    return inOrder(actor, number, async (on, known) => {
      const { db, at } = on;
      if (until !== null && !isBefore(at, until)) return refusedField('until', 'gift.past');
      const member = await memberOf(on, email.trim().toLowerCase(), name);
      if (!member) return refusedField('email', 'api.no-such-member');
      if (known && (known.memberId !== member.id || known.kind !== kind || known.item !== item))
        return refusedField('order', 'api.other-order');
      if (known && isHeld(known, at)) return known.until === until ? done(null) : setEnd(on, known, until);
      if (kind === 'tier' ? !(await isTierGiven(db, item)) : !(await findPass(db, item)))
        return refusedField(kind, kind === 'tier' ? 'tier.gone' : 'pass.gone');
      return give(on, { number, memberId: member.id, kind, item, until });
    });
  },
);

/** Ends what was given by an order, at once; sent again, it changes nothing. */
export const apiEndOrder = keyUse('members:write')(
  'api-end-order',
  orderInput,
  async (actor, { order: number }): Promise<Result<Told>> =>
    inOrder(actor, number, async (on, known) => {
      if (!known) return missing();
      return isHeld(known, on.at) ? setEnd(on, known, on.at) : done(null);
    }),
);

async function isTierGiven(db: Transaction, id: string): Promise<boolean> {
  const tier = await findTier(db, id);
  return tier !== undefined && tier.retiredAt === null;
}

/** The member of an address, locked; one who is not there yet is added. Undefined: the account was deleted meanwhile. */
async function memberOf({ db, actor, at }: Work, email: string, name: string): Promise<Member | undefined> {
  const known = await findMemberByEmail(db, email);
  if (known) {
    const member = await lockMember(db, known.id);
    return member?.deletedAt ? undefined : member;
  }
  const added = await insertMember(db, {
    email,
    name,
    passwordHash: null,
    staffRole: null,
    joinedAt: at,
    emailConfirmedAt: null,
  });
  await record(db, actor, at, 'added by a program', `member:${added.id}`);
  return added;
}

async function give(
  { db, site, actor, at }: Work,
  {
    number,
    memberId,
    kind,
    item,
    until,
  }: Pick<OutsideOrder, 'number' | 'memberId' | 'kind' | 'item' | 'until'>,
): Promise<Result<null>> {
  let holdingId: string = randomUUID();
  if (kind === 'pass') {
    const given = { id: holdingId, passId: item, memberId, browser: null, why: 'given' as const };
    await giveHeldPass(db, { ...given, mode: site.mode, since: at, until });
  } else {
    const open = await openBook(db, site, actor, { memberId, mode: site.mode }, {}, at);
    const given = await giveInBook(open, item, until);
    if (!given.ok) return given;
    holdingId = given.value;
  }
  await saveOrder(db, site.mode, { number, memberId, kind, item, holdingId });
  await record(db, actor, at, `${kind} given`, `member:${memberId}`, { order: number, [kind]: item, until });
  return done(null);
}

async function setEnd(
  { db, site, actor, at }: Work,
  { number, memberId, kind, item, holdingId }: OutsideOrder,
  until: Instant | null,
): Promise<Result<null>> {
  if (kind === 'pass') {
    if (until === at) await endHeldPass(db, item, holdingId, at, memberId);
    else await setPassEnd(db, holdingId, until);
  } else {
    const open = await openBook(db, site, actor, { memberId, mode: site.mode }, {}, at);
    const happened = await happen(open, { do: 'extend', holding: holdingId, to: until });
    if (!happened.ok) return refusedWith(refusal(happened.why));
  }
  const action = until === at ? 'gift ended' : 'end of a gift changed';
  await record(db, actor, at, action, `member:${memberId}`, { order: number, [kind]: item, until });
  return done(null);
}
