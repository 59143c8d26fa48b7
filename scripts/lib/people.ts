import type { Actor } from '../../src/platform/actor';
import { realNow, siteNow } from '../../src/platform/clock';
import { hashPassword } from '../../src/platform/passwords';
import { currentSite } from '../../src/platform/site';
import { pool } from '../../src/platform/store/db';
import { findMemberByEmail, insertMember } from '../../src/people/store/members';

let hashed: { password: string; hash: Promise<string> } | undefined;

/** A person with a confirmed address and a password who has not joined yet. A known person is returned unchanged. */
export async function personNamed(name: string, email: string, password: string): Promise<Actor> {
  const known = await findMemberByEmail(pool(), email);
  // People of the demo share a password, which takes its time to hash.
  if (hashed?.password !== password) hashed = { password, hash: hashPassword(password) };
  const { id } =
    known ??
    (await insertMember(pool(), {
      email,
      name,
      passwordHash: await hashed.hash,
      staffRole: null,
      joinedAt: siteNow(await currentSite()),
      emailConfirmedAt: realNow(),
    }));
  return asMember(id);
}

export const asMember = (memberId: string): Actor => ({ kind: 'member', memberId, staffRole: null });
