import { askerOf, type Asker } from '@/core/access/asker';
import type { ItemFacts } from '@/core/access/facts';
import { speakingRule, type Doorstep } from '@/core/access/doorstep';
import type { Decision } from '@/core/access/decide';
import { tiersThatWouldOpen } from '@/core/access/would-open';
import { findHad } from '@/billing/store/holdings';
import { listItemDoorsteps } from '@/access/store/doorsteps';
import type { StoredRule } from '@/access/store/rules';
import { oncePerRequest } from '@/platform/request';
import { shelved } from '@/platform/shelf';
import { pool } from '@/platform/store/db';
import { keptOffers } from '@/tiers/services/lib/kept';
import { questionOf, type Reader } from './reader';

/** The doorstep that is met, and whose it is. */
export type MetDoorstep =
  | { by: 'item'; doorstep: Doorstep }
  | { by: 'rule'; rule: StoredRule; doorstep: Doorstep }
  | { by: 'site'; doorstep: Doorstep };

const keptItemDoorsteps = () =>
  shelved(
    'item doorsteps',
    async () => new Map((await listItemDoorsteps(pool())).map(({ itemId, doorstep }) => [itemId, doorstep])),
  );

/** The doorstep of an item to which someone is not let in: its own, else that of a rule which keeps it closed, else the site's. */
export async function doorstepAt(
  reader: Reader,
  item: ItemFacts,
  { rules: ids }: Pick<Decision, 'rules'>,
): Promise<MetDoorstep> {
  const own = (await keptItemDoorsteps()).get(item.id);
  if (own) return { by: 'item', doorstep: own };
  const rules = reader.rules.filter(({ id }) => ids.includes(id));
  const rule = speakingRule(questionOf(reader, item), rules);
  return rule?.doorstep
    ? { by: 'rule', rule, doorstep: rule.doorstep }
    : { by: 'site', doorstep: reader.site.doorstep };
}

/** Read once for a page: it is asked who they are, and what joining costs them. */
const hadBy = ({ now, site }: Reader, id: string) =>
  oncePerRequest(`had by ${id}`, () => findHad(pool(), id, site.mode, now));

/** Whether someone held a tier once, or has not paid for one. */
export async function hasHeld(reader: Reader): Promise<boolean> {
  const { id } = reader.person;
  if (id === undefined) return false;
  const { lapsed, unpaid } = await hadBy(reader, id);
  return lapsed.length + unpaid.length > 0;
}

/** As whom the reader is met at an item to which they are not let in. */
export async function askerAt(reader: Reader, item: ItemFacts, { state }: Decision): Promise<Asker> {
  const { person } = reader;
  if (!person.signedIn || !person.id)
    return askerOf(person.signedIn, state, { lapsed: false, unpaid: false });
  const had = await hadBy(reader, person.id);
  const offers = await keptOffers();
  const wouldOpen = new Set(
    tiersThatWouldOpen(
      questionOf(reader, item),
      [...new Set([...had.lapsed, ...had.unpaid])].map((tier) => ({
        tier,
        paid: offers.some((offer) => offer.tierId === tier && offer.isPaid),
      })),
    ).flatMap(({ tier, at }) => (at === 'once' ? [tier] : [])),
  );
  const opens = (tiers: string[]): boolean => tiers.some((tier) => wouldOpen.has(tier));
  return askerOf(true, state, { lapsed: opens(had.lapsed), unpaid: opens(had.unpaid) });
}
