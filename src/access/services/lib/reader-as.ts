import type { LocalDate } from '@/core/instants';
import { findMemberByEmail } from '@/people/store/members';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { readerFor, type Reader } from './reader';
import { findViewpoint } from './viewpoints';

/**
 * A reader from a viewpoint as it is written, or a member by their address ("email:…"), now or on a day; null where there is no
 * such viewpoint. Free reads are not counted to them, so that what has a meter is closed.
 */
export async function readerAs(written: string, on: LocalDate | undefined): Promise<Reader | null> {
  const viewpoint = await viewpointOf(written);
  const seen = viewpoint && (await findViewpoint(await currentSite(), on ? `${viewpoint}@${on}` : viewpoint));
  return seen ? { ...(await readerFor(seen.person)), now: seen.at } : null;
}

async function viewpointOf(written: string): Promise<string | null> {
  // With a day of its own it would be seen on that one.
  if (!written.startsWith('email:')) return written.includes('@') ? null : written;
  const member = await findMemberByEmail(pool(), written.slice('email:'.length).trim().toLowerCase());
  return member ? `member:${member.id}` : null;
}
