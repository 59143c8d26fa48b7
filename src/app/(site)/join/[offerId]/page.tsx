import type { Metadata } from 'next';
import { searchOf, type Search } from '@/app/search';
import { currentActor, shown } from '@/app/session';
import { safeReturn } from '@/platform/safe-return';
import { prepareCheckout } from '@/checkout/services/prepare-checkout';
import { Checkout } from '../checkout';

type Props = { params: Promise<{ offerId: string }>; searchParams: Search };

export const metadata: Metadata = { title: 'Join' };

export default async function CheckoutPage({ params, searchParams }: Props) {
  const [{ offerId }, { to, country, mode }] = [await params, await searchOf(searchParams)];
  const checkout = await shown(prepareCheckout(await currentActor(), { offerId, country, mode: mode ?? '' }));
  return <Checkout {...checkout} returnTo={safeReturn(to ?? '/account')} />;
}
