import type { OpeningPass } from '@/core/access/would-open';
import { z } from 'zod';
import type { Asker } from '@/core/access/asker';
import type { Decision } from '@/core/access/decide';
import { hasField } from '@/core/access/doorstep';
import { normalisePath } from '@/core/access/paths';
import { hasComments } from '@/core/content/comments';
import { FILE, LINK, PAGE } from '@/core/content/item';
import type { Prose } from '@/core/content/prose';
import type { Instant } from '@/core/instants';
import { findFileOf } from '@/content/store/files';
import {
  findItemByPath,
  findItemToRead,
  findMovedItem,
  type Beside,
  type Item,
  type ItemToRead,
} from '@/content/store/items';
import { findMember } from '@/people/store/members';
import type { Actor } from '@/platform/actor';
import { done } from '@/platform/result';
import { shareNot } from '@/platform/request';
import { currentSite } from '@/platform/site';
import { noteItemRead } from '@/content/store/item-reads';
import { pool } from '@/platform/store/db';
import { alikeUse } from '@/platform/use';
import { joinableTiers, openingTiers, type OpeningTier } from './lib/opening-tiers';
import { openingPasses } from './lib/opening-passes';
import { previewWith, type ItemPreview } from './lib/preview';
import { askerAt, doorstepAt, hasHeld } from './lib/doorstep-at';
import {
  hasMeter,
  noteOf,
  keptMeters,
  readForFree,
  withReads,
  type FreeRead,
  type MeterNote,
} from './lib/free-reads';
import { hiddenFrom, type Hidden } from './lib/hidden';
import { isLetIn, isOut, judge, openBody, questionOf, readerOf, type Reader } from './lib/reader';
import { shownIn, type Shown } from './lib/shown';
import { teaserOf } from './lib/text-for';
import { keptKinds } from '@/content/services/lib/kept';

export type { OpeningTier } from './lib/opening-tiers';
export type { ItemPreview } from './lib/preview';
export type { Shown } from './lib/shown';
export type { MeterNote } from './lib/free-reads';

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
      beside: BothBeside;
      /** Where it is read for free: how much of the meter is left. */
      meter: MeterNote | null;
      /** What the visitor's browser is to carry from now on, so that its reads are counted. */
      readsCookie: string | null;
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
      asker: Asker;
      /** With its merge fields, as the owner wrote it. */
      notice: string;
      firstName: string;
      button: { words: string; to: string } | null;
      showSignIn: boolean;
      tiers: OpeningTier[];
      /** Whether they hold or held a tier, or have not paid for one: then joining can cost them something else than a stranger. */
      hasHeld: boolean;
      /** Where free reads were used up. */
      meter: MeterNote | null;
      /** The passes that would open it, and how to get each. */
      passes: OpeningPass[];
      /** Whether lists and searches are to know of it. */
      isListed: boolean;
      beside: BothBeside;
    };

/**
 * What a person sees at an address. The body of a closed item ends here: only its teaser is returned, so no caller
 * can send the rest by mistake.
 */
async function view(rawPath: string, asked: Reader, actor: Actor): Promise<ItemView> {
  const path = normalisePath(rawPath);
  if (path === null) return { kind: 'missing' };
  const hidden = await hiddenFrom(asked);
  const item = await findItemToRead(pool(), path, asked.now, hidden.ids);
  if (!item) return movedFrom(path, asked);
  const isDraft = !isOut(asked, item);
  if (isDraft && !asked.person.readsAll) return { kind: 'missing' };

  const judged = (await judge(asked, [item]))(item.id);
  const free = isLetIn(judged)
    ? { reader: asked, decision: judged, note: null, cookie: null }
    : await freeReadOf(asked, actor, item, judged);
  const { reader, decision } = free;
  if (!isLetIn(decision)) return doorstep(item, free, hidden);
  // Staff see the page of a link, or they could not look at it.
  if (item.type === LINK && item.target && decision.by !== 'staff')
    return { kind: 'leads-on', target: item.target };
  const body = openBody(reader, item);
  if (!isDraft && actor.browser?.isView && !actor.look) await noteRead(actor, item, asked.now);
  return {
    kind: 'open',
    item: previewWith(item, item.picture),
    summary: item.summary,
    body,
    shown: await shownIn(reader, body),
    file: item.type === FILE ? await fileFacts(item) : null,
    by: decision.by,
    isDraft,
    hasComments: !isDraft && (await isCommented(item)),
    beside: besideOf(reader, item),
    meter: free.note,
    readsCookie: free.cookie,
  };
}

