import type { Actor } from '@/platform/actor';
import { pool } from '@/platform/store/db';
import { hashToken } from '@/platform/tokens';
import { findMemberByEmail } from '@/people/store/members';
import { isDeviceOf } from '@/people/store/sessions';

/** The name under which a browser that has signed in to this account before is counted; null for any other. */
export async function isKnownDevice({ browser }: Actor, email: string): Promise<string | null> {
  if (!browser?.device) return null;
  const hash = hashToken(browser.device);
  const member = await findMemberByEmail(pool(), email);
  return member && (await isDeviceOf(pool(), hash, member.id)) ? hash.toString('hex').slice(0, 32) : null;
}
