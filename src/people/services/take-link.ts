import { z } from 'zod';
import { done, refusedField, type Result } from '@/platform/result';
import { safeReturn } from '@/platform/safe-return';
import { pool, transaction } from '@/platform/store/db';
import { hashToken } from '@/platform/tokens';
import { publicUse } from '@/platform/use';
import { lockMember } from '@/people/store/members';
import { peekSignInLink, takeSignInLink } from '@/people/store/sign-in-links';
import { confirmEmail, openSession, type Opened } from './lib/open-session';

const token = z.string().max(100);

/** Whether a mailed link is still good; looking at it does not use it up. */
export const isLinkGood = publicUse('is-link-good', token, async (_, link) =>
  done(await peekSignInLink(pool(), hashToken(link))),
);

/** Uses a mailed link, once: its reader is signed in. */
export const takeLink = publicUse(
  'take-link',
  token,
  async (actor, link): Promise<Result<Opened & { to: string }>> =>
    transaction(async (db) => {
      const taken = await takeSignInLink(db, hashToken(link));
      const member = taken && (await lockMember(db, taken.memberId));
      if (!member) return refusedField('', 'link.used');
      if (member.blockedAt) return refusedField('', 'sign-in.blocked');
      await confirmEmail(db, member);
      const opened = await openSession(db, actor, member, 'mailed link');
      return done({ ...opened, to: safeReturn(taken.returnTo) });
    }),
);
