import { hasSections, plainText, proseOf, type Prose } from '@/core/content/prose';
import { VISITOR } from '@/core/access/facts';
import type { MemberId } from '@/core/ids';
import type { Item } from '@/content/store/items';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { doorstepAt } from './doorstep-at';
import { hiddenFrom } from './hidden';
import { isOut, judge, openBody, readerFor, type Reader } from './reader';
import { shownIn, type Shown } from './shown';
import { teaserOf } from './text-for';
import { personFacts, withoutStaff } from './viewpoints';

/**
 * A member as a reader of what leaves the site, in feeds and mails. Staff read everything at the Desk; what can be passed on
 * carries what a member may read. Null where there is no such member.
 */
export async function readerOutside(memberId: MemberId): Promise<Reader | null> {
  const site = await currentSite();
  const now = siteNow(site);
  const facts = await personFacts(site, memberId, now);
  return facts && { ...(await readerFor(withoutStaff(facts))), now };
}

export const visitorOutside = (): Promise<Reader> => readerFor(VISITOR);

/** What of an item goes out by mail. `rest`: whether more of it is on the site: nothing, what is closed to the reader, or sections that are. */
export type MailedItem = { body: Prose; shown: Shown; rest: 'none' | 'closed' | 'sections' };

/**
 * What of an item a reader gets by mail: all that is open to them; of one that is closed its teaser, or null for nothing. Free
 * reads are counted on the site, so here they open nothing.
 */
export async function mailedItem(
  reader: Reader,
  item: Item,
  closedGet: 'teaser' | 'nothing',
): Promise<MailedItem | null> {
  if (!isOut(reader, item)) return null;
  const decision = (await judge(reader, [item]))(item.id);
  if (decision.state === 'open') {
    const body = openBody(reader, item);
    const isCut = hasSections(item.body) && plainText(body) !== plainText(item.body);
    return { body, shown: await shownIn(reader, body), rest: isCut ? 'sections' : 'none' };
  }
  if (closedGet === 'nothing' || (await hiddenFrom(reader)).ids.includes(item.id)) return null;
  const { summary, teaser } = teaserOf(item, (await doorstepAt(reader, item, decision)).doorstep);
  const parts = [...(summary ? proseOf(summary).content : []), ...(teaser?.content ?? [])];
  const body: Prose = { type: 'doc', content: parts };
  return { body, shown: await shownIn(reader, body), rest: 'closed' };
}
