import { tiersThatWouldOpen } from '@/core/access/would-open';
import { compare } from '@/core/instants';
import { FILE, LINK, PAGE } from '@/core/content/item';
import { listPublished } from '@/content/store/item-lists';
import { listHeads, type ItemHead } from '@/content/store/items';
import { listUnfinished } from '@/content/store/reading-places';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { pool } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { hiddenFrom } from './lib/hidden';
import { readerOf, judge, isLetIn, isOut, questionOf, type Judged, type Reader } from './lib/reader';
import { previewOf } from './lib/preview';
import { keptCategories, keptPublished } from '@/content/services/lib/kept';
import { keptOffers, keptTiers } from '@/tiers/services/lib/kept';

/** How much of each kind the room shows, and of how many of the newest items it knows. */
const [NEWEST, NEXT, UNFINISHED, MOST] = [6, 6, 3, 3000];

/**
 * What a member can read: what they have begun, the newest that is open to them, what opens to them by itself and when, and
 * how much there is in each category, and what the next rung of their ladder would add.
 */
export const membersRoom = memberUse('members-room', nothing, async (actor) => {
  const reader = await readerOf(actor);
  const newest = await keptPublished('newest for members', reader.now, () =>
    listPublished(pool(), reader.now, { except: [PAGE, FILE, LINK] }, { limit: MOST, offset: 0 }),
  );
  const hidden = new Set<string>((await hiddenFrom(reader)).ids);
  const items = newest.filter(({ id }) => !hidden.has(id));
  const decisions = await judge(reader, items);
  const open = items.filter(({ id }) => isLetIn(decisions(id)));
  const next = items
    .flatMap((item) => {
      const { state, opensAt } = decisions(item.id);
      return state === 'later' && opensAt
        ? [{ id: item.id, title: item.title, path: item.path, opensAt }]
        : [];
    })
    .sort((a, b) => compare(a.opensAt, b.opensAt));
  const counts = new Map<string, number>();
  for (const item of open) for (const id of item.ownCategories) counts.set(id, (counts.get(id) ?? 0) + 1);
  return done({
    begun: await begunBy(actor.memberId, reader),
    newest: await previewOf(open.slice(0, NEWEST)),
    next: next.slice(0, NEXT),
    total: open.length,
    up: await nextRung(reader, items, decisions),
    categories: (await keptCategories()).flatMap(({ id, name }) => {
      const count = counts.get(id);
      return count ? [{ id, name, count }] : [];
    }),
  });
});

/** The tier above the one that someone holds on a ladder, with how much more it would open to them at once; null for none. */
async function nextRung(reader: Reader, items: ItemHead[], decisions: Judged) {
  const tiers = await keptTiers();
  const held = tiers.filter(({ id }) => reader.person.tiers.some(({ tier }) => tier === id));
  for (const { ladderId, rung } of held) {
    if (ladderId === null || rung === null) continue;
    const above = tiers
      .filter((tier) => tier.ladderId === ladderId && tier.retiredAt === null && (tier.rung ?? 0) > rung)
      .sort((a, b) => (a.rung ?? 0) - (b.rung ?? 0))[0];
    if (!above || held.includes(above)) continue;
    const paid = (await keptOffers()).some((offer) => offer.tierId === above.id && offer.isPaid);
    const more = items.filter(
      (item) =>
        !isLetIn(decisions(item.id)) &&
        tiersThatWouldOpen(questionOf(reader, item), [{ tier: above.id, paid }]).some(
          ({ at }) => at === 'once',
        ),
    );
    if (more.length > 0) return { name: above.name, keyCut: above.keyCut, more: more.length };
  }
  return null;
}

/** What someone has begun and can still open, with how much of it is left. */
async function begunBy(memberId: string, reader: Awaited<ReturnType<typeof readerOf>>) {
  const places = await listUnfinished(pool(), memberId, UNFINISHED * 3);
  const heads = await listHeads(
    pool(),
    places.map(({ itemId }) => itemId),
  );
  const decisions = await judge(reader, heads);
  const readable = places.flatMap(({ itemId, place }) => {
    const item = heads.find(({ id }) => id === itemId);
    return item && isOut(reader, item) && isLetIn(decisions(itemId)) ? [{ item, place }] : [];
  });
  const shown = readable.slice(0, UNFINISHED);
  const previews = await previewOf(shown.map(({ item }) => item));
  return previews.map((preview, index) => {
    const place = shown[index]?.place ?? 0;
    return {
      ...preview,
      place,
      minutesLeft: Math.max(1, Math.round((preview.minutes * (1000 - place)) / 1000)),
    };
  });
}
