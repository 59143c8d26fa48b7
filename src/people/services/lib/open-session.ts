import type { Actor } from '@/platform/actor';
import { realNow } from '@/platform/clock';
import { record } from '@/platform/record';
import type { Transaction } from '@/platform/store/db';
import { hashToken, newToken } from '@/platform/tokens';
import type { Member } from '@/people/store/members';
import {
  deleteDevicesOf,
  deleteSession,
  deleteSessionsOf,
  insertDevice,
  insertSession,
} from '@/people/store/sessions';
import { deletePasskeysOf } from '@/people/store/passkeys';
import { findOneTime } from '@/people/store/one-time-codes';
import { setConfirmedEmail, setPassword } from '@/people/store/members';
import type { MemberId } from '@/core/ids';

export const SESSION_DAYS = 30;
export const DEVICE_DAYS = 90;

/** What a browser receives at sign-in: the only way to a session. */
export type Opened = {
  memberId: MemberId;
  session: string;
  device: string;
  /** A one-time code is asked for first. */
  needsCode: boolean;
};

/** Opens a session for an authenticated member, in place of the one that the browser had. */
export async function openSession(
  db: Transaction,
  actor: Actor,
  member: Pick<Member, 'id' | 'staffRole'>,
  how: string,
  /** More than a password or a mailed code was shown; else a one-time code is asked for, where they have them. */
  isProven = false,
): Promise<Opened> {
  const { session: before, device: known, agent = '' } = actor.browser ?? {};
  if (before) await deleteSession(db, hashToken(before));
  const [session, fresh] = [newToken(), newToken()];
  const device = known ? { token: known, hash: hashToken(known) } : fresh;
  const needsCode = !isProven && ((await findOneTime(db, member.id))?.isConfirmed ?? false);
  await insertSession(db, {
    tokenHash: session.hash,
    memberId: member.id,
    days: SESSION_DAYS,
    browser: agent.slice(0, 300),
    needsCode,
    isProven,
  });
  await insertDevice(db, device.hash, member.id, DEVICE_DAYS);
  const as: Actor = {
    kind: member.staffRole ? 'staff' : 'member',
    memberId: member.id,
    staffRole: member.staffRole,
  };
  const action = needsCode ? 'asked for a one-time code' : 'signed in';
  await record(db, as, realNow(), action, `member:${member.id}`, { how, from: actor.address ?? '' });
  return { memberId: member.id, session: session.token, device: device.token, needsCode };
}

/**
 * A member has confirmed that they read the mail of their address. On the first confirmation, what was set up in its name
 * is removed, so that someone who used an address that is not theirs is locked out.
 */
export async function confirmEmail(db: Transaction, member: Member): Promise<{ lostPassword: boolean }> {
  const isFirst = member.emailConfirmedAt === null;
  if (isFirst) {
    await setPassword(db, member.id, null);
    await deletePasskeysOf(db, member.id);
    await deleteSessionsOf(db, member.id);
    await deleteDevicesOf(db, member.id);
  }
  await setConfirmedEmail(db, member.id, member.email, realNow());
  return { lostPassword: isFirst && member.passwordHash !== null };
}
