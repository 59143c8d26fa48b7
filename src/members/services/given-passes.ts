import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { giftEnd, giftTermSchema } from '@/core/billing/gift-term';
import { isBefore } from '@/core/instants';
import { endHeldPass, giveHeldPass } from '@/billing/store/held-passes';
import { writeMail } from '@/mail/services/lib/write-mail';
import { lockMember } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { slug, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { findPass } from '@/tiers/store/passes';

const giveSchema = z.object({ memberId: uuid, passId: slug, term: giftTermSchema, isTold: z.boolean() });

/** Gives a member a pass at no charge, for a time or for good. */
export const givePass = staffUse('manage members')(
  'give-pass',
  giveSchema,
  async (actor, { memberId, passId, term, isTold }): Promise<Result<{ name: string }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    return transaction(async (db): Promise<Result<{ name: string }>> => {
      const member = await lockMember(db, memberId);
      if (!member || member.deletedAt) return missing();
      const pass = await findPass(db, passId);
      if (!pass) return refusedField('pass', 'pass.gone');
      const until = giftEnd(term, at, site.zone);
      if (until !== null && !isBefore(at, until)) return refusedField('lastDay', 'gift.past');
      const id = randomUUID();
      await giveHeldPass(db, {
        id,
        passId,
        memberId: member.id,
        browser: null,
        why: 'given',
        mode: site.mode,
        since: at,
        until,
      });
      if (isTold)
        await writeMail(db, site, {
          to: member,
          content: { template: 'gift', name: pass.name, until },
          key: `gift:${member.id}:${id}`,
          at,
        });
      await record(db, actor, at, 'pass given', `member:${member.id}`, { pass: passId, until });
      return done({ name: member.name || member.email });
    });
  },
);

/** Ends a pass that a member holds, however they got it. */
export const takePass = staffUse('manage members')(
  'take-pass',
  z.object({ memberId: uuid, passId: slug, id: uuid }),
  async (actor, { memberId, passId, id }): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db): Promise<Result<null>> => {
      const ended = await endHeldPass(db, passId, id, at, memberId);
      if (!ended) return refusedField('', 'pass.not-held');
      await record(db, actor, at, 'pass revoked', `member:${memberId}`, { pass: passId });
      return done(null);
    });
  },
);
