import type { Actor } from '@/platform/actor';
import { passwordMatches } from '@/platform/passwords';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { forgetPoints, spendPoint, type Limit } from '@/platform/store/rate-limits';
import { findMember, type Member } from '@/people/store/members';
import { waitMinutes } from './wait-minutes';

const TRIES: Limit = { name: 'password:confirm', points: 10, seconds: 15 * 60 };

/**
 * Confirms the password of a signed-in member, before what cannot be undone. An account
 * without one has shown at each sign-in that they read its mail.
 */
export async function confirmPassword(
  { id, passwordHash }: Pick<Member, 'id' | 'passwordHash'>,
  typed: string,
  field = 'password',
): Promise<Result<null>> {
  if (passwordHash === null) return done(null);
  if (typed === '') return refusedField(field, 'password.confirm');
  const wait = await spendPoint(TRIES, id);
  if (wait > 0) return refusedField(field, 'tries.too-many', { minutes: waitMinutes(wait) });
  if (!(await passwordMatches(passwordHash, typed))) return refusedField(field, 'password.wrong');
  // Someone who knows it can confirm many things in a row.
  await forgetPoints(TRIES, id);
  return done(null);
}

/**
 * Whether the member of staff who calls knows their password, asked before what moves much money or says where it goes: a
 * screen left open is not enough. While a site is set up there is nobody to ask.
 */
export async function confirmStaff(actor: Actor, typed: string): Promise<Result<null>> {
  if (actor.kind === 'setup') return done(null);
  const member = actor.memberId === null ? undefined : await findMember(pool(), actor.memberId);
  if (!member) return missing();
  if (member.passwordHash === null) return refusedField('password', 'password.none');
  return confirmPassword(member, typed);
}
