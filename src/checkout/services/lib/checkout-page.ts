import { quoteOffer, type Quote } from '@/core/offers/quote';
import { startOfDate } from '@/core/calendar';
import { formatDate, formatUntil, type Instant, type LocalDate } from '@/core/instants';
import { formatMoney } from '@/core/money';
import { rateWords, taxOfCharge, type TaxRate } from '@/core/tax';
import type { Refusal } from '@/core/billing/work';
import { refusal, sentence } from '@/words/problems';
import type { PreparedCheckout } from './prepare';

/** What the page of a checkout says. Amounts in minor units of the offer's currency. */
export type CheckoutPage = {
  title: string;
  /** Why this person cannot go on here; null where they can. */
  obstacle: Obstacle | null;
  quote: ShownQuote;
  tax: ReturnType<typeof taxWords>;
  /** Due by a wallet, which can't use credit. */
  dueAtWallet: number;
  cost: string;
  year: string | null;
  button: string;
  isSwitch: boolean;
  /** A switch that comes at the end of what is paid. */
  isLater: boolean;
  /** A renewal is paid by the same payment method as before. */
  renewWays: PreparedCheckout['ways'];
};

export function pageOf(prepared: PreparedCheckout, zone: string): CheckoutPage {
  const { action, offer, ways } = prepared;
  const { currency } = offer.definition;
  const quote = shownQuote(prepared, zone);
  const isSwitch = action.kind === 'switch';
  const isLater = isSwitch && !action.figures.atOnce;
  return {
    title: titleOf(prepared),
    obstacle: obstacleOf(prepared, zone),
    quote,
    tax: prepared.pricing.tax && taxWords(quote, prepared.pricing.tax, currency),
    dueAtWallet: ways.find((way) => way.nature === 'wallet')?.due ?? quote.due,
    cost: costWords(quote, currency, zone),
    year:
      quote.charges.length > 0 && action.kind === 'new'
        ? `${quote.charges.length === 1 ? 'One payment' : `${quote.charges.length} payments`}, ${formatMoney(quote.total, currency)} in the first year`
        : null,
    button: buttonOf(prepared, quote, zone),
    isSwitch,
    isLater,
    renewWays:
      action.kind === 'renew'
        ? ways.filter((way) => way.accountId === action.subscription.gatewayAccountId)
        : [],
  };
}

function buttonOf({ action, offer }: PreparedCheckout, { due }: ShownQuote, zone: string): string {
  const money = (amount: number): string => formatMoney(amount, offer.definition.currency);
  if (action.kind === 'renew') return `Pay ${money(action.period.amount)} and renew`;
  if (action.kind !== 'switch') return due > 0 ? `Pay ${money(due)} and join` : 'Join';
  if (!action.figures.atOnce) return `Switch on ${formatDate(action.figures.startsAt, zone)}`;
  return due > 0 ? `Pay ${money(due)} and switch` : 'Switch now';
}

/** What it costs today and next, in one line beside the button. */
function costWords({ due, next }: ShownQuote, currency: string, zone: string): string {
  const today = `Due today ${formatMoney(due, currency)}`;
  return next
    ? `${today}; next ${formatMoney(next.amount, currency)} on ${formatDate(next.at, zone)}.`
    : `${today}; nothing after that.`;
}

function titleOf({ tier, offer, action }: PreparedCheckout): string {
  if (action.kind === 'switch' || action.kind === 'no-switch') return `Switch to ${tier.name}`;
  if (action.kind === 'renew' || action.kind === 'renew-later') return `Renew ${tier.name}`;
  return action.kind === 'held' ? `${tier.name}: ${offer.name}` : `Join ${tier.name}`;
}

/** The tax in what is charged first: today, or at the next charge. */
function taxWords(
  { taxed, due }: ShownQuote,
  rate: TaxRate,
  currency: string,
): { words: string; amount: string; isToday: boolean } | null {
  return (
    taxed && {
      isToday: due > 0,
      words: `${rateWords(rate)} in ${formatMoney(taxed.amount, currency)}`,
      amount: formatMoney(taxOfCharge(taxed, rate.rate), currency),
    }
  );
}

type ShownQuote = {
  due: number;
  /** The first charge above zero, before any credit: its tax is shown. */
  taxed: { amount: number; joiningFee: number } | null;
  credits: { words: string; amount: string }[];
  notes: string[];
  next: Quote['next'];
  charges: Quote['charges'];
  total: number;
};

