import type { Metadata } from 'next';
import Link from 'next/link';
import { notFound } from 'next/navigation';
import { currentMember } from '@/app/session';
import { formatDate } from '@/core/calendar';
import { formatMoney } from '@/core/money';
import { prepareJoining, type PreparedJoining } from '@/services/prepare-joining';
import { safeReturn } from '@/services/safe-return';
import { currentSite } from '@/services/site';
import { KeyGlyph } from '@/ui/key-cut';
import { LinkButton } from '@/ui/kit/button';
import { CheckoutForm } from '@/ui/site/checkout-form';
import { ChargeSummary } from '@/ui/site/charge-summary';
import { joinAction } from '../actions';

type Props = { params: Promise<{ offerId: string }>; searchParams: Promise<{ to?: string }> };

export const metadata: Metadata = { title: 'Join', robots: { index: false } };

function obstacleWords({ obstacle, heldTier, tier }: PreparedJoining): string {
  if (obstacle === 'no-gateway')
    return 'Payments are not set up yet, so nobody can join by this offer today.';
  if (obstacle === 'over') return 'Every date of this offer has passed.';
  if (!heldTier || heldTier.id === tier.id) return `You hold ${tier.name} already.`;
  return `You hold ${heldTier.name}, which stands on one ladder with ${tier.name}: only one of them is held at a time. End ${heldTier.name} in your account first.`;
}

export default async function CheckoutPage({ params, searchParams }: Props) {
  const [{ offerId }, { to }] = [await params, await searchParams];
  const member = await currentMember();
  const prepared = await prepareJoining(offerId, member);
  if (!prepared) notFound();
  const { offer, tier, quote, frame, obstacle, sentence, otherOffers, skipTrial } = prepared;
  const site = await currentSite();
  const returnTo = safeReturn(to ?? '/account');
  const { currency } = offer.definition;
  return (
    <div className="mx-auto grid w-full max-w-5xl gap-x-12 gap-y-6 px-5 py-10 lg:grid-cols-[1fr_22rem] lg:grid-rows-[auto_1fr]">
      <div>
        <p className="flex items-center gap-2.5 text-muted">
          <KeyGlyph cut={tier.keyCut} size={20} /> {site.name}
        </p>
        <h1 className="mt-2 text-4xl">Join as {tier.name}</h1>
        {obstacle !== 'none' ? (
          <div className="mt-6 rounded-md border-l-4 border-metered bg-metered-wash px-4 py-3">
            <p className="font-medium text-metered">{obstacleWords(prepared)}</p>
            <LinkButton href={obstacle === 'held' ? '/account' : '/join'} look="quiet" className="mt-3">
              {obstacle === 'held' ? 'See your account' : 'See the other offers'}
            </LinkButton>
          </div>
        ) : (
          <>
            {member ? (
              <p className="mt-3">
                You join as {member.name}, {member.email}.
              </p>
            ) : (
              <p className="mt-3 text-muted">
                Have an account already?{' '}
                <Link
                  className="text-spruce underline"
                  href={`/sign-in?to=${encodeURIComponent(`/join/${offer.id}?to=${encodeURIComponent(returnTo)}`)}`}
                >
                  Sign in first
                </Link>
                , and your details are filled in.
              </p>
            )}
          </>
        )}
      </div>
      <ChargeSummary
        sentence={sentence}
        trialUsed={skipTrial && offer.definition.steps.some((step) => step.kind === 'trial')}
        today={formatMoney(quote.dueToday, currency)}
        next={
          quote.next && {
            date: formatDate(quote.next.at, site.zone),
            amount: formatMoney(quote.next.amount, currency),
          }
        }
        rows={quote.charges.slice(0, 5).map((charge) => ({
          date: formatDate(charge.at, site.zone),
          amount: formatMoney(charge.amount, currency),
          fee: charge.joiningFee > 0 ? formatMoney(charge.joiningFee, currency, true) : null,
        }))}
        more={Math.max(0, quote.charges.length - 5)}
        year={
          quote.firstYearCount > 0
            ? `${quote.firstYearCount === 1 ? 'One payment' : `${quote.firstYearCount} payments`}, ${formatMoney(quote.firstYearTotal, currency)} in the first year`
            : null
        }
        others={otherOffers.map((other) => ({
          name: other.name,
          href: `/join/${other.id}?to=${encodeURIComponent(returnTo)}`,
        }))}
      />
      {obstacle === 'none' && (
        <CheckoutForm
          action={joinAction}
          joiningId={prepared.joiningId}
          offerId={offer.id}
          versionId={offer.versionId}
          returnTo={returnTo}
          isSignedIn={Boolean(member)}
          frame={frame}
          button={quote.dueToday > 0 ? `Pay ${formatMoney(quote.dueToday, currency)} and join` : 'Join'}
        />
      )}
    </div>
  );
}
