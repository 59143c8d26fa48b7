import { SiteLinkButton } from '@/kit/site-link';
import { Link } from '@/kit/link';
import { isEmpty } from '@/core/content/prose';
import { methodWords } from '@/words/methods';
import type { Words } from '@/words/words';
import type { CheckoutPage, PreparedCheckout } from '@/checkout/services/prepare-checkout';
import { KeyGlyph } from '@/kit/key-cut';
import { RichText } from '@/content/ui/rich-text';
import { CodeBox } from '@/checkout/ui/code-box';
import { discountWords } from '@/words/discounts';
import { CheckoutForm } from '@/checkout/ui/checkout-form';
import { ChargeSummary } from '@/checkout/ui/charge-summary';
import { RenewForm, SwitchLaterForm } from '@/checkout/ui/renew-and-switch-forms';
import { startWords } from '@/app/start-words';
import { StartForm } from '@/checkout/ui/start-form';
import { joinAction, renewAction, startCheckoutAction, switchLaterAction } from './actions';

type Props = {
  t: Words;
  prepared: PreparedCheckout;
  page: CheckoutPage;
  /** The signed-in member; null for a visitor, who gives an email address first. */
  member: { name: string; email: string; isStaff: boolean } | null;
  site: { name: string; mode: 'test' | 'live' };
  /** Whether they are asked if they want letters. */
  asksLetters: boolean;
  /** The countries to choose from; null where nothing is taxed. */
  countries: { code: string; name: string }[] | null;
  returnTo: string;
  /** The name that was typed beside a join button; '' for none. */
  givenName: string;
};