/** The figures of the summary: those that the button will charge. */
function shownQuote({ action, quote, offer, figures, ways }: PreparedCheckout, zone: string): ShownQuote {
  const { currency } = offer.definition;
  const money = (amount: number): string => formatMoney(amount, currency);
  const wallet = ways.find((way) => figures && way.due !== figures.due);
  const walletNote = wallet
    ? [`${wallet.label} can’t use your credit: ${money(wallet.due)} would be due there.`]
    : [];
  const credits =
    figures && figures.credit > 0 ? [{ words: 'Your credit', amount: `−${money(figures.credit)}` }] : [];
  if (action.kind === 'renew') {
    const { period, until } = action;
    const notes = [
      `The new time begins on ${formatDate(until, zone)}, where the old one ends${period.to ? `, and lasts until ${formatUntil(period.to, zone)}` : ''}.`,
    ];
    const due = figures?.due ?? period.amount;
    return { due, taxed: period, credits, notes, next: null, charges: [], total: 0 };
  }
  if (action.kind !== 'switch') {
    const { dueToday, next, charges, firstYearTotal } = quote;
    return {
      due: figures?.due ?? dueToday,
      taxed: charges[0] ?? null,
      credits,
      notes: walletNote,
      next,
      charges,
      total: firstYearTotal,
    };
  }
  const { figures: switching, fromTier } = action;
  const after = quoteOffer({ ...offer.definition, joiningFee: undefined }, switching.startsAt, zone, true);
  const isLater = !switching.atOnce;
  const unused = {
    words: `${switching.unusedDays} of ${switching.totalDays} days of ${fromTier.name} unused`,
    amount: `−${money(switching.fresh)}`,
  };
  return {
    due: isLater ? 0 : switching.due,
    taxed: switching.first.amount > 0 ? switching.first : null,
    credits: isLater ? [] : [...(switching.fresh > 0 ? [unused] : []), ...credits],
    notes: [
      isLater
        ? `What you have paid for stays open until ${formatDate(switching.startsAt, zone)}; the switch comes then.${switching.credit > 0 ? ` Your credit then pays ${money(switching.credit)}.` : ''}`
        : `It takes the place of ${fromTier.name} today.`,
      ...(switching.leftOver > 0
        ? [`${money(switching.leftOver)} of credit is left over: your next charges spend it.`]
        : []),
      ...(isLater ? [] : walletNote),
    ],
    next: isLater ? (after.charges[0] ?? null) : after.next,
    charges: [],
    total: 0,
  };
}

type Obstacle = { words: string; href: string; link: string; hidesPrice: boolean };

/** Why this person cannot go on here, and where they can; null where they can. */
function obstacleOf(prepared: PreparedCheckout, zone: string): Obstacle | null {
  const { action, tier, joining } = prepared;
  const toAccount = { href: '/account', link: 'See your account', hidesPrice: true };
  const toOthers = { href: '/join', link: 'See the other offers', hidesPrice: false };
  const day = (at: Instant): string => formatDate(at, zone);
  if (action.kind === 'held')
    return {
      ...toAccount,
      words:
        action.subscription.state === 'cancelling'
          ? `You hold ${action.tier.name} and have cancelled it. You can undo that in your account.`
          : `You hold ${action.tier.name} already.`,
    };
  if (action.kind === 'renew-later')
    return {
      ...toAccount,
      words: `You hold ${tier.name} until ${day(action.until)}. It can be renewed from ${day(action.from)} on.`,
    };
  if (action.kind === 'busy') return { ...toAccount, words: sentence(refusal(action.why)) };
  if (action.kind === 'no-switch')
    return {
      ...toAccount,
      words: noSwitchWords(action.why, action.fromTier.name, tier.name, action.until && day(action.until)),
    };
  if (prepared.obstacle === 'no-gateway')
    return { ...toOthers, words: 'Payments are not set up yet, so nobody can join by this offer today.' };
  if (action.kind === 'renew') return null;
  if (prepared.obstacle === 'over') return { ...toOthers, words: 'Every date of this offer has passed.' };
  const date = (on: LocalDate): string => day(startOfDate(on, zone));
  if (joining.state === 'sold-out') return { ...toOthers, words: `Every place of ${tier.name} is taken.` };
  if (joining.state === 'closed') return { ...toOthers, words: `Joining ${tier.name} is closed for now.` };
  if (joining.state === 'not-yet')
    return {
      ...toOthers,
      words: `${tier.name} is on sale from ${tier.onSaleFrom ? date(tier.onSaleFrom) : 'a later day'} on.`,
    };
  if (joining.state === 'over')
    return {
      ...toOthers,
      words: `${tier.name} was on sale until ${tier.onSaleUntil ? date(tier.onSaleUntil) : 'a day that has passed'}.`,
    };
  return null;
}

function noSwitchWords(why: Refusal, from: string, to: string, until: string | undefined): string {
  if (why === 'currency')
    return `${from} is paid in another currency than ${to}. End ${from} first, then join.`;
  if (why === 'wait') return `You can switch from ${from} to ${to} from ${until ?? 'a later day'} on.`;
  return sentence(refusal(why));
}