/** Notes that a member opened an item, where the owner has that counted. Staff are not counted. */
async function noteRead({ memberId, staffRole }: Actor, { id }: Item, now: Instant): Promise<void> {
  if (memberId === null || staffRole !== null || !(await currentSite()).countsOpens) return;
  // Each of them is counted, so each of them is answered anew.
  shareNot();
  await noteItemRead(pool(), memberId, id, now);
}

/** Whether someone may read for free what is closed to them: it was counted before, or is now. */
async function freeReadOf(asked: Reader, actor: Actor, item: Item, refused: Decision): Promise<FreeRead> {
  if (!hasMeter(asked, refused)) return { reader: asked, decision: refused, note: null, cookie: null };
  if (actor.memberId !== null) shareNot();
  const reader = await withReads(asked, actor);
  const decision = (await judge(reader, [item]))(item.id);
  if (!isLetIn(decision)) return readForFree(reader, actor, item, decision);
  return { reader, decision, note: await noteAt(reader, item, decision), cookie: null };
}

async function noteAt(reader: Reader, item: Item, decision: Decision): Promise<MeterNote | null> {
  if (decision.state !== 'metered') return null;
  shareNot();
  return noteOf(decision, questionOf(reader, item), await keptMeters(), reader.free?.reads ?? []);
}

async function doorstep(
  item: ItemToRead,
  { reader, decision, note }: FreeRead,
  hidden: Hidden,
): Promise<ItemView> {
  const asker = await askerAt(reader, item, decision);
  const met = (await doorstepAt(reader, item, decision)).doorstep;
  const meeting = met.meets[asker];
  if (meeting.kind === 'redirect' && (await leadsSomewhere(reader, item, meeting.to)))
    return { kind: 'leads-on', target: meeting.to };
  const teaser = teaserOf(item, met);
  const isForOne = reader.person.tiers.length > 0 || (await hasHeld(reader));
  const notice = meeting.kind === 'notice' ? meeting.words : '';
  const firstName = hasField(notice, 'first name') ? await firstNameOf(reader) : '';
  if (reader.person.signedIn && (isForOne || firstName !== '')) shareNot();
  return {
    kind: 'doorstep',
    item: previewWith(item, item.picture),
    // What is metered is let in.
    state: decision.state as 'later' | 'ended' | 'closed',
    opensAt: decision.opensAt,
    ...teaser,
    shown: await shownIn(reader, teaser.teaser ?? { type: 'doc', content: [] }),
    asker,
    notice,
    firstName,
    button: met.button,
    showSignIn: met.showSignIn && !reader.person.signedIn,
    hasHeld: isForOne,
    tiers: met.showTiers ? openingTiers(questionOf(reader, item), await joinableTiers(reader)) : [],
    meter: note,
    passes: await openingPasses(questionOf(reader, item)),
    isListed: !hidden.ids.includes(item.id),
    beside: besideOf(reader, item),
  };
}

/** Whether a doorstep's redirect can be followed: not where it leads back to a page that is closed to them as well. */
async function leadsSomewhere(reader: Reader, item: Item, to: string): Promise<boolean> {
  if (!to.startsWith('/')) return true;
  const path = normalisePath(to.split(/[?#]/, 1)[0] ?? '');
  if (path === null || path === item.path) return false;
  const target = await findItemByPath(pool(), path);
  return !target || isLetIn((await judge(reader, [target]))(target.id));
}

async function firstNameOf({ person }: Reader): Promise<string> {
  const member = person.id ? await findMember(pool(), person.id) : undefined;
  return member?.name.trim().split(/\s+/)[0] ?? '';
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

/** The item at an address, as far as the caller may see it. A free read is counted where they open its page. */
export const viewItem = alikeUse('view-item', z.string().max(2_000), async (actor, path) =>
  done(await view(path, await readerOf(actor), actor)),
);
