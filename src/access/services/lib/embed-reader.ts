import { findEmbedSession } from '@/access/store/embeds';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { hashToken } from '@/platform/tokens';
import { readerFor, type Reader } from './reader';
import { carriedFacts, personFacts } from './viewpoints';

/** Who reads an item in a frame: the member who allowed it there; null where nobody has. */
export async function embedReader({ browser }: Actor, itemId: string): Promise<Reader | null> {
  const tokens = browser?.embeds ?? [];
  if (tokens.length === 0) return null;
  const found = await findEmbedSession(pool(), tokens.map(hashToken), itemId);
  const site = await currentSite();
  const person = found && (await personFacts(site, found.memberId, siteNow(site)));
  return person ? readerFor(carriedFacts(site, person)) : null;
}
