import { addLength } from '../calendar';
import { isBefore, latest, type Instant } from '../instants';
import { isPaid } from '../offers/offer';
import { own, type Book, type Holding, type Subscription, type BillingContext } from './book';
import { offerOf, type Work } from './work';

/** What the subscription holds, or held last. */
export const lastHolding = (book: Book, id: string): Holding | undefined =>
  book.holdings.findLast((holding) => holding.subscription === id);

const isOpenAt = (holding: Holding, at: Instant): boolean => holding.to === null || !isBefore(holding.to, at);

/** Opens a tier from now, or keeps it open where it already is, until something ends it. */
export function hold(work: Work, s: Subscription, tier: string, carries?: Instant): void {
  const { book, context, now } = work;
  const isPaidFor = isPaid(offerOf(work, s));
  const held = lastHolding(book, s.id);
  if (held?.tier === tier && isOpenAt(held, now)) {
    Object.assign(own(book.holdings, held), { to: null, isPaid: held.isPaid || isPaidFor });
    return;
  }
  if (held && isOpenAt(held, now)) own(book.holdings, held).to = now;
  const since = [...(carries ? [carries] : []), sinceOf(book, context, tier, now) ?? now].sort()[0] ?? now;
  book.holdings.push({
    id: context.newId(),
    kind: 'tier',
    why: 'subscription',
    subscription: s.id,
    purchase: null,
    tier,
    isPaid: isPaidFor,
    from: now,
    to: null,
    since,
  });
}

/** The end of what a subscription holds now. What has ended already stays ended. */
export function holdUntil({ book, now }: Work, { id }: Pick<Subscription, 'id'>, at: Instant): void {
  const held = lastHolding(book, id);
  if (held && isOpenAt(held, now)) own(book.holdings, held).to = latest(at, held.from);
}

/** The beginning of an unbroken holding of a tier up to an instant; a gap no longer than the grace does not break it. */
export function sinceOf(book: Book, context: BillingContext, tier: string, at: Instant): Instant | undefined {
  return book.holdings
    .filter(
      (one) =>
        one.kind === 'tier' &&
        one.tier === tier &&
        !isBefore(at, one.from) &&
        (one.to === null ||
          !isBefore(addLength(one.to, { n: context.graceDays, unit: 'day' }, context.zone), at)),
    )
    .map((one) => one.since)
    .sort()[0];
}

/** What a switch up carries over from the subscription that it leaves. */
export function sinceOfSubscription(
  book: Book,
  context: BillingContext,
  { id }: Subscription,
  at: Instant,
): Instant | undefined {
  const last = lastHolding(book, id);
  return last && sinceOf(book, context, last.tier, at);
}

export type Interval = { tier: string; from: Instant; to: Instant | null; since?: Instant };

/** Access as it was, by beginning and tier; adjoining holdings of a tier are one. `to` null: held still at `at`. */
export function intervals(book: Book, at: Instant): Interval[] {
  const all: (Interval & { since: Instant })[] = [];
  const sorted = book.holdings
    .filter((one) => isBefore(one.from, at) && (one.to === null || isBefore(one.from, one.to)))
    .sort((a, b) => Date.parse(a.from) - Date.parse(b.from));
  for (const { tier, from, to, since } of sorted) {
    const before = all.findLast((one) => one.tier === tier);
    if (before && (before.to === null || !isBefore(before.to, from))) {
      if (before.to !== null) before.to = to === null ? null : latest(before.to, to);
    } else all.push({ tier, from, to, since });
  }
  return all
    .sort((a, b) => Date.parse(a.from) - Date.parse(b.from) || (a.tier < b.tier ? -1 : 1))
    .map(({ tier, from, to, since }) => ({
      tier,
      from,
      to: to !== null && isBefore(to, at) ? to : null,
      ...(since !== from && { since }),
    }));
}
