import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, shown } from '@/app/session';
import { safeReturn } from '@/platform/safe-return';
import { prepareCheckout } from '@/checkout/services/prepare-checkout';
import { LinkButton } from '@/kit/button';
import { Checkout } from '../checkout';
import type { OfferId } from '@/core/ids';

type Props = { params: Promise<{ offerId: OfferId }>; searchParams: Search };

export const metadata: Metadata = { title: 'Join' };

export default async function CheckoutPage({ params, searchParams }: Props) {
  const [{ offerId }, { to, country, mode }] = [await params, await searchOf(searchParams)];
  const checkout = await shown(prepareCheckout(await currentActor(), { offerId, country, mode: mode ?? '' }));
  const { prepared, page, gone, ...rest } = checkout;
  if (!prepared || !page) return <Gone tierName={gone?.tierName ?? ''} />;
  return <Checkout {...rest} prepared={prepared} page={page} returnTo={safeReturn(to ?? '/account')} />;
}

/** A link to what is no longer sold: it may stand in an old mail. */
function Gone({ tierName }: { tierName: string }) {
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-4xl break-words">{tierName} is no longer on offer</h1>
      <p className="mt-3 text-lg">
        Nobody new can join by this link. If you hold {tierName} already, nothing changes for you.
      </p>
      <div className="mt-6 flex flex-wrap gap-3">
        <LinkButton href="/join">See what is on offer</LinkButton>
        <LinkButton href="/account" look="quiet">
          Your account
        </LinkButton>
      </div>
    </div>
  );
}
