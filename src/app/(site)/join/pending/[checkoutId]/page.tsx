import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { currentActor, shown } from '@/app/session';
import { formatDate } from '@/core/instants';
import { formatMoney } from '@/core/money';
import { pendingCheckout } from '@/checkout/services/pending-checkout';
import { KeyGlyph } from '@/kit/key-cut';
import { LinkButton } from '@/kit/button';
import { CopyText } from '@/kit/copy-text';
import { AskAgain } from '@/checkout/ui/ask-again';
import { sentence } from '@/words/problems';
import type { CheckoutId } from '@/core/ids';

export const metadata: Metadata = { title: 'One more step', robots: { index: false } };

/** A joining that waits for its payer: a transfer to be sent, or a yes at the wallet. */
export default async function PendingPage({ params }: { params: Promise<{ checkoutId: CheckoutId }> }) {
  const { checkoutId } = await params;
  const { state, lastProblem, tier, transfer, approveUrl, offerId, zone } = await shown(
    pendingCheckout(await currentActor(), checkoutId),
  );
  if (state === 'done') redirect(`/join/done/${checkoutId}`);
  const again = `/join/${offerId}`;
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      {tier && <KeyGlyph cut={tier.keyCut} size={34} />}
      {transfer ? (
        <>
          <h1 className="mt-4 text-4xl">Now send the transfer</h1>
          <p className="mt-3 text-lg">
            {tier?.name} opens as soon as the money is there; we’ll email you then.
          </p>
          <dl className="figures mt-6 rounded-xl border border-line bg-surface p-6">
            {[
              ['Amount', formatMoney(transfer.amount, transfer.currency)],
              ['To', transfer.payee],
              ['Account', transfer.account],
              ...(transfer.bank ? [['Bank', transfer.bank]] : []),
              ['Please by', formatDate(transfer.until, zone)],
            ].map(([name, value]) => (
              <div key={name} className="flex justify-between gap-4 border-t border-line py-2 first:border-0">
                <dt className="text-muted">{name}</dt>
                <dd className="text-right font-semibold">{value}</dd>
              </div>
            ))}
            <div className="mt-2 border-t border-line pt-3">
              <dt className="text-muted">Write this reference with it, and nothing else</dt>
              <dd className="mt-1 font-mono text-2xl font-semibold tracking-wider">
                <CopyText text={transfer.reference} name="the reference" />
              </dd>
            </div>
          </dl>
          <p className="mt-4 text-muted">All of this is in your mail too.</p>
          <div className="mt-6 flex flex-wrap gap-3">
            <LinkButton href={`/join/pending/${checkoutId}/invoice`} look="quiet">
              The invoice, to print or keep
            </LinkButton>
            <LinkButton href={again} look="quiet">
              Pay in another way after all
            </LinkButton>
          </div>
        </>
      ) : approveUrl ? (
        <>
          <h1 className="mt-4 text-4xl">Waiting for your wallet</h1>
          <p className="mt-3 text-lg">
            {(lastProblem && sentence(lastProblem)) ||
              'The wallet has not told us yet that you approved. This page looks again by itself.'}
          </p>
          <AskAgain path={`/join/approved/${checkoutId}`} />
          <div className="mt-6 flex flex-wrap gap-3">
            <LinkButton href={approveUrl}>Go to the wallet</LinkButton>
            <LinkButton href={again} look="quiet">
              Pay in another way
            </LinkButton>
          </div>
        </>
      ) : (
        <>
          <h1 className="mt-4 text-4xl">Nothing was joined</h1>
          <p className="mt-3 text-lg">
            {(lastProblem && sentence(lastProblem)) ||
              'You did not approve it at the wallet. Nothing was charged.'}
          </p>
          <LinkButton href={again} className="mt-6">
            Try again
          </LinkButton>
        </>
      )}
    </div>
  );
}
