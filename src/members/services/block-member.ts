import type { Actor } from '@/platform/actor';
import { lockMember, setBlocked } from '@/people/store/members';
import { deleteSessionsOf } from '@/people/store/sessions';
import { realNow, siteNow } from '@/platform/clock';
import { uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';

/** Blocks an account: its sessions end, and nobody signs in to it. What it holds and pays stays as it is. */
export const blockMember = staffUse('manage members')('block-member', uuid, (actor, id) =>
  setBlock(actor, id, true),
);

export const unblockMember = staffUse('manage members')('unblock-member', uuid, (actor, id) =>
  setBlock(actor, id, false),
);

async function setBlock(actor: Actor, id: string, isBlocked: boolean): Promise<Result<null>> {
  const at = siteNow(await currentSite());
  return transaction(async (db): Promise<Result<null>> => {
    const member = await lockMember(db, id);
    if (!member) return missing();
    if (isBlocked && member.staffRole) return refusedField('', 'block.staff');
    if (isBlocked === (member.blockedAt !== null)) return done(null);
    await setBlocked(db, id, isBlocked ? realNow() : null);
    if (isBlocked) await deleteSessionsOf(db, member.id);
    await record(db, actor, at, isBlocked ? 'account blocked' : 'account unblocked', `member:${id}`);
    return done(null);
  });
}
