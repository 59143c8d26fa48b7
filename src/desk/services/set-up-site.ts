import { z } from 'zod';
import { isZone } from '@/core/instants';
import { isCurrency } from '@/core/money';
import { transaction } from '@/platform/store/db';
import { insertMember } from '@/people/store/members';
import { findSite, insertSite } from '@/platform/store/site';
import { SETUP } from '@/platform/actor';
import { realNow, siteNow } from '@/platform/clock';
import { hashPassword, MAX_PASSWORD, MIN_PASSWORD } from '@/platform/passwords';
import { record } from '@/platform/record';
import { done, type Result, refusedField } from '@/platform/result';
import { systemUse } from '@/platform/use';
import { say } from '@/words/problems';

const inputSchema = z.object({
  name: z.string().trim().min(1, say('site.no-name')).max(80),
  zone: z.string().refine(isZone, 'is not a time zone; write it like Europe/London'),
  currency: z.string().refine(isCurrency, 'is not a currency; write it like GBP'),
  ownerName: z.string().trim().min(1, say('site.no-owner')),
  ownerEmail: z.email().toLowerCase(),
  ownerPassword: z.string().min(MIN_PASSWORD, `needs at least ${MIN_PASSWORD} characters`).max(MAX_PASSWORD),
  senderAddress: z.email(),
  /** Milliseconds by which the rehearsal clock starts ahead of real time; below zero to rehearse a past. */
  clockAheadMs: z.number().int().default(0),
});

/** Makes the site, in test mode, and its owner. Once only. */
export const setUpSite = systemUse(
  'set-up-site',
  inputSchema,
  async (_, input): Promise<Result<{ ownerId: string }>> => {
    const { ownerName, ownerEmail, ownerPassword, ...site } = input;
    const passwordHash = await hashPassword(ownerPassword);
    return transaction(async (db) => {
      if (await findSite(db)) return refusedField('', 'site.exists');
      await insertSite(db, {
        ...site,
        mode: 'test',
        accessDefault: 'everyone',
        retryDays: [1, 3, 5, 7],
        graceDays: 7,
        senderName: site.name,
        doorstep: {
          teaser: { kind: 'words', count: 60 },
          visitorNotice: 'The rest is for members.',
          memberNotice: 'What you hold does not open this.',
          showSignIn: true,
        },
      });
      const joinedAt = siteNow({ mode: 'test', clockAheadMs: site.clockAheadMs });
      const owner = await insertMember(db, {
        email: ownerEmail,
        name: ownerName,
        passwordHash,
        staffRole: 'owner',
        joinedAt,
        emailConfirmedAt: realNow(),
      });
      await record(db, SETUP, realNow(), 'site set up', 'site', { name: site.name });
      return done({ ownerId: owner.id });
    });
  },
);
