import { z } from 'zod';
import { deletePrivateFeed, memberOfFeed, privateFeedOf, setPrivateFeed } from '@/access/store/private-feeds';
import { siteNow } from '@/platform/clock';
import { nothing, slug } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { hashToken, newToken } from '@/platform/tokens';
import { memberUse, publicUse } from '@/platform/use';
import { feedItemsFor } from './lib/feed-items';
import { openTo, type OpenFile } from './lib/open-file';
import type { Reader } from './lib/reader';
import { readerOutside } from './lib/reader-outside';

/** Whether the member has a private address, and since when. */
export const myFeed = memberUse('my-feed', nothing, async ({ memberId }) =>
  done({ since: (await privateFeedOf(pool(), memberId))?.madeAt ?? null }),
);

/** Makes a private address for the member's feed, or another in its place. The token is told this once. */
export const makeFeed = memberUse('make-feed', nothing, async (actor): Promise<Result<{ token: string }>> => {
  const at = siteNow(await currentSite());
  const { token, hash } = newToken();
  return transaction(async (db) => {
    await setPrivateFeed(db, actor.memberId, hash, at);
    await record(db, actor, at, 'private feed made', `member:${actor.memberId}`);
    return done({ token });
  });
});

/** Revokes the private address: requests to it are answered with 404. */
export const revokeFeed = memberUse('revoke-feed', nothing, async (actor): Promise<Result<null>> => {
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    if (await deletePrivateFeed(db, actor.memberId))
      await record(db, actor, at, 'private feed revoked', `member:${actor.memberId}`);
    return done(null);
  });
});

const token = z.string().min(20).max(100);

/** The member whose feed a token opens, as a reader: what they may read is asked anew each time. */
async function readerOfToken(given: string): Promise<Reader | null> {
  const memberId = await memberOfFeed(pool(), hashToken(given));
  return memberId ? readerOutside(memberId) : null;
}

/** The newest items with what a member may read of them, for the reader that has their private address. */
export const privateFeed = publicUse('private-feed', z.object({ token }), async (_, input) => {
  const reader = await readerOfToken(input.token);
  return reader ? done({ items: await feedItemsFor(reader) }) : missing();
});

/** A file of a private feed: its token is asked each time, and what it opens is asked anew. */
export const feedFile = publicUse(
  'feed-file',
  z.object({ token, id: slug, range: z.string().max(200).nullable() }),
  async (_, input): Promise<Result<OpenFile>> => {
    const reader = await readerOfToken(input.token);
    return reader ? openTo(reader, input) : missing();
  },
);