/** Everything on one page: what it costs today and next, who joins, what is asked, and the card. */
export function Checkout({
  t,
  prepared,
  page,
  member,
  site,
  asksLetters,
  countries,
  returnTo,
  givenName,
}: Props) {
  const { offer, tier, ways, action } = prepared;
  const { name: siteName, mode } = site;
  const { country, addedTax } = prepared.pricing;
  const { currency } = offer.definition;
  const { obstacle, quote, isSwitch, isLater } = page;
  const to = encodeURIComponent(returnTo);
  const { code } = prepared;
  const usedCode = code && !code.problem ? code.word : '';
  const needsCode = action.kind === 'new' && prepared.joining.state === 'by-code' && usedCode === '';
  const keptCard = prepared.keptCard && {
    ...prepared.keptCard,
    label: t('pay.saved', { method: methodWords(prepared.keptCard.label, t) }),
  };
  return (
    <div className="mx-auto grid w-full max-w-5xl gap-x-12 gap-y-6 px-5 py-10 lg:grid-cols-[1fr_22rem] lg:grid-rows-[auto_1fr]">
      <div>
        <p className="flex items-center gap-2.5 text-muted">
          <KeyGlyph cut={tier.keyCut} size={20} /> {siteName}
        </p>
        <h1 className="mt-2 text-4xl break-words">{page.title}</h1>
        {member?.isStaff && mode === 'live' && (
          <p className="mt-3 rounded-md border border-dashed border-edge px-4 py-2 text-[0.9375rem]">
            {prepared.isTry ? (
              <>
                {t('checkout.staff-trying')}{' '}
                <Link className="text-spruce underline" href={`/join/${offer.id}?to=${to}`}>
                  {t('checkout.staff-real')}
                </Link>
              </>
            ) : (
              <>
                {t('checkout.staff')}{' '}
                <Link className="text-spruce underline" href={`/join/${offer.id}?to=${to}&mode=test`}>
                  {t('checkout.staff-try')}
                </Link>
              </>
            )}
          </p>
        )}
        {!isEmpty(tier.joinWords) && <RichText document={tier.joinWords} className="mt-3 grid gap-2" />}
        {prepared.joining.placesLeft !== null && !obstacle && action.kind === 'new' && (
          <p className="figures mt-2 font-semibold text-metered">
            {t('join.places', {
              left: prepared.joining.placesLeft,
              places: tier.places ?? prepared.joining.placesLeft,
            })}
          </p>
        )}
        {obstacle ? (
          <div className="mt-6 rounded-md border-l-4 border-metered bg-metered-wash px-4 py-3">
            <p className="font-medium text-metered">{obstacle.words}</p>
            <div className="mt-3 flex flex-wrap gap-2">
              <SiteLinkButton href={obstacle.href} look="quiet">
                {obstacle.link}
              </SiteLinkButton>
              {action.kind === 'held' &&
                prepared.otherOffers.map((other) => (
                  <SiteLinkButton key={other.id} href={`/join/${other.id}?to=${to}`} look="quiet">
                    {t('checkout.switch-to', { offer: other.name })}
                  </SiteLinkButton>
                ))}
            </div>
          </div>
        ) : member ? (
          <p className="mt-3 text-muted">
            {t('checkout.signed-in-as', { who: [member.name, member.email].filter(Boolean).join(', ') })}
          </p>
        ) : null}
        {!obstacle && prepared.forHolder && (
          <p className="mt-4 rounded-md border-l-4 border-open bg-open-wash px-4 py-2.5 text-open">
            {t('checkout.for-holders', {
              tier: prepared.forHolder.tierName,
              words: discountWords(prepared.forHolder.discount, currency, t),
            })}
          </p>
        )}
        {!obstacle && prepared.asksCode && (
          <CodeBox
            t={t}
            word={code?.word ?? ''}
            problem={code?.problem ? t.problem(code.problem) : ''}
            does={code && !code.problem ? discountWords(code.discount, currency, t) : ''}
            isNeeded={needsCode}
            keep={{ to: returnTo, name: givenName, country, mode: prepared.isTry ? 'test' : '' }}
          />
        )}
      </div>
      {obstacle?.hidesPrice ? null : (
        <ChargeSummary
          t={t}
          sentence={prepared.sentence}
          trialUsed={
            action.kind === 'new' &&
            prepared.skipTrial &&
            offer.definition.steps.some((step) => step.kind === 'trial')
          }
          today={t.money(quote.due, currency)}
          credits={quote.credits}
          tax={page.tax}
          country={
            countries && offer.isPaid && action.kind !== 'renew' ? { code: country, all: countries } : null
          }
          notes={member || !offer.isPaid ? quote.notes : [...quote.notes, t('checkout.for-new')]}
          next={
            quote.next && {
              date: t.date(quote.next.at),
              amount: t.money(quote.next.amount, currency),
            }
          }
          rows={quote.charges.slice(0, 5).map((charge) => ({
            date: t.date(charge.at),
            amount: t.money(charge.amount, currency),
            fee: charge.joiningFee > 0 ? t.money(charge.joiningFee, currency, true) : null,
          }))}
          more={Math.max(0, quote.charges.length - 5)}
          year={page.year}
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
          t={t}
          action={renewAction}
          subscriptionId={action.subscription.id}
          until={action.until}
          returnTo={returnTo}
          ways={page.renewWays}
          keptCard={keptCard}
          button={page.button}
        />
      )}
      {!obstacle && isLater && action.kind === 'switch' && (
        <SwitchLaterForm t={t} action={switchLaterAction} quoteId={action.quoteId} button={page.button} />
      )}
      {!obstacle && !needsCode && !member && (
        <StartForm
          code={usedCode}
          words={startWords(t)}
          action={startCheckoutAction}
          offerId={offer.id}
          to={returnTo}
          name={givenName}
          stamp={prepared.stamp}
          signInHref={`/sign-in?to=${encodeURIComponent(`/join/${offer.id}?to=${to}`)}`}
        />
      )}
      {!obstacle && !needsCode && member && (action.kind === 'new' || (isSwitch && !isLater)) && (
        <CheckoutForm
          t={t}
          action={joinAction}
          checkoutId={prepared.checkoutId}
          offerId={offer.id}
          versionId={offer.versionId}
          country={country}
          addedTax={addedTax}
          mode={prepared.isTry ? 'test' : ''}
          quoteId={action.kind === 'switch' ? action.quoteId : ''}
          returnTo={returnTo}
          asksName={member.name === ''}
          givenName={givenName}
          letters={asksLetters && !isSwitch ? t('by-mail.topic-letters', { site: siteName }) : ''}
          fields={isSwitch ? [] : prepared.fields}
          code={usedCode}
          ways={ways}
          isDue={quote.due > 0}
          due={quote.due}
          dueAtWallet={page.dueAtWallet}
          keptCard={keptCard}
          typed={prepared.typed ?? undefined}
          cost={page.cost}
          button={page.button}
        />
      )}
    </div>
  );
}
