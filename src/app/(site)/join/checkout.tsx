import Link from 'next/link';
import { formatDate, formatUntil, startOfDate } from '@/core/calendar';
import { isEmpty } from '@/core/content/prose';
import { formatMoney } from '@/core/money';
import { quoteOffer, type Quote } from '@/core/offers/quote';
import { rateWords, taxOfCharge, type TaxRate } from '@/core/tax';
import type { Refusal } from '@/core/billing/work';
import { refusalSentence } from '@/core/billing/refusal-words';
import { placesWords } from '@/core/tiers/joining';
import type { PreparedCheckout } from '@/checkout/services/prepare-checkout';
import { KeyGlyph } from '@/kit/key-cut';
import { LinkButton } from '@/kit/button';
import { RichText } from '@/content/ui/rich-text';
import { CheckoutForm } from '@/checkout/ui/checkout-form';
import { ChargeSummary } from '@/checkout/ui/charge-summary';
import { RenewForm, SwitchLaterForm } from '@/checkout/ui/renew-and-switch-forms';
import { StartForm } from '@/checkout/ui/start-form';
import { joinAction, renewAction, startCheckoutAction, switchLaterAction } from './actions';

type Props = {
  prepared: PreparedCheckout;
  /** The signed-in member; null for a visitor, who gives an email address first. */
  member: { name: string; email: string; isStaff: boolean } | null;
  site: { name: string; zone: string; mode: 'test' | 'live' };
  /** To choose where one lives from; null where nothing is taxed. */
  countries: { code: string; name: string }[] | null;
  returnTo: string;
};

