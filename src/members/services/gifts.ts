import { z } from 'zod';
import { giftEnd, giftTermSchema } from '@/core/billing/gift-term';
import type { Event } from '@/core/billing/event';
import { isBefore, type Instant } from '@/core/instants';
import { happen, openBook } from '@/billing/services/lib/open-book';
import { writeMail } from '@/mail/services/lib/write-mail';
import { lockMember, type Member } from '@/people/store/members';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { slug, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, refusedWith, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transactionUnlessRefused, type Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { findTier } from '@/tiers/store/tiers';
import { refusal } from '@/words/problems';

type Happening = { event: Event; action: string; detail: Record<string, unknown> };

/** Something happens to what a member was given, under the lock of their book, and is written to the audit. */
async function inBookOf(
  actor: Actor,
  memberId: string,
  work: (db: Transaction, site: Site, member: Member, at: Instant) => Promise<Result<Happening>>,
): Promise<Result<{ name: string }>> {
  const site = await currentSite();
  const at = siteNow(site);
  return transactionUnlessRefused(async (db): Promise<Result<{ name: string }>> => {
    const member = await lockMember(db, memberId);
    if (!member || member.deletedAt) return missing();
    const open = await openBook(db, site, actor, { memberId: member.id, mode: site.mode });
    const wanted = await work(db, site, member, at);
    if (!wanted.ok) return wanted;
    const { event, action, detail } = wanted.value;
    const happened = await happen(open, event);
    if (!happened.ok) return refusedWith(refusal(happened.why));
    await record(db, actor, at, action, `member:${member.id}`, detail);
    return done({ name: member.name || member.email });
  });
}

const giveSchema = z.object({
  memberId: uuid,
  tierId: slug,
  term: giftTermSchema,
  /** Whether the member is told by mail. */
  isTold: z.boolean(),
});

/** Gives a member a tier at no charge, for a time or for good. */
export const giveTier = staffUse('manage members')(
  'give-tier',
  giveSchema,
  async (actor, { memberId, tierId, term, isTold }): Promise<Result<{ name: string }>> =>
    inBookOf(actor, memberId, async (db, site, member, at) => {
      const tier = await findTier(db, tierId);
      if (!tier || tier.retiredAt !== null) return refusedField('tier', 'tier.gone');
      const to = giftEnd(term, at, site.zone);
      if (to !== null && !isBefore(at, to)) return refusedField('lastDay', 'gift.past');
      if (isTold)
        await writeMail(db, site, {
          to: member,
          content: { template: 'gift', name: tier.name, until: to },
          key: `gift:${member.id}:${tier.id}:${at}`,
          at,
        });
      return done({
        event: { do: 'give', kind: 'tier', tier: tier.id, to },
        action: 'tier given',
        detail: { tier: tier.id, until: to },
      });
    }),
);

const holding = { memberId: uuid, holdingId: uuid };

/** Sets when a tier that was given, or imported, ends. */
export const changeGift = staffUse('manage members')(
  'change-gift',
  z.object({ ...holding, term: giftTermSchema }),
  async (actor, { memberId, holdingId, term }): Promise<Result<{ name: string }>> =>
    inBookOf(actor, memberId, (_db, { zone }, _member, at) => {
      const to = giftEnd(term, at, zone);
      return Promise.resolve(
        to !== null && !isBefore(at, to)
          ? refusedField('lastDay', 'gift.past')
          : done({
              event: { do: 'extend', holding: holdingId, to },
              action: 'end of a gift changed',
              detail: { until: to },
            }),
      );
    }),
);

/** Ends a tier that was given, or imported, at once. */
export const takeGift = staffUse('manage members')(
  'take-gift',
  z.object(holding),
  async (actor, { memberId, holdingId }): Promise<Result<{ name: string }>> =>
    inBookOf(actor, memberId, () =>
      Promise.resolve(
        done({
          event: { do: 'take', holding: holdingId },
          action: 'gift ended',
          detail: { holding: holdingId },
        }),
      ),
    ),
);
