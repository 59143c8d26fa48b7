import { z } from 'zod';
import { normalisePath } from '@/core/access/paths';
import { hasComments } from '@/core/content/comments';
import { FILE, LINK, PAGE } from '@/core/content/item';
import type { Prose } from '@/core/content/prose';
import type { Instant } from '@/core/instants';
import { findFileOf } from '@/content/store/files';
import {
  findItemToRead,
  findMovedItem,
  type Beside,
  type Item,
  type ItemToRead,
} from '@/content/store/items';
import { done } from '@/platform/result';
import { shareNot } from '@/platform/request';
import { pool } from '@/platform/store/db';
import { publicUse } from '@/platform/use';
import { joinableTiers, openingTiers, type OpeningTier } from './lib/opening-tiers';
import { previewWith, type ItemPreview } from './lib/preview';
import { doorstepOf, isLetIn, isOut, judge, openBody, questionOf, readerOf, type Reader } from './lib/reader';
import { shownIn, type Shown } from './lib/shown';
import { teaserOf } from './lib/text-for';
import { keptKinds } from '@/content/services/lib/kept';

export type { OpeningTier } from './lib/opening-tiers';
export type { ItemPreview } from './lib/preview';
export type { Shown } from './lib/shown';

/** The items before and after one, of its kind. */
type BothBeside = { older?: Beside; newer?: Beside };
/** `size` in bytes. */
export type FileFacts = { name: string; mediaType: string; size: number };

export type ItemView =
  | { kind: 'missing' }
  /** It was here once. */
  | { kind: 'moved'; path: string }
  /** A link that is open leads on. */
  | { kind: 'leads-on'; target: string }
  | {
      kind: 'open';
      item: ItemPreview;
      summary: string;
      body: Prose;
      shown: Shown;
      file: FileFacts | null;
      by: string;
      isDraft: boolean;
      hasComments: boolean;
      /** How far the reader has read before, 0 to 1000. */
      place: number;
      beside: BothBeside;
    }
  | {
      kind: 'doorstep';
      item: ItemPreview;
      state: 'later' | 'ended' | 'closed';
      opensAt?: Instant;
      summary: string;
      teaser: Prose | null;
      shown: Shown;
      minutesLeft: number;
      notice: string;
      showSignIn: boolean;
      tiers: OpeningTier[];
      beside: BothBeside;
    };

/**
 * What a person sees at an address. The body of a closed item ends here: only its teaser is returned, so no caller
 * can send the rest by mistake.
 */
async function view(rawPath: string, reader: Reader, readerId: string | null): Promise<ItemView> {
  const path = normalisePath(rawPath);
  const item = path === null ? undefined : await findItemToRead(pool(), path, reader.now, readerId);
  if (!item) return path === null ? { kind: 'missing' } : movedFrom(path, reader);
  const isDraft = !isOut(reader, item);
  if (isDraft && !reader.person.readsAll) return { kind: 'missing' };

  const decision = (await judge(reader, [item]))(item.id);
  const beside = besideOf(reader, item);
  const preview = previewWith(item, item.picture);
  // Whether a metered one is let in is counted for each.
  if (decision.state === 'metered') shareNot();
  if (isLetIn(decision)) {
    // Staff see the page of a link, or they could not look at it.
    if (item.type === LINK && item.target && decision.by !== 'staff')
      return { kind: 'leads-on', target: item.target };
    const body = openBody(reader, item);
    return {
      kind: 'open',
      item: preview,
      summary: item.summary,
      body,
      shown: await shownIn(reader, body),
      file: item.type === FILE ? await fileFacts(item) : null,
      by: decision.by,
      isDraft,
      place: item.place,
      hasComments: !isDraft && (await isCommented(item)),
      beside,
    };
  }
  const doorstep = doorstepOf(reader, decision.rules);
  const teaser = teaserOf(item, doorstep);
  return {
    kind: 'doorstep',
    item: preview,
    // What is metered is let in, above.
    state: decision.state as 'later' | 'ended' | 'closed',
    opensAt: decision.opensAt,
    ...teaser,
    shown: await shownIn(reader, teaser.teaser ?? { type: 'doc', content: [] }),
    notice: reader.person.signedIn ? doorstep.memberNotice : doorstep.visitorNotice,
    showSignIn: doorstep.showSignIn && !reader.person.signedIn,
    tiers: openingTiers(questionOf(reader, item), await joinableTiers(reader)),
    beside,
  };
}

async function isCommented(item: Item): Promise<boolean> {
  const kind = (await keptKinds()).find(({ id }) => id === item.type);
  return kind !== undefined && hasComments(item, kind.comments);
}

async function movedFrom(path: string, reader: Reader): Promise<ItemView> {
  const item = await findMovedItem(pool(), path);
  return item && isOut(reader, item) ? { kind: 'moved', path: item.path } : { kind: 'missing' };
}

function besideOf(reader: Reader, item: ItemToRead): BothBeside {
  if (item.type === PAGE || item.type === FILE || !isOut(reader, item)) return {};
  return { ...(item.older && { older: item.older }), ...(item.newer && { newer: item.newer }) };
}

async function fileFacts(item: Item): Promise<FileFacts | null> {
  const file = await findFileOf(pool(), item.id);
  return file ? { name: file.name, mediaType: file.mediaType, size: file.size } : null;
}

/** The item at an address, as far as the caller may see it. */
export const viewItem = publicUse('view-item', z.string().max(2_000), async (actor, path) =>
  // Staff who look as someone else have read nothing there.
  done(await view(path, await readerOf(actor), actor.look ? null : actor.memberId)),
);
