import { quoteOffer, type Quote } from '@/core/offers/quote';
import { startOfDate } from '@/core/calendar';
import type { Instant, LocalDate } from '@/core/instants';
import { taxOfCharge, type TaxRate } from '@/core/tax';
import type { Refusal } from '@/core/billing/work';
import { refusal } from '@/words/problems';
import { rateWords } from '@/words/sheet';
import type { Words } from '@/words/speak';
import type { PreparedCheckout } from './prepare';

/** What the page of a checkout says. Amounts in minor units of the offer's currency. */
export type CheckoutPage = {
  title: string;
  /** Why this person cannot continue here; null if they can. */
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

export function pageOf(prepared: PreparedCheckout, t: Words): CheckoutPage {
  const { action, offer, ways } = prepared;
  const { currency } = offer.definition;
  const quote = shownQuote(prepared, t);
  const isSwitch = action.kind === 'switch';
  const isLater = isSwitch && !action.figures.atOnce;
  return {
    title: titleOf(prepared, t),
    obstacle: obstacleOf(prepared, t),
    quote,
    tax: prepared.pricing.tax && taxWords(quote, prepared.pricing.tax, currency, t),
    dueAtWallet: ways.find((way) => way.nature === 'wallet')?.due ?? quote.due,
    cost: costWords(quote, currency, t),
    year:
      quote.charges.length > 0 && action.kind === 'new'
        ? t('checkout.year', { count: quote.charges.length, total: t.money(quote.total, currency) })
        : null,
    button: buttonOf(prepared, quote, t),
    isSwitch,
    isLater,
    renewWays:
      action.kind === 'renew'
        ? ways.filter((way) => way.accountId === action.subscription.gatewayAccountId)
        : [],
  };
}

function buttonOf({ action, offer }: PreparedCheckout, { due }: ShownQuote, t: Words): string {
  const money = (amount: number): string => t.money(amount, offer.definition.currency);
  if (action.kind === 'renew') return t('checkout.pay-renew', { amount: money(action.period.amount) });
  if (action.kind !== 'switch')
    return due > 0 ? t('checkout.pay-join', { amount: money(due) }) : t('checkout.join');
  if (!action.figures.atOnce) return t('checkout.switch-on', { date: t.date(action.figures.startsAt) });
  return due > 0 ? t('checkout.pay-switch', { amount: money(due) }) : t('checkout.switch-now');
}

/** What it costs today and next, in one line beside the button. */
function costWords({ due: amount, next }: ShownQuote, currency: string, t: Words): string {
  const due = t.money(amount, currency);
  return next
    ? t('checkout.cost-next', { due, amount: t.money(next.amount, currency), date: t.date(next.at) })
    : t('checkout.cost-alone', { due });
}

function titleOf({ tier: { name: tier }, offer, action }: PreparedCheckout, t: Words): string {
  if (action.kind === 'switch' || action.kind === 'no-switch') return t('checkout.title-switch', { tier });
  if (action.kind === 'renew' || action.kind === 'renew-later') return t('checkout.title-renew', { tier });
  return action.kind === 'held'
    ? t('checkout.title-held', { tier, offer: offer.name })
    : t('checkout.title', { tier });
}

/** The tax in what is charged first: today, or at the next charge. */
function taxWords(
  { taxed, due }: ShownQuote,
  rate: TaxRate,
  currency: string,
  t: Words,
): { words: string; amount: string; isToday: boolean } | null {
  return (
    taxed && {
      isToday: due > 0,
      words: t('checkout.tax-in', { tax: rateWords(rate, t), amount: t.money(taxed.amount, currency) }),
      amount: t.money(taxOfCharge(taxed, rate.rate), currency),
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
function shownQuote({ action, quote, offer, figures, ways }: PreparedCheckout, t: Words): ShownQuote {
  const { currency } = offer.definition;
  const money = (amount: number): string => t.money(amount, currency);
  const wallet = ways.find((way) => figures && way.due !== figures.due);
  const walletNote = wallet
    ? [t('checkout.wallet-no-credit', { wallet: wallet.label, amount: money(wallet.due) })]
    : [];
  const credits =
    figures && figures.credit > 0
      ? [{ words: t('checkout.credit'), amount: `−${money(figures.credit)}` }]
      : [];
  if (action.kind === 'renew') {
    const { period, until } = action;
    const from = t.date(until);
    const notes = [
      period.to
        ? t('checkout.renews-from', { from, until: t.until(period.to) })
        : t('checkout.renews-for-good', { from }),
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
  const after = quoteOffer({ ...offer.definition, joiningFee: undefined }, switching.startsAt, t.zone, true);
  const isLater = !switching.atOnce;
  const { unusedDays: unused, totalDays: total } = switching;
  const unusedLine = {
    words: t('checkout.unused', { unused, total, tier: fromTier.name }),
    amount: `−${money(switching.fresh)}`,
  };
  const laterNote = [
    t('checkout.switch-later', { date: t.date(switching.startsAt) }),
    ...(switching.credit > 0 ? [t('checkout.switch-later-credit', { amount: money(switching.credit) })] : []),
  ].join(' ');
  return {
    due: isLater ? 0 : switching.due,
    taxed: switching.first.amount > 0 ? switching.first : null,
    credits: isLater ? [] : [...(switching.fresh > 0 ? [unusedLine] : []), ...credits],
    notes: [
      isLater ? laterNote : t('checkout.replaces', { tier: fromTier.name }),
      ...(switching.leftOver > 0 ? [t('checkout.left-over', { amount: money(switching.leftOver) })] : []),
      ...(isLater ? [] : walletNote),
    ],
    next: isLater ? (after.charges[0] ?? null) : after.next,
    charges: [],
    total: 0,
  };
}

type Obstacle = { words: string; href: string; link: string; hidesPrice: boolean };

/** Why this person cannot continue here, and where they can; null if they can. */
function obstacleOf(prepared: PreparedCheckout, t: Words): Obstacle | null {
  const { action, joining } = prepared;
  const tier = prepared.tier.name;
  const toAccount = { href: '/account', link: t('checkout.to-account'), hidesPrice: true };
  const toOthers = { href: '/join', link: t('checkout.to-others'), hidesPrice: false };
  if (action.kind === 'held') {
    const of = { tier: action.tier.name };
    const words =
      action.subscription.state === 'cancelling' ? t('checkout.held-cancelled', of) : t('checkout.held', of);
    return { ...toAccount, words };
  }
  if (action.kind === 'renew-later') {
    const { until, from } = action;
    return {
      ...toAccount,
      words: t('checkout.renew-later', { tier, until: t.date(until), from: t.date(from) }),
    };
  }
  if (action.kind === 'busy') return { ...toAccount, words: t.problem(refusal(action.why)) };
  if (action.kind === 'no-switch')
    return { ...toAccount, words: noSwitchWords(action.why, action.fromTier.name, tier, action.until, t) };
  if (prepared.obstacle === 'no-gateway') return { ...toOthers, words: t('checkout.no-gateway') };
  if (action.kind === 'renew') return null;
  if (prepared.obstacle === 'over') return { ...toOthers, words: t('checkout.dates-passed') };
  const date = (on: LocalDate | null): string => (on ? t.date(startOfDate(on, t.zone)) : t('mails.later'));
  if (joining.state === 'sold-out') return { ...toOthers, words: t('checkout.sold-out', { tier }) };
  if (joining.state === 'closed') return { ...toOthers, words: t('checkout.tier-closed', { tier }) };
  const { onSaleFrom, onSaleUntil } = prepared.tier;
  if (joining.state === 'not-yet')
    return { ...toOthers, words: t('checkout.sale-from', { tier, date: date(onSaleFrom) }) };
  if (joining.state === 'over')
    return { ...toOthers, words: t('checkout.sale-until', { tier, date: date(onSaleUntil) }) };
  return null;
}

function noSwitchWords(why: Refusal, from: string, to: string, until: Instant | undefined, t: Words): string {
  if (why === 'currency') return t('checkout.currency', { from, to });
  if (why === 'wait' && until) return t('checkout.wait', { from, to, date: t.date(until) });
  return t.problem(refusal(why));
}
