import { createHash } from 'node:crypto';
import { z } from 'zod';
import { VISITOR } from '@/core/access/facts';
import type { Prose } from '@/core/content/prose';
import { FILE, LINK } from '@/core/content/item';
import type { Instant } from '@/core/instants';
import { findItem, type Item } from '@/content/store/items';
import { insertEmbedSession, insertGrant, takeGrant } from '@/access/store/embeds';
import { siteNow } from '@/platform/clock';
import { slug } from '@/platform/inputs';
import { frameBy, shareNot } from '@/platform/request';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { hashToken, newToken, readSigned, sign } from '@/platform/tokens';
import { memberUse, publicUse } from '@/platform/use';
import { doorstepAt } from './lib/doorstep-at';
import { embedReader } from './lib/embed-reader';
import { hiddenFrom } from './lib/hidden';
import { isLetIn, isOut, judge, openBody, readerFor, readerOf, type Reader } from './lib/reader';
import { shownIn, type Shown } from './lib/shown';
import { teaserOf } from './lib/text-for';

/** How long a frame that was opened can be let in, in minutes of real time. */
const ASK_MINUTES = 60;
const GRANT_SECONDS = 300;
const SESSION_HOURS = 12;

export type EmbeddedItem = { title: string; path: string; shown: Shown } & (
  | { kind: 'open'; body: Prose }
  | {
      kind: 'closed';
      opensAt: Instant | null;
      summary: string;
      teaser: Prose | null;
      /** What this frame is let in by, and the few letters by which its reader knows it again. */
      ask: string;
      letters: string;
    }
);

/** An item as a frame of another site shows it: to a visitor, or to the member who allowed it there. */
export const embeddedItem = publicUse(
  'embedded-item',
  slug,
  async (actor, id): Promise<Result<EmbeddedItem>> => {
    shareNot();
    const item = await findItem(pool(), id);
    const reader = (await embedReader(actor, id)) ?? (await readerFor(VISITOR));
    if (!item || !isShown(reader, item) || (await hiddenFrom(reader)).ids.includes(item.id)) return missing();
    frameBy((await currentSite()).frameOrigins);
    const decision = (await judge(reader, [item]))(item.id);
    const head = { title: item.title, path: item.path };
    if (isLetIn(decision)) {
      const body = openBody(reader, item);
      return done({ ...head, kind: 'open', body, shown: await shownIn(reader, body) });
    }
    const { doorstep } = await doorstepAt(reader, item, decision);
    const { summary, teaser } = teaserOf(item, doorstep);
    const ask = sign([newToken().token, String(Date.now()), item.id].join(' '));
    return done({
      ...head,
      kind: 'closed',
      opensAt: decision.opensAt ?? null,
      summary,
      teaser,
      shown: await shownIn(reader, teaser ?? { type: 'doc', content: [] }),
      ask: encode(ask),
      letters: lettersOf(ask),
    });
  },
);

const isShown = (reader: Reader, item: Item): boolean =>
  !item.trashedAt && isOut(reader, item) && item.type !== LINK && item.type !== FILE;

const encode = (ask: string): string => Buffer.from(ask).toString('base64url');

/** The item that a frame of ours asks for, where it was opened not too long ago; null for anything else. */
function readAsk(encoded: string): { ask: string; itemId: string } | null {
  const ask = Buffer.from(encoded, 'base64url').toString();
  const [, at = '', ...id] = readSigned(ask)?.split(' ') ?? [];
  const isNew = Date.now() - Number(at) < ASK_MINUTES * 60_000;
  return at !== '' && isNew ? { ask, itemId: id.join(' ') } : null;
}

/** Four letters that the frame and the window both show; without those that are taken for one another. */
function lettersOf(ask: string): string {
  const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ';
  const bytes = createHash('sha256').update(`letters ${ask}`).digest();
  return [...bytes.subarray(0, 4)].map((byte) => LETTERS[byte % LETTERS.length]).join('');
}

const asked = z.string().max(1_000);

/** What a member is asked before a frame shows an item to them; `isOpen`: whether it would. */
export const frameAsked = publicUse('frame-asked', asked, async (actor, encoded) => {
  const found = readAsk(encoded);
  const item = found && (await findItem(pool(), found.itemId));
  const reader = await readerOf({ ...actor, look: undefined });
  if (!item || !isShown(reader, item)) return missing();
  return done({
    title: item.title,
    path: item.path,
    letters: lettersOf(found.ask),
    isSignedIn: actor.memberId !== null,
    isOpen: isLetIn((await judge(reader, [item]))(item.id)),
  });
});

/** Lets a frame show one item as the member may read it. */
export const letFrameIn = memberUse('let-frame-in', asked, async (actor, encoded): Promise<Result<null>> => {
  const found = readAsk(encoded);
  const session = actor.browser?.session;
  const item = found && (await findItem(pool(), found.itemId));
  if (!item || !session) return refusedField('', 'frame.too-old');
  const reader = await readerOf({ ...actor, look: undefined });
  if (!isLetIn((await judge(reader, [item]))(item.id))) return refusedField('', 'frame.closed');
  const at = siteNow(await currentSite());
  return transaction(async (db) => {
    const grant = { hash: hashToken(found.ask), itemId: item.id, session: hashToken(session) };
    await insertGrant(db, grant, GRANT_SECONDS);
    await record(db, actor, at, 'frame let in', `member:${actor.memberId}`, { item: item.id });
    return done(null);
  });
});

const takeSchema = z.object({ id: slug, ask: asked });

/** Whether the member has allowed the frame to show the item: what its browser is to carry there from now on; null: not yet. */
export const takeFrameGrant = publicUse(
  'take-frame-grant',
  takeSchema,
  async (_, { id, ask }): Promise<Result<{ token: string; hours: number } | null>> => {
    const found = readAsk(ask);
    if (found?.itemId !== id) return missing();
    return transaction(async (db) => {
      const grant = await takeGrant(db, hashToken(found.ask), id);
      if (!grant) return done(null);
      const { token, hash } = newToken();
      await insertEmbedSession(db, { hash, itemId: id, session: grant.session }, SESSION_HOURS);
      return done({ token, hours: SESSION_HOURS });
    });
  },
);
