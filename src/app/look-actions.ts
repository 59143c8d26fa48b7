'use server';

import { currentActor } from '@/app/session';
import { findMembers } from '@/members/services/find-members';

const MOST = 8;

/** Members as whom staff might look, by words of their name or address. */
export async function findMembersToLookAs(
  words: string,
): Promise<{ id: string; name: string; email: string }[]> {
  const found = await findMembers(await currentActor(), { search: words, tier: '', state: '', page: 1 });
  if (!found.ok) return [];
  return found.value.rows
    .slice(0, MOST)
    .map(({ id, name, email }) => ({ id: `member:${id}`, name: name || email, email }));
}
