import { z } from 'zod';
import { transaction, pool } from '@/store/db';
import { findMember, findMemberByEmail, type Member } from '@/store/members';
import { spendPoint, type Limit } from '@/store/rate-limits';
import { insertSignInLink, peekSignInLink, takeSignInLink } from '@/store/sign-in-links';
import { VISITOR_ACTOR } from './actor';
import { siteNow } from './clock';
import { record } from './record';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { safeReturn } from './safe-return';
import { waitWords } from './sign-in';
import { currentSite } from './site';
import { hashToken, newToken } from './tokens';
import { writeMail } from './write-mail';

export const LINK_MINUTES = 30;
const PER_ADDRESS: Limit = { name: 'link:address', points: 4, seconds: 30 * 60 };
const PER_CALLER: Limit = { name: 'link:caller', points: 20, seconds: 30 * 60 };

const inputSchema = z.object({
  email: z.email('Type your e-mail address, like ines@moor.example.'),
  to: z.string(),
});

/** Mails a link that signs in, where the address has an account. The answer is the same where it has none. */
export async function mailSignInLink(raw: unknown, caller: string): Promise<Result<null>> {
  const parsed = inputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const email = parsed.data.email.toLowerCase();
  const wait = Math.max(await spendPoint(PER_CALLER, caller), await spendPoint(PER_ADDRESS, email));
  if (wait > 0) return refusedField('', `Too many links. Wait ${waitWords(wait)}, then ask again.`);
  const member = await findMemberByEmail(pool(), email);
  if (member) await sendLink(member, safeReturn(parsed.data.to));
  return done(null);
}

/** The same for a member whom staff help; only the member gets the link. */
export async function sendLink(member: Member, returnTo: string): Promise<void> {
  const site = await currentSite();
  const { token, hash } = newToken();
  await transaction(async (db) => {
    await insertSignInLink(db, hash, member.id, returnTo, LINK_MINUTES);
    const content = {
      template: 'sign-in-link' as const,
      path: `/sign-in/link/${token}`,
      minutes: LINK_MINUTES,
    };
    await writeMail(db, site, member, content, `link:${hash.toString('hex').slice(0, 20)}`, siteNow(site));
  });
}

/** Whether a mailed link is still good; looking at it does not use it up. */
export async function isLinkGood(token: string): Promise<boolean> {
  return peekSignInLink(pool(), hashToken(token));
}

/** Uses a mailed link, once. */
export async function takeLink(token: string): Promise<Result<{ member: Member; returnTo: string }>> {
  const site = await currentSite();
  return transaction(async (db) => {
    const link = await takeSignInLink(db, hashToken(token));
    const member = link && (await findMember(db, link.memberId));
    if (!link || !member)
      return refusedField('', 'This link has been used, or is too old. Ask for another; it takes a minute.');
    await record(db, VISITOR_ACTOR, siteNow(site), 'signed in by a mailed link', `member:${member.id}`);
    return done({ member, returnTo: link.returnTo });
  });
}