/** Everything on one page: what it costs today and next, who joins, what is asked, and the card. */
export function Checkout({ prepared, member, site, countries, returnTo }: Props) {
  const { offer, tier, ways, action } = prepared;
  const { zone, name: siteName, mode } = site;
  const { tax, country, addedTax } = prepared.pricing;
  const { currency } = offer.definition;
  const obstacle = obstacleOf(prepared, zone);
  const quote = shownQuote(prepared, zone);
  const atWallet = ways.find((way) => way.nature === 'wallet')?.due ?? quote.due;
  const to = encodeURIComponent(returnTo);
  // What is renewed goes on being paid through what it was paid through.
  const renewWays =
    action.kind === 'renew'
      ? ways.filter((way) => way.accountId === action.subscription.gatewayAccountId)
      : [];
  const isSwitch = action.kind === 'switch';
  const isLater = isSwitch && !action.figures.atOnce;
  return (
    <div className="mx-auto grid w-full max-w-5xl gap-x-12 gap-y-6 px-5 py-10 lg:grid-cols-[1fr_22rem] lg:grid-rows-[auto_1fr]">
      <div>
        <p className="flex items-center gap-2.5 text-muted">
          <KeyGlyph cut={tier.keyCut} size={20} /> {siteName}
        </p>
        <h1 className="mt-2 text-4xl break-words">{titleOf(prepared)}</h1>
        {member?.isStaff && mode === 'live' && (
          <p className="mt-3 rounded-md border border-dashed border-edge px-4 py-2 text-[0.9375rem]">
            {prepared.isTry ? (
              <>
                <b>No real money:</b> you try this in test mode, and nobody is let in by it.{' '}
                <Link className="text-spruce underline" href={`/join/${offer.id}?to=${to}`}>
                  Join for real
                </Link>
              </>
            ) : (
              <>
                You are staff.{' '}
                <Link className="text-spruce underline" href={`/join/${offer.id}?to=${to}&mode=test`}>
                  Try this checkout in test mode
                </Link>
              </>
            )}
          </p>
        )}
        {!isEmpty(tier.joinWords) && <RichText document={tier.joinWords} className="mt-3 grid gap-2" />}
        {prepared.joining.placesLeft !== null && !obstacle && action.kind === 'new' && (
          <p className="figures mt-2 font-semibold text-metered">
            {placesWords(tier.places, prepared.joining.placesLeft)}
          </p>
        )}
        {obstacle ? (
          <div className="mt-6 rounded-md border-l-4 border-metered bg-metered-wash px-4 py-3">
            <p className="font-medium text-metered">{obstacle.words}</p>
            <div className="mt-3 flex flex-wrap gap-2">
              <LinkButton href={obstacle.href} look="quiet">
                {obstacle.link}
              </LinkButton>
              {action.kind === 'held' &&
                prepared.otherOffers.map((other) => (
                  <LinkButton key={other.id} href={`/join/${other.id}?to=${to}`} look="quiet">
                    Switch to {other.name.toLowerCase()}
                  </LinkButton>
                ))}
            </div>
          </div>
        ) : member ? (
          <p className="mt-3 text-muted">
            Signed in as {[member.name, member.email].filter(Boolean).join(', ')}.
          </p>
        ) : null}
      </div>
      {obstacle?.hidesPrice ? null : (
        <ChargeSummary
          sentence={prepared.sentence}
          trialUsed={
            action.kind === 'new' &&
            prepared.skipTrial &&
            offer.definition.steps.some((step) => step.kind === 'trial')
          }
          today={formatMoney(quote.due, currency)}
          credits={quote.credits}
          tax={tax && taxWords(quote, tax, currency)}
          country={
            countries && offer.isPaid && action.kind !== 'renew' ? { code: country, all: countries } : null
          }
          notes={
            member || !offer.isPaid
              ? quote.notes
              : [...quote.notes, 'For new members. You see your own figures before you pay.']
          }
          next={
            quote.next && {
              date: formatDate(quote.next.at, zone),
              amount: formatMoney(quote.next.amount, currency),
            }
          }
          rows={quote.charges.slice(0, 5).map((charge) => ({
            date: formatDate(charge.at, zone),
            amount: formatMoney(charge.amount, currency),
            fee: charge.joiningFee > 0 ? formatMoney(charge.joiningFee, currency, true) : null,
          }))}
          more={Math.max(0, quote.charges.length - 5)}
          year={
            quote.charges.length > 0 && action.kind === 'new'
              ? `${quote.charges.length === 1 ? 'One payment' : `${quote.charges.length} payments`}, ${formatMoney(quote.total, currency)} in the first year`
              : null
          }
          others={
            action.kind === 'new'
              ? prepared.otherOffers.map((other) => ({
                  name: other.name,
                  href: `/join/${other.id}?to=${to}`,
                }))
              : []
          }
        />
      )}
      {!obstacle && action.kind === 'renew' && (
        <RenewForm
          action={renewAction}
          subscriptionId={action.subscription.id}
          until={action.until}
          returnTo={returnTo}
          ways={renewWays}
          keptCard={prepared.keptCard}
          button={`Pay ${formatMoney(action.period.amount, currency)} and renew`}
        />
      )}
      {!obstacle && isLater && (
        <SwitchLaterForm
          action={switchLaterAction}
          quoteId={action.quoteId}
          button={`Switch on ${formatDate(action.figures.startsAt, zone)}`}
        />
      )}
      {!obstacle && !member && (
        <StartForm
          action={startCheckoutAction}
          offerId={offer.id}
          to={returnTo}
          stamp={prepared.stamp}
          signInHref={`/sign-in?to=${encodeURIComponent(`/join/${offer.id}?to=${to}`)}`}
        />
      )}
      {!obstacle && member && (action.kind === 'new' || (isSwitch && !isLater)) && (
        <CheckoutForm
          action={joinAction}
          checkoutId={prepared.checkoutId}
          offerId={offer.id}
          versionId={offer.versionId}
          country={country}
          addedTax={addedTax}
          mode={prepared.isTry ? 'test' : ''}
          quoteId={isSwitch ? action.quoteId : ''}
          returnTo={returnTo}
          asksName={member.name === ''}
          fields={isSwitch ? [] : prepared.fields}
          asksCode={prepared.joining.state === 'by-code'}
          ways={ways}
          isDue={quote.due > 0}
          due={quote.due}
          dueAtWallet={atWallet}
          keptCard={prepared.keptCard}
          typed={prepared.typed ?? undefined}
          cost={costWords(quote, currency, zone)}
          button={
            quote.due > 0
              ? `Pay ${formatMoney(quote.due, currency)} and ${isSwitch ? 'switch' : 'join'}`
              : isSwitch
                ? 'Switch now'
                : 'Join'
          }
        />
      )}
    </div>
  );
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
  const day = (at: string): string => formatDate(at, zone);
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
  if (action.kind === 'busy') return { ...toAccount, words: refusalSentence(action.why) };
  if (action.kind === 'no-switch')
    return {
      ...toAccount,
      words: noSwitchWords(action.why, action.fromTier.name, tier.name, action.until && day(action.until)),
    };
  if (prepared.obstacle === 'no-gateway')
    return { ...toOthers, words: 'Payments are not set up yet, so nobody can join by this offer today.' };
  if (action.kind === 'renew') return null;
  if (prepared.obstacle === 'over') return { ...toOthers, words: 'Every date of this offer has passed.' };
  const date = (on: string): string => day(startOfDate(on, zone));
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
  return refusalSentence(why);
}
