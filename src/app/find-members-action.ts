'use server';

import { currentActor } from '@/app/session';
import { findMembers } from '@/members/services/find-members';

const MOST = 8;

/** Some members by words of their name or address, to look as one of them or to name one in a rule. */
export async function findSomeMembers(words: string): Promise<{ id: string; name: string; email: string }[]> {
  const found = await findMembers(await currentActor(), { q: words });
  if (!found.ok) return [];
  return found.value.rows.slice(0, MOST).map(({ id, name, email }) => ({ id, name: name || email, email }));
}
