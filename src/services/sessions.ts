import { readsAll } from '@/core/staff';
import { pool } from '@/store/db';
import type { Member } from '@/store/members';
import { deleteSession, findSessionMember, insertSession } from '@/store/sessions';
import { VISITOR_ACTOR, type Actor } from './actor';
import { hashToken, newToken } from './tokens';

export const SESSION_DAYS = 30;

/** A new session's token: only its hash is stored. */
export async function startSession(memberId: string): Promise<string> {
  const { token, hash } = newToken();
  await insertSession(pool(), hash, memberId, SESSION_DAYS);
  return token;
}

export async function endSession(token: string): Promise<void> {
  await deleteSession(pool(), hashToken(token));
}

export async function memberOfSession(token: string | undefined): Promise<Member | undefined> {
  return token ? findSessionMember(pool(), hashToken(token)) : undefined;
}

export function actorFor(member: Member | undefined): Actor {
  if (!member) return VISITOR_ACTOR;
  return { kind: member.staffRole ? 'staff' : 'member', memberId: member.id, staffRole: member.staffRole };
}

export function readsEverything(member: Member): boolean {
  return readsAll(member.staffRole);
}
