import { decide, type Question } from '@/core/access/decide';
import { VISITOR, type PersonFacts } from '@/core/access/facts';
import { normalisePath } from '@/core/access/paths';
import { tiersThatWouldOpen } from '@/core/access/would-open';
import { localDate } from '@/core/calendar';
import { isBefore, type Instant } from '@/core/instants';
import { readingMinutes, wordCount, type Prose } from '@/core/content/prose';
import { isSectionOpen, openParts, withoutSections } from '@/core/content/sections';
import { firstWords } from '@/core/content/teaser';
import { joiningState } from '@/core/tiers/joining';
import { pool } from '@/platform/store/db';
import { findItemByPath, listCategories, listPublished, type Item } from '@/content/store/items';
import { listRules, type StoredRule } from '@/access/store/rules';
import type { Doorstep, Site } from '@/platform/store/site';
import { listOffers, type StoredOffer } from '@/tiers/store/offers';
import { listTiers, type Tier } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { currentSite } from '@/platform/site';
import { z } from 'zod';
import { publicUse } from '@/platform/use';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { viewerOf } from './lib/viewer';

/** What may be said about an item to people who may know that it exists. */
export type ItemPreview = {
  id: string;
  type: 'page' | 'post';
  path: string;
  title: string;
  author: string;
  publishedAt: Instant | null;
  categories: string[];
};

export type OpeningTier = { tier: Tier; offers: StoredOffer[]; at: 'once' | 'later' };

export type ItemView =
  | { kind: 'missing' }
  | { kind: 'open'; item: ItemPreview; summary: string; body: Prose; by: string; isDraft: boolean }
  | {
      kind: 'doorstep';
      item: ItemPreview;
      state: 'later' | 'ended' | 'closed';
      opensAt?: Instant;
      summary: string;
      teaser: Prose | null;
      minutesLeft: number;
      notice: string;
      showSignIn: boolean;
      tiers: OpeningTier[];
    };

/**
 * What a person sees at an address. The body of a closed item ends here: only its teaser is returned, so no caller
 * can send the rest by mistake.
 */
async function view(rawPath: string, person: PersonFacts): Promise<ItemView> {
  const site = await currentSite();
  const path = normalisePath(rawPath);
  const item = path === null ? undefined : await findItemByPath(pool(), path);
  if (!item) return { kind: 'missing' };
  const now = siteNow(site);
  const isDraft = item.publishedAt === null || isBefore(now, item.publishedAt);
  if (isDraft && !person.readsAll) return { kind: 'missing' };

  const rules = await listRules(pool());
  const question: Question = { now, zone: site.zone, default: site.accessDefault, rules, item, person };
  const decision = decide(question);
  if (decision.state === 'open' || decision.state === 'metered') {
    return {
      kind: 'open',
      item: previewOf(item),
      summary: item.summary,
      body: openParts(item.body, (gate) => isSectionOpen(gate, question)),
      by: decision.by,
      isDraft,
    };
  }
  const doorstep = doorstepOf(rules, decision.rules, site);
  return {
    kind: 'doorstep',
    item: previewOf(item),
    state: decision.state,
    opensAt: decision.opensAt,
    ...teaserOf(item, doorstep),
    notice: person.signedIn ? doorstep.memberNotice : doorstep.visitorNotice,
    showSignIn: doorstep.showSignIn && !person.signedIn,
    tiers: await openingTiers(question),
  };
}

function previewOf({ id, type, path, title, author, publishedAt, ownCategories }: Item): ItemPreview {
  return { id, type, path, title, author, publishedAt, categories: ownCategories };
}

/** The doorstep of the first deciding rule that has its own, else the site's. */
function doorstepOf(rules: StoredRule[], deciding: string[], site: Site): Doorstep {
  return rules.find((rule) => deciding.includes(rule.id) && rule.doorstep)?.doorstep ?? site.doorstep;
}

/** What of an item may be seen at its doorstep: the one place that cuts. */
function teaserOf(
  item: Item,
  { teaser }: Doorstep,
): { summary: string; teaser: Prose | null; minutesLeft: number } {
  const summary = teaser.kind === 'none' ? '' : item.summary;
  if (teaser.kind !== 'words')
    return { summary, teaser: null, minutesLeft: readingMinutes(wordCount(item.body)) };
  // Where the item is closed, so is every section in it.
  const { document, wordsLeft } = firstWords(withoutSections(item.body), teaser.count);
  // A teaser that would be the whole item is no teaser: the item is closed, so the body stays here.
  if (wordsLeft === 0) return { summary, teaser: null, minutesLeft: readingMinutes(wordCount(item.body)) };
  return { summary, teaser: document, minutesLeft: readingMinutes(wordsLeft) };
}

async function openingTiers(question: Question): Promise<OpeningTier[]> {
  const [tiers, offers] = [await listTiers(pool()), await listOffers(pool())];
  const onSale = (tier: Tier): StoredOffer[] =>
    offers.filter((offer) => offer.tierId === tier.id && offer.onSale);
  const today = localDate(question.now, question.zone);
  const canJoin = (tier: Tier): boolean => {
    const { state } = joiningState({ ...tier, isRetired: tier.retiredAt !== null }, 0, today);
    return state === 'open' || state === 'by-code';
  };
  const shown = tiers.filter((tier) => tier.onJoinPage && canJoin(tier) && onSale(tier).length > 0).reverse();
  const candidates = shown.map((tier) => ({
    tier: tier.id,
    paid: onSale(tier).some((offer) => offer.isPaid),
  }));
  const held = new Set(question.person.tiers.map((tier) => tier.tier));
  const opening = tiersThatWouldOpen(
    question,
    candidates.filter((candidate) => !held.has(candidate.tier)),
  );
  return opening.flatMap(({ tier: id, at }) => {
    const tier = shown.find((candidate) => candidate.id === id);
    return tier ? [{ tier, offers: onSale(tier), at }] : [];
  });
}

export type ListedItem = ItemPreview & { summary: string; isOpen: boolean };

/** Published items with, for each, whether it is open to the person. Summaries of closed ones follow their doorstep. */
async function listFor(
  person: PersonFacts,
  filter: { type?: 'page' | 'post'; category?: string } = {},
): Promise<ListedItem[]> {
  const site = await currentSite();
  const now = siteNow(site);
  const [rules, items] = [await listRules(pool()), await listPublished(pool(), now, filter)];
  return items.map((item) => {
    const decision = decide({ now, zone: site.zone, default: site.accessDefault, rules, item, person });
    const isOpen = decision.state === 'open';
    const summary = isOpen ? item.summary : teaserOf(item, doorstepOf(rules, decision.rules, site)).summary;
    return { ...previewOf(item), summary, isOpen };
  });
}

const pathSchema = z.string().max(2_000);

/** The item at an address, as far as the caller may see it. */
export const viewItem = publicUse('view-item', pathSchema, async (actor, path) =>
  done(await view(path, (await viewerOf(actor)).person)),
);

const filterSchema = z.object({
  type: z.enum(['page', 'post']).optional(),
  category: z.string().max(200).optional(),
});

/** What the caller may know of the published items. */
export const listItems = publicUse('list-items', filterSchema, async (actor, filter) =>
  done(await listFor((await viewerOf(actor)).person, filter)),
);

/** What everyone may know of the newest posts: for the feed, which readers share. */
export const listFeed = publicUse('list-feed', nothing, async () =>
  done((await listFor(VISITOR, { type: 'post' })).slice(0, 50)),
);

export const categoryNames = publicUse('category-names', nothing, async () =>
  done(new Map((await listCategories(pool())).map((category) => [category.id, category.name]))),
);
