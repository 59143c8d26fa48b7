import { randomBytes, randomUUID } from 'node:crypto';
import { z } from 'zod';
import { localDate, addLength } from '@/core/calendar';
import { codeWord } from '@/core/tiers/codes';
import { writeMail } from '@/mail/services/lib/write-mail';
import { findMembersByEmails } from '@/people/store/groups';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { insertBatch, insertInvitations } from '@/tiers/store/codes';
import { findOffer, listOffers } from '@/tiers/store/offers';
import { findTier, listTiers } from '@/tiers/store/tiers';
import { say } from '@/words/problems';

/** Letters of an invitation's code: 31 of them in 17 places are more than 80 bits. */
const LETTERS = 17;
const MOST = 500;
const GOOD_FOR = { n: 30, unit: 'day' } as const;
const ADDRESS = /[^\s,;"'<>()]+@[^\s,;"'<>()]+/g;
const address = z.email().max(254);

/** The offers to which people can be invited. */
export const inviteChoices = staffUse('manage members')('invite-choices', nothing, async () => {
  const tiers = new Map(
    (await listTiers(pool())).filter(({ retiredAt }) => !retiredAt).map((tier) => [tier.id, tier]),
  );
  const { registerOfferId } = await currentSite();
  return done({
    registerOfferId,
    offers: (await listOffers(pool()))
      .filter(({ onSale, tierId }) => onSale && tiers.has(tierId))
      .map(({ id, name, tierId }) => ({ id, name: `${tiers.get(tierId)?.name}, ${name}` })),
  });
});

const inputSchema = z.object({
  addresses: z.string().trim().min(1, say('group.no-addresses')).max(50_000),
  offerId: z.string().max(200),
  words: z.string().trim().max(2_000).default(''),
});

export type Invited = { invited: number; already: string[]; unreadable: string[] };

/**
 * Invites people by mail to join with an offer: each gets a link with a code of their own, which is good for their address
 * alone, once, for thirty days, also where joining needs a code. Members are not invited.
 */
export const inviteToJoin = staffUse('manage members')(
  'invite-to-join',
  inputSchema,
  async (actor, { addresses, offerId, words }): Promise<Result<Invited>> => {
    const typed = [...new Set((addresses.match(ADDRESS) ?? []).map((one) => one.toLowerCase()))];
    if (typed.length === 0) return refusedField('addresses', 'group.no-addresses');
    if (typed.length > MOST) return refusedField('addresses', 'group.too-many', { most: MOST });
    const readable = typed.filter((one) => address.safeParse(one).success);
    const site = await currentSite();
    const at = siteNow(site);
    return transaction(async (db): Promise<Result<Invited>> => {
      const offer = await findOffer(db, offerId);
      const tier = offer && (await findTier(db, offer.tierId));
      if (!offer?.onSale || !tier || tier.retiredAt) return refusedField('offerId', 'checkout.offer-left');
      const members = new Set((await findMembersByEmails(db, readable)).map(({ email }) => email));
      const emails = readable.filter((email) => !members.has(email));
      if (emails.length > 0) {
        const batchId = await insertBatch(db, `${tier.name}, ${localDate(at, site.zone)}`, {
          admits: [tier.id],
          discount: null,
          currency: null,
          tierIds: [],
          gives: null,
          mostUses: 1,
          mostPerPerson: null,
          firstDay: null,
          lastDay: localDate(addLength(at, GOOD_FOR, site.zone), site.zone),
          newMembersOnly: false,
          isOn: true,
        });
        const invited = emails.map((email) => ({ email, word: codeWord(randomBytes(LETTERS)) }));
        await insertInvitations(db, batchId, invited);
        for (const { email, word } of invited) {
          const secret = { path: `/join/${offer.id}?code=${word}` };
          const content = { template: 'join-invite', tierName: tier.name, words, secret } as const;
          const to = { id: null, email, name: '' };
          await writeMail(db, site, { to, content, key: `invite:${randomUUID()}`, at });
        }
        await record(db, actor, at, 'people invited', `tier:${tier.id}`, {
          count: emails.length,
          offer: offer.id,
        });
      }
      return done({
        invited: emails.length,
        already: [...members],
        unreadable: typed.filter((one) => !readable.includes(one)),
      });
    });
  },
);
