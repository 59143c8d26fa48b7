import type { SignedIn } from '@/platform/actor';
import { refusedField, type Refusal } from '@/platform/result';
import { currentSite } from '@/platform/site';
import type { Db } from '@/platform/store/db';
import { lockMember, type Member } from '@/people/store/members';
import { findOneTime } from '@/people/store/one-time-codes';
import { listPasskeys } from '@/people/store/passkeys';

/** How many second proofs a member has: their one-time codes, and each passkey. */
export async function countProofs(db: Db, memberId: string): Promise<number> {
  const codes = await findOneTime(db, memberId);
  return (await listPasskeys(db, memberId)).length + (codes?.isConfirmed ? 1 : 0);
}

/**
 * Why one of the staff cannot add a one-time code or a passkey: the site asks for one, they have one, and have not shown it.
 * Otherwise a password alone would be enough to make another.
 */
export async function againstAdding(
  db: Db,
  actor: SignedIn,
  { id, staffRole }: Pick<Member, 'id' | 'staffRole'>,
): Promise<Refusal | null> {
  await lockMember(db, id);
  const isHeld = staffRole !== null && actor.staffRole === null;
  return isHeld && (await countProofs(db, id)) > 0 ? refusedField('', 'proof.show-yours') : null;
}

/** Why a one-time code or a passkey cannot be removed: the site asks its staff for one, and it is their only one. */
export async function againstRemoving(
  db: Db,
  { id, staffRole }: Pick<Member, 'id' | 'staffRole'>,
): Promise<Refusal | null> {
  await lockMember(db, id);
  const isAsked = staffRole !== null && (await currentSite(db)).asksStaffProof;
  return isAsked && (await countProofs(db, id)) === 1 ? refusedField('', 'proof.last') : null;
}
