import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { giftEnd } from '@/core/billing/gift-term';
import type { HoldingId } from '@/core/ids';
import { localDate } from '@/core/calendar';
import { codeAgainst } from '@/core/tiers/codes';
import { giveInBook } from '@/billing/services/lib/give-in-book';
import { openBook } from '@/billing/services/lib/open-book';
import { countUses, hadSubscription, insertCodeUse } from '@/billing/store/code-uses';
import { putInGroups } from '@/billing/services/lib/come-into-groups';
import { groupsByCode } from '@/billing/store/group-sources';
import { giveHeldPass } from '@/billing/store/held-passes';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import { lockMember } from '@/people/store/members';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, missing, refused, refusedField, refusedWith, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transactionUnlessRefused, type Db } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { memberUse, publicUse } from '@/platform/use';
import { findPurchase } from '@/billing/store/purchases';
import { findCode, lockCode, type Code } from '@/tiers/store/codes';
import type { Mode } from '@/platform/store/site';
import { findPass } from '@/tiers/store/passes';
import { listOffers } from '@/tiers/store/offers';
import { findTier, listTiers } from '@/tiers/store/tiers';
import { problem } from '@/words/problems';

/** Codes are guessed by programs: so many tries are enough for people. */
const TRIES: Limit = { name: 'code:try', points: 20, seconds: 15 * 60 };
const word = z.string().trim().min(1).max(60);

/** A code; that of a gift card only in the mode in which the card was bought. */
async function codeOf(db: Db, typed: string, mode: Mode): Promise<Code | undefined> {
  const code = await findCode(db, typed);
  const card = code && (await findPurchase(db, code.batchId));
  return card && card.mode !== mode ? undefined : code;
}

async function againstTrying(actor: Actor) {
  const wait = await spendPoint(TRIES, actor.address ?? actor.memberId ?? 'unknown');
  return wait > 0 ? refusedField('word', 'tries.too-many', { minutes: waitMinutes(wait) }) : null;
}

/** What a code that was typed would do for the caller: what it gives, and the offers that it is for. */
export const lookAtCode = publicUse('look-at-code', word, async (actor, typed) => {
  const against = await againstTrying(actor);
  if (against) return against;
  const site = await currentSite();
  const code = await codeOf(pool(), typed, site.mode);
  if (!code) return refusedField('word', 'checkout.code-invalid');
  const uses = await countUses(pool(), code, { memberId: actor.memberId, mode: site.mode, except: null });
  const isNew =
    actor.memberId && code.newMembersOnly
      ? !(await hadSubscription(pool(), actor.memberId, site.mode))
      : null;
  const over = codeAgainst(code, { uses, today: localDate(siteNow(site), site.zone), isNew });
  if (over) return refusedWith(over, 'word');
  const tiers = await listTiers(pool());
  const isFor = (tierId: string): boolean =>
    code.admits.includes(tierId) ||
    (code.discount !== null && (code.tierIds.length === 0 || code.tierIds.includes(tierId)));
  const offers = (await listOffers(pool())).filter(
    ({ onSale, tierId, isPaid }) => onSale && isFor(tierId) && (isPaid || code.admits.includes(tierId)),
  );
  return done({
    word: code.word,
    discount: code.discount,
    currency: code.currency,
    gives: code.gives && {
      ...code.gives,
      name:
        code.gives.kind === 'tier'
          ? (tiers.find(({ id }) => id === code.gives?.id)?.name ?? '')
          : ((await findPass(pool(), code.gives.id))?.name ?? ''),
    },
    tiers: tiers
      .filter(({ retiredAt }) => retiredAt === null)
      .flatMap(({ id, name }) => {
        const own = offers.filter(({ tierId }) => tierId === id);
        return own.length > 0
          ? [{ id, name, offers: own.map((offer) => ({ id: offer.id, name: offer.name })) }]
          : [];
      }),
  });
});

/** Uses a code that gives a tier or a pass, for the member who is signed in. */
export const redeemCode = memberUse(
  'redeem-code',
  z.object({ word }),
  async (actor, { word: typed }): Promise<Result<{ name: string }>> => {
    const wait = await againstTrying(actor);
    if (wait) return wait;
    if (actor.look) return refusedField('word', 'pass.looking');
    const site = await currentSite();
    const at = siteNow(site);
    return transactionUnlessRefused(async (db): Promise<Result<{ name: string }>> => {
      const member = await lockMember(db, actor.memberId);
      if (!member) return missing();
      const found = await codeOf(db, typed, site.mode);
      const code = found && (await lockCode(db, found.id));
      if (!code) return refusedField('word', 'checkout.code-invalid');
      if (!code.gives) return refusedField('word', 'code.gives-nothing');
      const uses = await countUses(db, code, { memberId: member.id, mode: site.mode, except: null });
      const isNew = !(await hadSubscription(db, member.id, site.mode));
      const over = codeAgainst(code, { uses, today: localDate(at, site.zone), isNew });
      if (over) return refusedWith(over, 'word');
      const { kind, id, lasts } = code.gives;
      const until = giftEnd(lasts ? { for: 'length', length: lasts } : { for: 'good' }, at, site.zone);
      const thing = kind === 'tier' ? await findTier(db, id) : await findPass(db, id);
      if (!thing) return refusedField('word', 'checkout.code-invalid');
      let holdingId: HoldingId | null = null;
      if (kind === 'pass')
        await giveHeldPass(db, {
          id: randomUUID(),
          passId: id,
          memberId: member.id,
          browser: null,
          why: 'code',
          mode: site.mode,
          since: at,
          until,
        });
      else {
        const open = await openBook(db, site, actor, { memberId: member.id, mode: site.mode });
        const given = await giveInBook(open, id, until);
        if (!given.ok) return refused({ word: given.problems[''] ?? problem('form.unknown') });
        holdingId = given.value;
      }
      await putInGroups({ db, actor, at }, await groupsByCode(db, member.id, code.batchId));
      await insertCodeUse(db, { codeId: code.id, memberId: member.id, mode: site.mode, at, holdingId });
      await record(db, actor, at, 'code used', `member:${member.id}`, { code: code.word, gives: id, until });
      return done({ name: thing.name });
    });
  },
);
