import { z } from 'zod';
import { pool } from '@/store/db';
import { findMemberByEmail, type Member } from '@/store/members';
import { forgetPoints, spendPoint, type Limit } from '@/store/rate-limits';
import { passwordMatches } from './passwords';
import { done, refused, type Result } from './result';

const PER_ADDRESS: Limit = { name: 'sign-in:address', points: 8, seconds: 15 * 60 };
const PER_CALLER: Limit = { name: 'sign-in:caller', points: 60, seconds: 15 * 60 };

const inputSchema = z.object({
  email: z.string().trim().toLowerCase().min(1, 'Type your e-mail address.').max(254),
  password: z.string().min(1, 'Type your password.').max(1000),
});

/** The member, where address and password belong together. The same answer for an unknown address and a wrong password. */
export async function signIn(input: unknown, caller: string): Promise<Result<Member>> {
  const parsed = inputSchema.safeParse(input);
  if (!parsed.success)
    return refused(Object.fromEntries(parsed.error.issues.map((i) => [String(i.path[0]), i.message])));
  const { email, password } = parsed.data;
  const wait = Math.max(await spendPoint(PER_CALLER, caller), await spendPoint(PER_ADDRESS, email));
  if (wait > 0) return refused({ '': `Too many tries. Wait ${waitWords(wait)}, then try again.` });
  const member = await findMemberByEmail(pool(), email);
  if (!(await passwordMatches(member?.passwordHash, password)) || !member) {
    return refused({
      '': 'This e-mail address and password do not belong together. Check both; capital letters count in the password.',
    });
  }
  await forgetPoints(PER_ADDRESS, email);
  return done(member);
}

export function waitWords(seconds: number): string {
  const minutes = Math.ceil(seconds / 60);
  return minutes === 1 ? 'a minute' : `${minutes} minutes`;
}
